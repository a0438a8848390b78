import { z } from 'zod';
import { join } from 'node:path';
import { giveUp, liveAsProcess, logInto, orGiveUp } from './as-process.ts';
import { Refusal } from '../core/refusal.ts';
import { outsidePlace } from './outside/outside-place.ts';
import { startRecorder } from './start-recorder.ts';

/** The recorder as a process of its own, set up by its environment. */
const port = z.coerce.number().int().min(0).max(65_535);
const environment = z
  .object({
    DATABASE_URL: z.string().min(1),
    SUVOK_RECORDER: z.string().min(1),
    BENCH_LINK_PORT: port.default(5181),
    BENCH_LINK_TLS_PORT: port.default(5444),
    SUVOK_TLS: z.string().optional(),
    SUVOK_FREE_MB: z.coerce.number().min(0).default(400),
    SUVOK_LOG: z.string().optional(),
  })
  .safeParse(process.env);

if (!environment.success) giveUp(`${String(environment.error.issues[0]!.path[0])} is missing or not usable.`);
const { DATABASE_URL, SUVOK_RECORDER, BENCH_LINK_PORT, BENCH_LINK_TLS_PORT } = environment.data;
const { SUVOK_TLS, SUVOK_FREE_MB, SUVOK_LOG } = environment.data;
const logger = logInto(SUVOK_LOG);

const recorder = await startRecorder({
  databaseUrl: DATABASE_URL,
  folder: SUVOK_RECORDER,
  benchLinkPort: BENCH_LINK_PORT,
  outside: orGiveUp(() =>
    outsidePlace(process.env, BENCH_LINK_TLS_PORT, SUVOK_TLS ?? join(SUVOK_RECORDER, '..', 'tls')),
  ),
  floorBytes: SUVOK_FREE_MB * 2 ** 20,
  log: logger,
}).catch((error: NodeJS.ErrnoException & { port?: number }) => {
  if (error.code === 'EADDRINUSE')
    giveUp(
      error.port
        ? `port ${error.port} is taken by another program; choose another with ${error.port === BENCH_LINK_PORT ? 'BENCH_LINK_PORT' : 'BENCH_LINK_TLS_PORT'}.`
        : `another recorder already writes ${SUVOK_RECORDER}; stop it first.`,
    );
  giveUp(error instanceof Refusal ? error.message : `the recorder could not start: ${error.message}`);
});

liveAsProcess({ benchLinkPort: recorder.benchLinkPort, outside: recorder.outside }, () => recorder.close(), logger);
