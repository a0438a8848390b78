import { z } from 'zod';
import { giveUp, liveAsProcess, logInto } from './as-process.ts';
import { AdaptedInstrument, type AdaptedPlace } from './devices/adapters/adapted-instrument.ts';
import { adaptedPlaces } from './devices/adapters/adapters.ts';
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

if (!environment.success) giveUp(`${String(environment.error.issues[0]!.path[0])} is missing or not usable.`);
const { DATABASE_URL, SUVOK_RECORDER, BENCH_LINK_PORT, SUVOK_FREE_MB, SUVOK_LOG, SUVOK_ADAPTERS } = environment.data;
const logger = logInto(SUVOK_LOG);

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

liveAsProcess(
  { benchLinkPort: recorder.benchLinkPort },
  async () => {
    for (const instrument of adapted) instrument.close();
    await recorder.close();
  },
  logger,
);
