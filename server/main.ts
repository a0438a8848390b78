import pino from 'pino';
import { z } from 'zod';
import { AdaptedInstrument } from '../recorder/devices/adapters/adapted-instrument.ts';
import { adaptedPlaces, type AdaptedPlace } from '../recorder/devices/adapters/adapters.ts';
import { loopbackHosts } from './loopback.ts';
import { startServer } from './server.ts';

/** The server as a process of its own, set up by its environment. */
const port = z.coerce.number().int().min(0).max(65_535);
const environment = z
  .object({
    DATABASE_URL: z.string().min(1),
    PORT: port.default(5180),
    BENCH_LINK_PORT: port.default(5181),
    HOST: z.string().optional(),
    SUVOK_WEB: z.string().optional(),
    SUVOK_LOG: z.string().optional(),
    SUVOK_ADAPTERS: z.string().default(''),
  })
  .safeParse(process.env);

function giveUp(sentence: string): never {
  process.stderr.write(`suvok: ${sentence}\n`);
  process.exit(1);
}

if (!environment.success) giveUp(`${String(environment.error.issues[0]!.path[0])} is missing or not usable.`);
const { DATABASE_URL, PORT, BENCH_LINK_PORT, HOST, SUVOK_WEB, SUVOK_LOG, SUVOK_ADAPTERS } = environment.data;
if (HOST !== undefined && !loopbackHosts.includes(HOST)) {
  giveUp(`HOST is ${HOST}, but until Suvok has accounts it listens on this machine alone (127.0.0.1). Unset HOST.`);
}
const logger = pino(pino.destination(SUVOK_LOG ?? 2));

let places: AdaptedPlace[];
try {
  places = adaptedPlaces(SUVOK_ADAPTERS);
} catch (error) {
  giveUp((error as Error).message);
}

const server = await startServer({
  databaseUrl: DATABASE_URL,
  port: PORT,
  benchLinkPort: BENCH_LINK_PORT,
  webFolder: SUVOK_WEB,
  log: logger,
}).catch((error: NodeJS.ErrnoException & { port?: number }) => {
  if (error.code === 'EADDRINUSE')
    giveUp(`port ${error.port} is taken by another program; choose another with PORT or BENCH_LINK_PORT.`);
  if (error.code === 'ECONNREFUSED')
    giveUp('the database does not answer; check DATABASE_URL and that PostgreSQL runs.');
  giveUp(`the server could not start: ${error.message}`);
});

const adapted = places.map((place) => new AdaptedInstrument(place, server.benchLinkPort));

const ready = {
  ready: true,
  port: server.port,
  benchLinkPort: server.benchLinkPort,
  interruptedRuns: server.interruptedRuns,
};
process.send?.(ready);
if (!process.send) process.stdout.write(`${JSON.stringify(ready)}\n`);

// A promise that nobody waited for has failed: one request's or one browser's trouble, never the end of a run being recorded.
process.on('unhandledRejection', (reason) => logger.error({ err: reason }, 'something failed that nobody waited for'));

let closing = false;
async function close(): Promise<void> {
  if (closing) return;
  closing = true;
  for (const instrument of adapted) instrument.close();
  await server.close();
  process.exit(0);
}
process.on('SIGTERM', () => void close());
process.on('SIGINT', () => void close());
// The starter has gone: nobody is left to stop this process.
process.on('disconnect', () => void close());
