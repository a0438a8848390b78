import { join } from 'node:path';
import { z } from 'zod';
import { giveUp, liveAsProcess, logInto } from '../recorder/as-process.ts';
import { socketPlace } from '../recorder/local-link/socket-place.ts';
import { Refusal } from '../core/refusal.ts';
import { hostsIn, type OutsideSettings } from './outside/outside.ts';
import { startServer } from './server.ts';

/** The server as a process of its own, set up by its environment. */
const port = z.coerce.number().int().min(0).max(65_535);
const environment = z
  .object({
    DATABASE_URL: z.string().min(1),
    PORT: port.default(5180),
    SUVOK_RECORDER: z.string().min(1),
    HOST: z.string().default(''),
    TLS_PORT: port.default(5443),
    SUVOK_TLS: z.string().optional(),
    SUVOK_TLS_CERT: z.string().optional(),
    SUVOK_TLS_KEY: z.string().optional(),
    SUVOK_WEB: z.string().optional(),
    SUVOK_LOG: z.string().optional(),
  })
  .safeParse(process.env);

if (!environment.success) giveUp(`${String(environment.error.issues[0]!.path[0])} is missing or not usable.`);
const { DATABASE_URL, PORT, SUVOK_RECORDER, HOST, SUVOK_WEB, SUVOK_LOG } = environment.data;

/** How others reach this machine, where HOST names it. */
function outside(): OutsideSettings | undefined {
  const { TLS_PORT, SUVOK_TLS, SUVOK_TLS_CERT, SUVOK_TLS_KEY } =
    environment.data ?? giveUp('the environment is not usable.');
  const hosts = hostsIn(HOST);
  if (hosts.length === 0) return undefined;
  if ((SUVOK_TLS_CERT === undefined) !== (SUVOK_TLS_KEY === undefined)) giveUp('SUVOK_TLS_CERT and SUVOK_TLS_KEY go together: set both, or neither.'); // prettier-ignore
  const own = SUVOK_TLS_CERT !== undefined && SUVOK_TLS_KEY !== undefined ? { certFile: SUVOK_TLS_CERT, keyFile: SUVOK_TLS_KEY } : undefined; // prettier-ignore
  return { hosts, port: TLS_PORT, folder: SUVOK_TLS ?? join(SUVOK_RECORDER, '..', 'tls'), own };
}

const logger = logInto(SUVOK_LOG);

/** A refusal ends the start with its sentence. */
function refused<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof Refusal) giveUp(error.message);
    throw error;
  }
}

const server = await startServer({
  databaseUrl: DATABASE_URL,
  port: PORT,
  recorder: socketPlace(SUVOK_RECORDER),
  webFolder: SUVOK_WEB,
  outside: refused(outside),
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
