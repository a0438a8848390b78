import { join } from 'node:path';
import { z } from 'zod';
import { giveUp, liveAsProcess, logInto, orGiveUp } from '../recorder/as-process.ts';
import { socketPlace } from '../recorder/local-link/socket-place.ts';
import { Refusal } from '../core/refusal.ts';
import { outsidePlace } from '../recorder/outside/outside-place.ts';
import { startServer } from './server.ts';

/** The server as a process of its own, set up by its environment. */
const port = z.coerce.number().int().min(0).max(65_535);
const environment = z
  .object({
    DATABASE_URL: z.string().min(1),
    PORT: port.default(5180),
    SUVOK_RECORDER: z.string().min(1),
    TLS_PORT: port.default(5443),
    SUVOK_TLS: z.string().optional(),
    SUVOK_WEB: z.string().optional(),
    SUVOK_LOG: z.string().optional(),
  })
  .safeParse(process.env);

if (!environment.success) giveUp(`${String(environment.error.issues[0]!.path[0])} is missing or not usable.`);
const { DATABASE_URL, PORT, SUVOK_RECORDER, TLS_PORT, SUVOK_TLS, SUVOK_WEB, SUVOK_LOG } = environment.data;

const logger = logInto(SUVOK_LOG);

const server = await startServer({
  databaseUrl: DATABASE_URL,
  port: PORT,
  recorder: socketPlace(SUVOK_RECORDER),
  webFolder: SUVOK_WEB,
  outside: orGiveUp(() => outsidePlace(process.env, TLS_PORT, SUVOK_TLS ?? join(SUVOK_RECORDER, '..', 'tls'))),
  // In order, as if it had been asked to: whoever started it begins it anew.
  dataReplaced: () => void process.kill(process.pid, 'SIGTERM'),
  log: logger,
}).catch((error: NodeJS.ErrnoException & { port?: number }) => {
  if (error.code === 'EADDRINUSE')
    giveUp(
      `port ${error.port} is taken by another program; choose another with ${error.port === PORT ? 'PORT' : 'TLS_PORT'}.`,
    );
  if (error.code === 'ECONNREFUSED')
    giveUp('the database does not answer; check DATABASE_URL and that PostgreSQL runs.');
  giveUp(error instanceof Refusal ? error.message : `the server could not start: ${error.message}`);
});

liveAsProcess({ port: server.port, outside: server.outside }, () => server.close(), logger);
