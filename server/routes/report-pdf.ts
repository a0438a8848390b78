import type { Response } from 'express';
import type { z } from 'zod';
import type { reportPdf, wholeReportVersion } from '../../contract/report/report.ts';
import { reportFileName, versioned, type WrittenReport } from '../../core/report/written-report.ts';
import type { Database } from '../../store/database/database.ts';
import { photoContent } from '../../store/jobs/files.ts';
import type { Photo } from '../reports/pdf-block.tsx';
import type { PdfWishes } from '../reports/report-pdf.tsx';
import type { ReportThread } from '../reports/report-thread.ts';
import type { ToldAsItGoes } from './told-as-it-goes.ts';

/** Where a PDF is made, and who waits for it. */
interface PdfWork {
  database: Database;
  response: Response;
  thread: ReportThread;
  told: ToldAsItGoes;
}

/** Answers with a report as a PDF: in lines as the last of them, to others as the file itself. */
export async function sendReportPdf(
  report: WrittenReport,
  wishes: Pick<PdfWishes, 'paper' | 'onePage' | 'language'>,
  { database, response, thread, told }: PdfWork,
): Promise<void> {
  const photos = await photosOf(report, database);
  told.tell({ doing: 'writing', done: 0 });
  const { pdf, pages } = await thread.ask('pdf', { report, pdf: { ...wishes, photos } });
  const bytes = Buffer.from(pdf);
  const name = `${reportFileName(report)}.pdf`;
  if (told.inLines)
    told.end(200, { name, pages, base64: bytes.toString('base64') } satisfies z.infer<typeof reportPdf>);
  else response.attachment(name).type('application/pdf').send(bytes);
}

type KeptReport = z.output<typeof wholeReportVersion>;

/** A kept report as its reader has it in hand, with its number at the head: what the store holds is what core wrote. */
export function keptReport({ written, number, draft }: KeptReport): WrittenReport {
  return versioned(written as unknown as WrittenReport, number, draft?.language);
}

/** Answers with a kept report as a PDF, in its own form and language. */
export function sendKeptPdf(version: KeptReport, paper: PdfWishes['paper'], work: PdfWork): Promise<void> {
  const { form, language = 'en' } = version.draft ?? {};
  return sendReportPdf(keptReport(version), { paper, onePage: form === 'short', language }, work);
}

/** What the photos of a report show, as far as a PDF can hold them: a WebP picture it cannot. */
async function photosOf({ blocks }: WrittenReport, database: Database): Promise<PdfWishes['photos']> {
  const ids = blocks.flatMap(({ content }) => (content.is === 'photos' ? content.photos.map(({ id }) => id) : []));
  const found = new Map<number, Photo>();
  for (const id of ids) {
    const photo = await photoContent(database, id);
    const format = photo?.mime === 'image/jpeg' ? 'jpg' : photo?.mime === 'image/png' ? 'png' : undefined;
    if (photo && format) found.set(id, { data: photo.content, format });
  }
  return found;
}
