import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express, type RequestHandler } from 'express';
import expressStaticGzip from 'express-static-gzip';
import { rateLimit } from 'express-rate-limit';
import helmet from 'helmet';
import type { DynoHistory } from './dyno-history.ts';
import type { RequestsAtWork } from './requests-at-work.ts';
import { builtInto, earlyLinks } from './early-links.ts';
import type { Accounts } from './accounts/accounts.ts';
import { fromOutside } from './loopback.ts';
import { dataHeader } from '../contract/bays/live.ts';
import type { Outside } from '../contract/people/people.ts';
import { fromOwnPages } from './fetch-site.ts';
import type { Log } from '../contract/values/service-log.ts';
import type { RecorderClient } from './recorder-client.ts';
import type { ImportReader } from './import/import-reader.ts';
import { cleanInput } from './clean-input.ts';
import { errorAnswer } from './routes/answer.ts';
import { HttpRefusal } from './http-refusal.ts';
import { bayRoutes } from './routes/bays.ts';
import { ContractRoutes } from './routes/contract-routes.ts';
import { checkRoutes } from './routes/checks.ts';
import { shopListRoutes } from './routes/shop-lists.ts';
import { entryRoutes } from './routes/entries.ts';
import { fileRoutes } from './routes/files.ts';
import { importRoutes } from './routes/imports.ts';
import { jobRoutes } from './routes/jobs.ts';
import { openApiRoutes } from './routes/openapi.ts';
import { pairingRoutes } from './routes/pairing.ts';
import { peopleRoutes } from './routes/people.ts';
import { loggerFileRoutes } from './routes/logger-files.ts';
import { bundleRoutes } from './routes/bundles.ts';
import { consentRoutes } from './routes/consents.ts';
import { equipmentRoutes } from './routes/equipment.ts';
import { dayRoutes } from './routes/day.ts';
import { fuellingRoutes } from './routes/fuelling.ts';
import { otherTestRoutes } from './routes/other-tests.ts';
import { reportRoutes } from './routes/reports.ts';
import { sharedLinkRoutes } from './routes/shared-links.ts';
import { runRoutes } from './routes/runs.ts';
import { watchedRoutes } from './routes/watched.ts';
import type { WatchedFolder } from './watched/watched-folder.ts';
import { vehicleRoutes } from './routes/vehicles.ts';
import type { Database } from '../store/database/database.ts';

/** One machine elsewhere asks no more than this in ten seconds, so that it cannot keep the server from the others; this one may ask what it likes. */
const usualAskedMost = 1000;
const ofOneAddress = (limit: number) =>
  rateLimit({
    windowMs: 10_000,
    limit,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    skip: (request) => !fromOutside(request),
    handler: () => {
      throw new HttpRefusal(429, 'This machine asks too much at once. Wait ten seconds, then go on.');
    },
  });

/** What the HTTP side of a server stands on. */
export interface AppParts {
  database: Database;
  /** What the shop knows of its dynos. */
  dynos: DynoHistory;
  recorder: RecorderClient;
  reader: ImportReader;
  watched: WatchedFolder;
  accounts: Accounts;
  /** What is being answered, for whoever stops the server. */
  atWork: RequestsAtWork;
  /** Names that others than this machine reach it by. */
  hosts: readonly string[];
  outside: () => Outside | null;
  /** Which data are served. */
  data: { readonly identity: string };
  webFolder: string | undefined;
  /** For tests: what one machine elsewhere may ask in ten seconds. */
  askedMost?: number | undefined;
  log: Log;
}

/** The HTTP side of the server: the API under /api, the page everywhere else. */
export function createApp(parts: AppParts): Express {
  const { accounts, hosts, webFolder, data, log } = parts;
  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'", 'data:'],
          // The WebSocket is of the same origin, which browsers count as their own.
          connectSrc: ["'self'"],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          workerSrc: ["'self'", 'blob:'],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(fromOwnPages(hosts));
  app.use(compressed);
  // Nobody comes in from elsewhere while nobody has to sign in.
  app.use(async (request, _response, next) => {
    if (fromOutside(request) && !(await accounts.any()))
      throw new HttpRefusal(
        403,
        'Make the first account on this machine itself: until then nobody is let in from elsewhere.',
      );
    next();
  });
  // Answers hold people's work: a browser keeps none, but for what a route says never changes.
  app.use('/api', (_request, response, next) => {
    response.set('cache-control', 'no-store');
    next();
  });
  // A page that was open while the data were replaced shows others of the same numbers: it changes nothing here.
  app.use('/api', (request, _response, next) => {
    const shown = request.get(dataHeader);
    if (shown !== undefined && shown !== data.identity)
      throw new HttpRefusal(
        409,
        'The data of this Suvok were restored or begun anew since this page was opened. Load the page anew; nothing was changed.',
      );
    next();
  });
  app.use('/api', ofOneAddress(parts.askedMost ?? usualAskedMost));
  app.use('/api', accounts.sessions);
  app.use('/api', express.json({ limit: '1mb' }));
  app.use('/api', cleanInput);
  app.use('/api', apiRoutes(parts).router);
  app.use('/api', () => {
    throw new HttpRefusal(404, 'There is nothing at this address.');
  });
  if (webFolder && existsSync(webFolder)) servePage(app, webFolder);
  app.use(errorAnswer(log));
  return app;
}

/** All requests that the contract lists, each with its answer. */
function apiRoutes(parts: AppParts): ContractRoutes {
  const { database, dynos, recorder, reader, watched, accounts, outside } = parts;
  const routes = new ContractRoutes((endpoint) => accounts.guard(endpoint), parts.atWork);
  routes.get('/health', async (_request, response) => {
    await database.query('select 1');
    response.json({ ok: true });
  });
  jobRoutes(routes, database, recorder);
  entryRoutes(routes, database);
  vehicleRoutes(routes, database);
  fileRoutes(routes, database);
  runRoutes(routes, database);
  loggerFileRoutes(routes, database);
  watchedRoutes(routes, watched);
  importRoutes(routes, database, reader);
  bayRoutes(routes, recorder, database);
  checkRoutes(routes, dynos);
  reportRoutes(routes, database, dynos);
  dayRoutes(routes, database);
  equipmentRoutes(routes, database);
  consentRoutes(routes, database);
  shopListRoutes(routes, database);
  fuellingRoutes(routes, database);
  otherTestRoutes(routes, database);
  sharedLinkRoutes(routes, database, dynos);
  bundleRoutes(routes, database, dynos);
  peopleRoutes(routes, database, accounts);
  pairingRoutes(routes, recorder, accounts);
  routes.get('/outside', (_request, response) => {
    response.json(outside());
  });
  openApiRoutes(routes);
  routes.mustBeWhole();
  return routes;
}

/** Built files: as they were compressed with the build for other machines, as they are for this one. */
function builtFiles(folder: string): RequestHandler {
  const kept = { immutable: true, maxAge: '1y', fallthrough: false } as const;
  const here = express.static(folder, kept);
  const elsewhere = expressStaticGzip(folder, {
    enableBrotli: true,
    orderPreference: ['br', 'gz'],
    serveStatic: kept,
  });
  return (request, response, next) => (fromOutside(request) ? elsewhere : here)(request, response, next);
}

/** Answers to other machines are compressed; not recordings, which compress little, nor lines that are told as work goes. */
const compressed = compression({
  threshold: 1024,
  filter: (request, response) =>
    fromOutside(request) &&
    /json|text\/(?!event-stream)/.test(String(response.getHeader('content-type'))) &&
    !/ndjson/.test(String(response.getHeader('content-type'))),
});

function servePage(app: Express, folder: string): void {
  app.use('/assets', builtFiles(join(folder, 'assets')));
  app.use(express.static(folder, { index: false }));
  const built = builtInto(folder);
  app.get('/{*splat}', (request, response) => {
    const early = earlyLinks(request.path, built);
    if (early) response.set('link', early);
    response.set('cache-control', 'no-cache').sendFile(join(folder, 'index.html'));
  });
}
