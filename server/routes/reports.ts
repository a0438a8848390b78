import type { Request } from 'express';
import { newReportVersion, reportPdfWishes, reportVersion, wholeReportVersion } from '../../contract/report/report.ts';
import type { Database } from '../../store/database/database.ts';
import { jobWithAll } from '../../store/jobs/jobs.ts';
import { addReportVersion, reportVersionById } from '../../store/reports/report-versions.ts';
import type { DynoHistory } from '../dyno-history.ts';
import { jobReport } from '../reports/job-report.ts';
import { act, bodyAs, found, idOf } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';
import { inThread } from './in-thread.ts';
import { sendKeptPdf, sendReportPdf } from './report-pdf.ts';
import { takesAway } from './takes-away.ts';

/** Reports as files, and those that were kept as they were. */
export function reportRoutes(routes: ContractRoutes, database: Database, dynos: DynoHistory): void {
  const jobAt = async (request: Request) => found(await jobWithAll(database, idOf(request)), 'job');

  routes.post('/jobs/:id/report/pdf', async (request, response) => {
    const { paper, ...view } = bodyAs(request, reportPdfWishes);
    const job = await jobAt(request);
    await inThread(request, response, async (thread, told) => {
      const { written } = await jobReport(job, view, { database, dynos }, thread, told);
      const { form, language = 'en' } = job.report ?? {};
      await sendReportPdf(
        written,
        { paper, onePage: form === 'short', language },
        { database, response, thread, told },
      );
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
    const version = found(await reportVersionById(database, idOf(request)), 'report');
    await inThread(request, response, (thread, told) =>
      sendKeptPdf(version, paper, { database, response, thread, told }),
    );
  });

  takesAway(routes, database, '/report-versions/:id', 'report_version', 'report');
}

/** As it is stored: without what JSON cannot say. */
const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value));
