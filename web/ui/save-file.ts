import { notifications } from '@mantine/notifications';

/** Gives a file to whoever looks at the page. */
export function saveFile(name: string, type: string, content: string | Blob): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(typeof content === 'string' ? new Blob([content], { type }) : content);
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** A picture in pixels, twice its size, for print. */
export async function savePng(name: string, svg: string): Promise<void> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [2 * image.width, 2 * image.height];
  const pen = canvas.getContext('2d');
  pen?.scale(2, 2);
  pen?.drawImage(image, 0, 0);
  canvas.toBlob((blob) => blob && saveFile(name, 'image/png', blob), 'image/png');
}

/** @param done what is said once it is copied */
export function copyText(text: string, done: string): void {
  void navigator.clipboard.writeText(text).then(
    () => notifications.show({ message: done, autoClose: 2500 }),
    () => notifications.show({ message: 'The browser does not let anything be copied.', color: 'red' }),
  );
}
