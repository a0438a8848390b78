import pino from 'pino';
import { z } from 'zod';
import { AdaptedInstrument } from './devices/adapters/adapted-instrument.ts';
import { adaptedPlaces, type AdaptedPlace } from './devices/adapters/adapters.ts';
import { startRecorder } from './start-recorder.ts';

/** The recorder as a process of its own, set up by its environment. */
const environment = z
  .object({
    DATABASE_URL: z.string().min(1),
    SUVOK_RECORDER: z.string().min(1),
    BENCH_LINK_PORT: z.coerce.number().int().min(0).max(65_535).default(5181),
    SUVOK_FREE_MB: z.coerce.number().min(0).default(400),
    SUVOK_LOG: z.string().optional(),
    SUVOK_ADAPTERS: z.string().default(''),
  })
  .safeParse(process.env);

function giveUp(sentence: string): never {
  process.stderr.write(`suvok: ${sentence}\n`);
  process.exit(1);
}

if (!environment.success) giveUp(`${String(environment.error.issues[0]!.path[0])} is missing or not usable.`);
const { DATABASE_URL, SUVOK_RECORDER, BENCH_LINK_PORT, SUVOK_FREE_MB, SUVOK_LOG, SUVOK_ADAPTERS } = environment.data;
const logger = pino(pino.destination(SUVOK_LOG ? { dest: SUVOK_LOG, mode: 0o600 } : 2));

let places: AdaptedPlace[];
try {
  places = adaptedPlaces(SUVOK_ADAPTERS);
} catch (error) {
  giveUp((error as Error).message);
}

const recorder = await startRecorder({
  databaseUrl: DATABASE_URL,
  folder: SUVOK_RECORDER,
  benchLinkPort: BENCH_LINK_PORT,
  floorBytes: SUVOK_FREE_MB * 2 ** 20,
  log: logger,
}).catch((error: NodeJS.ErrnoException & { port?: number }) => {
  if (error.code === 'EADDRINUSE')
    giveUp(
      error.port
        ? `port ${error.port} is taken by another program; choose another with BENCH_LINK_PORT.`
        : `another recorder already writes ${SUVOK_RECORDER}; stop it first.`,
    );
  giveUp(`the recorder could not start: ${error.message}`);
});
const adapted = places.map((place) => new AdaptedInstrument(place, recorder.benchLinkPort));

const ready = { ready: true, benchLinkPort: recorder.benchLinkPort };
process.send?.(ready);
if (!process.send) process.stdout.write(`${JSON.stringify(ready)}\n`);

// A promise that nobody waited for has failed: one server's or one instrument's trouble, never the end of a recording.
process.on('unhandledRejection', (reason) => logger.error({ err: reason }, 'something failed that nobody waited for'));

let closing = false;
async function close(): Promise<void> {
  if (closing) return;
  closing = true;
  for (const instrument of adapted) instrument.close();
  await recorder.close();
  process.exit(0);
}
process.on('SIGTERM', () => void close());
process.on('SIGINT', () => void close());
// The starter has gone: nobody is left to stop this process.
process.on('disconnect', () => void close());
