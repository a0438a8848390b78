import type { Request } from 'express';
import { rateLimit } from 'express-rate-limit';
import { papers } from '../../contract/report/report.ts';
import { madeSharedLink, newSharedLink, sharedContent } from '../../contract/report/shared-link.ts';
import type { Database } from '../../store/database/database.ts';
import { photoContent } from '../../store/jobs/files.ts';
import { jobWithAll } from '../../store/jobs/jobs.ts';
import { reportVersionById } from '../../store/reports/report-versions.ts';
import {
  addSharedLink,
  countOpening,
  linkOfKey,
  sharedLinksOf,
  type OpenedLink,
} from '../../store/reports/shared-links.ts';
import type { DynoHistory } from '../dyno-history.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { fromOutside } from '../loopback.ts';
import { remotePageCsp } from '../remote/remote-page.ts';
import { SharedPages } from '../remote/shared-pages.ts';
import { act, bodyAs, found, idOf } from './answer.ts';
import type { ContractRoutes } from './contract-routes.ts';
import { inThread } from './in-thread.ts';
import { keptReport, sendKeptPdf } from './report-pdf.ts';
import { takesAway } from './takes-away.ts';

/** Pages and PDFs take a thread for seconds: one machine elsewhere has so many of them made in a minute, and this shop's own work goes on. */
const made = rateLimit({
  windowMs: 60_000,
  limit: 12,
  standardHeaders: 'draft-8',
  legacyHeaders: false,
  skip: (request) => !fromOutside(request),
  handler: () => {
    throw new HttpRefusal(429, 'This was opened very often. Wait a minute, then open it again.');
  },
});

/** One kept report or one job's Compare, to be read by whoever has the link: making, taking back, opening. */
export function sharedLinkRoutes(routes: ContractRoutes, database: Database, dynos: DynoHistory): void {
  const pages = new SharedPages({ database, dynos });

  routes.get('/jobs/:id/shared-links', async (request, response) => {
    response.json(await sharedLinksOf(database, idOf(request)));
  });

  routes.post('/jobs/:id/shared-links', async (request, response) => {
    const wished = bodyAs(request, newSharedLink);
    const jobId = found(await jobWithAll(database, idOf(request)), 'job').id;
    const { id, key } = await act(database, response, (client) => addSharedLink(client, jobId, wished));
    const made = (await sharedLinksOf(database, jobId)).find((link) => link.id === id);
    response.status(201).json(madeSharedLink.parse({ ...found(made, 'link'), key }));
  });

  takesAway(routes, database, '/shared-links/:id', 'shared_link', 'link');

  /** Whoever guesses learns nothing: unknown, ended and taken back are one answer. */
  const opened = async (request: Request): Promise<OpenedLink> => {
    const key = String(request.params.key);
    const link = key.length < 100 ? await linkOfKey(database, key) : undefined;
    if (!link)
      throw new HttpRefusal(
        404,
        'This link is not known, has ended or was taken back. Ask whoever sent it for another one.',
      );
    return link;
  };
  const reportOf = async (link: OpenedLink) =>
    found(link.reportVersionId !== null && (await reportVersionById(database, link.reportVersionId)), 'report');

  routes.get('/shared/:key', async (request, response) => {
    const link = await opened(request);
    await countOpening(database, link.id);
    if (link.reportVersionId === null) return void response.json({ is: 'comparison', endsAt: link.endsAt });
    const report = keptReport(await reportOf(link));
    response.json(sharedContent.parse({ is: 'report', endsAt: link.endsAt, report }));
  });

  routes.get('/shared/:key/page', made, async (request, response) => {
    const { id, jobId, reportVersionId, view } = await opened(request);
    if (reportVersionId !== null) throw new HttpRefusal(404, 'This link opens a report and no comparison.');
    const send = (html: string) => response.set('content-security-policy', remotePageCsp).type('html').send(html);
    const recent = pages.recent(id);
    if (recent !== undefined) return void send(recent);
    const job = found(await jobWithAll(database, jobId), 'job');
    await inThread(request, response, async (thread, told) => void send(await pages.make(id, job, view, thread, told)));
  });

  routes.get('/shared/:key/pdf', made, async (request, response) => {
    const version = await reportOf(await opened(request));
    const paper = papers.find((one) => one === request.query.paper) ?? 'A4';
    await inThread(request, response, (thread, told) =>
      sendKeptPdf(version, paper, { database, response, thread, told }),
    );
  });

  routes.get('/shared/:key/photos/:id', async (request, response) => {
    const id = idOf(request);
    const { blocks } = keptReport(await reportOf(await opened(request)));
    const shown = blocks.some(
      ({ content }) => content.is === 'photos' && content.photos.some((photo) => photo.id === id),
    );
    const { mime, content } = found(shown && (await photoContent(database, id)), 'photo');
    response.type(mime).send(content);
  });
}
