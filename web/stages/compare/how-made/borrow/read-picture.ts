import { Refusal } from '../../../../../core/refusal.ts';
import type { Picture } from '../../../../../core/exchange/borrowed/traced-curve.ts';

/** A picture of a sheet: its pixels, and an address to show it at. */
export interface SheetPicture extends Picture {
  address: string;
}

/** What a file holds: pages of a document, or one picture. */
export interface SheetFile {
  pages: number;
  /** @param page from 1 on */
  read: (page: number) => Promise<SheetPicture>;
}

/** Wider pictures are made smaller: a line is followed just as well, and nothing waits. */
const mostPx = 1800;
/** A page of a document is drawn so wide. */
const pagePx = 1500;

/**
 * Opens a picture (PNG, JPEG) or a document (PDF) of which a page is a picture.
 * @throws Refusal with what is wrong with it
 */
export async function openSheet(file: File): Promise<SheetFile> {
  if (file.type === 'application/pdf' || /\.pdf$/i.test(file.name)) return openDocument(file);
  return {
    pages: 1,
    read: async () => {
      const bitmap = await createImageBitmap(file).catch(() => {
        throw new Refusal(`${file.name} cannot be read as a picture: PNG, JPEG and PDF can.`);
      });
      const scale = Math.min(1, mostPx / Math.max(bitmap.width, bitmap.height));
      return drawn(Math.round(bitmap.width * scale), Math.round(bitmap.height * scale), (pen, width, height) => {
        pen.drawImage(bitmap, 0, 0, width, height);
        return Promise.resolve();
      });
    },
  };
}

async function openDocument(file: File): Promise<SheetFile> {
  const [reader, { default: workerSrc }] = await Promise.all([
    import('pdfjs-dist'),
    import('pdfjs-dist/build/pdf.worker.min.mjs?url'),
  ]);
  reader.GlobalWorkerOptions.workerSrc = workerSrc;
  const document = await reader.getDocument({ data: await file.arrayBuffer() }).promise.catch(() => {
    throw new Refusal(`${file.name} cannot be read as a PDF: it is broken, or locked by a password.`);
  });
  return {
    pages: document.numPages,
    read: async (number) => {
      const page = await document.getPage(number);
      const [, , wide = pagePx, high = pagePx] = page.view;
      const viewport = page.getViewport({ scale: pagePx / Math.max(wide, high) });
      return drawn(Math.round(viewport.width), Math.round(viewport.height), async (pen) => {
        await page.render({ canvasContext: pen, canvas: pen.canvas, viewport }).promise;
      });
    },
  };
}

async function drawn(
  width: number,
  height: number,
  draw: (pen: CanvasRenderingContext2D, width: number, height: number) => Promise<void>,
): Promise<SheetPicture> {
  const canvas = document.createElement('canvas');
  Object.assign(canvas, { width, height });
  const pen = canvas.getContext('2d', { willReadFrequently: true });
  if (!pen) throw new Refusal('The browser cannot draw the picture.');
  pen.fillStyle = 'white';
  pen.fillRect(0, 0, width, height);
  await draw(pen, width, height);
  return { width, height, rgba: pen.getImageData(0, 0, width, height).data, address: canvas.toDataURL('image/png') };
}
