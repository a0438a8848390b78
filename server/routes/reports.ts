import type { Request, Response } from 'express';
import {
  newReportVersion,
  reportPdfWishes,
  reportVersion,
  wholeReportVersion,
  type reportPdf,
} from '../../contract/report.ts';
import type { z } from 'zod';
import { reportFileName, versioned, type WrittenReport } from '../../core/report/written-report.ts';
import type { Database } from '../../store/database.ts';
import { jobWithAll } from '../../store/jobs.ts';
import { photoContent } from '../../store/files.ts';
import { addReportVersion, reportVersionById } from '../../store/report-versions.ts';
import type { DynoHistory } from '../dyno-history.ts';
import { jobReport } from '../reports/job-report.ts';
import type { ReportThread } from '../reports/report-thread.ts';
import type { Photo } from '../reports/pdf-block.tsx';
import type { PdfWishes } from '../reports/report-pdf.tsx';
import { act, bodyAs, found, idOf } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';
import { inThread } from './in-thread.ts';
import { takesAway } from './takes-away.ts';
import type { ToldAsItGoes } from './told-as-it-goes.ts';

/** Reports as files, and those that were kept as they were. */
export function reportRoutes(routes: ContractRoutes, database: Database, dynos: DynoHistory): void {
  const jobAt = async (request: Request) => found(await jobWithAll(database, idOf(request)), 'job');

  routes.post('/jobs/:id/report/pdf', async (request, response) => {
    const { paper, ...view } = bodyAs(request, reportPdfWishes);
    const job = await jobAt(request);
    await inThread(request, response, async (thread, told) => {
      const { written } = await jobReport(job, view, { database, dynos }, thread, told);
      const wishes = { paper, onePage: job.report?.form === 'short', language: 'en' };
      const pdf = await pdfOf(written, { ...wishes, photos: await photosOf(written, database) }, thread, told);
      sendPdf(response, told, `${reportFileName(written)}.pdf`, pdf);
    });
  });

  routes.post('/jobs/:id/report/versions', async (request, response) => {
    const { note, ...view } = bodyAs(request, newReportVersion);
    const job = await jobAt(request);
    await inThread(request, response, async (thread, told) => {
      const { written, restsOn } = await jobReport(job, view, { database, dynos }, thread, told);
      const units = job.report?.units ?? view.units;
      const kept = wholeReportVersion
        .omit({ id: true, number: true, createdAt: true })
        .parse(plain({ jobId: job.id, note, view: { ...view, units }, restsOn, draft: job.report, written }));
      const id = await act(database, response, (client) => addReportVersion(client, kept));
      told.end(201, reportVersion.parse(found(await reportVersionById(database, id), 'report')));
    });
  });

  routes.get('/report-versions/:id', async (request, response) => {
    response.json(found(await reportVersionById(database, idOf(request)), 'report'));
  });

  routes.post('/report-versions/:id/pdf', async (request, response) => {
    const { paper } = bodyAs(request, reportPdfWishes.pick({ paper: true }));
    const { written, draft, number } = found(await reportVersionById(database, idOf(request)), 'report');
    await inThread(request, response, async (thread, told) => {
      const report = versioned(written as unknown as WrittenReport, number);
      const wishes = { paper, onePage: draft?.form === 'short', language: 'en' };
      const pdf = await pdfOf(report, { ...wishes, photos: await photosOf(report, database) }, thread, told);
      sendPdf(response, told, `${reportFileName(report)}.pdf`, pdf);
    });
  });

  takesAway(routes, database, '/report-versions/:id', 'report_version', 'report');
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

async function pdfOf(report: WrittenReport, wishes: PdfWishes, thread: ReportThread, told: ToldAsItGoes) {
  told.tell({ doing: 'writing', done: 0 });
  return thread.ask('pdf', { report, pdf: wishes });
}

/** In lines as the last of them, to others as the file itself. */
function sendPdf(
  response: Response,
  told: ToldAsItGoes,
  name: string,
  { pdf, pages }: { pdf: Uint8Array; pages: number },
): void {
  const bytes = Buffer.from(pdf);
  if (told.inLines)
    told.end(200, { name, pages, base64: bytes.toString('base64') } satisfies z.infer<typeof reportPdf>); // prettier-ignore
  else response.attachment(name).type('application/pdf').send(bytes);
}

/** As it is stored: without what JSON cannot say. */
const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value));
