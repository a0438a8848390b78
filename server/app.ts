import { existsSync } from 'node:fs';
import { join } from 'node:path';
import express, { type Express } from 'express';
import helmet from 'helmet';
import { isOwnHost, isOwnOrigin } from './loopback.ts';
import type { Bay } from './recorder/bay.ts';
import { errorAnswer, HttpRefusal } from './routes/answer.ts';
import { bayRoutes } from './routes/bay.ts';
import { checkRoutes } from './routes/checks.ts';
import { entryRoutes } from './routes/entries.ts';
import { fileRoutes } from './routes/files.ts';
import { importRoutes } from './routes/imports.ts';
import { jobRoutes } from './routes/jobs.ts';
import { openApiRoutes } from './routes/openapi.ts';
import { runRoutes } from './routes/runs.ts';
import { vehicleRoutes } from './routes/vehicles.ts';
import type { Database } from './store/database.ts';

/** The HTTP side of the server: the API under /api, the page everywhere else. */
export function createApp(
  database: Database,
  bay: Bay,
  webFolder: string | undefined,
  log: (error: unknown) => void,
): Express {
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
          connectSrc: ["'self'", 'ws:'],
          workerSrc: ["'self'", 'blob:'],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use((request, _response, next) => {
    const changes = !['GET', 'HEAD'].includes(request.method);
    if (changes ? isOwnOrigin(request.headers) : isOwnHost(request.headers)) return next();
    throw new HttpRefusal(403, 'Suvok answers only to this machine, under its loopback address.');
  });
  app.use('/api', express.json({ limit: '1mb' }));
  app.get('/api/health', async (_request, response) => {
    await database.query('select 1');
    response.json({ ok: true });
  });
  app.use(
    '/api',
    jobRoutes(database, bay),
    entryRoutes(database),
    vehicleRoutes(database),
    fileRoutes(database),
    runRoutes(database),
    importRoutes(database),
    bayRoutes(bay),
    checkRoutes(database),
    openApiRoutes(),
  );
  app.use('/api', () => {
    throw new HttpRefusal(404, 'There is nothing at this address.');
  });
  if (webFolder && existsSync(webFolder)) servePage(app, webFolder);
  app.use(errorAnswer(log));
  return app;
}

function servePage(app: Express, folder: string): void {
  app.use('/assets', express.static(join(folder, 'assets'), { immutable: true, maxAge: '1y', fallthrough: false }));
  app.use(express.static(folder, { index: false }));
  app.get('/{*splat}', (_request, response) => {
    response.set('cache-control', 'no-cache').sendFile(join(folder, 'index.html'));
  });
}
