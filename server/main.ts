import { z } from 'zod';
import { giveUp, liveAsProcess, logInto } from '../recorder/as-process.ts';
import { socketPlace } from '../recorder/local-link/socket-place.ts';
import { loopbackHosts } from './loopback.ts';
import { startServer } from './server.ts';

/** The server as a process of its own, set up by its environment. */
const port = z.coerce.number().int().min(0).max(65_535);
const environment = z
  .object({
    DATABASE_URL: z.string().min(1),
    PORT: port.default(5180),
    SUVOK_RECORDER: z.string().min(1),
    HOST: z.string().optional(),
    SUVOK_WEB: z.string().optional(),
    SUVOK_LOG: z.string().optional(),
  })
  .safeParse(process.env);

if (!environment.success) giveUp(`${String(environment.error.issues[0]!.path[0])} is missing or not usable.`);
const { DATABASE_URL, PORT, SUVOK_RECORDER, HOST, SUVOK_WEB, SUVOK_LOG } = environment.data;
if (HOST !== undefined && !loopbackHosts.includes(HOST)) {
  giveUp(`HOST is ${HOST}, but until Suvok has accounts it listens on this machine alone (127.0.0.1). Unset HOST.`);
}
const logger = logInto(SUVOK_LOG);

const server = await startServer({
  databaseUrl: DATABASE_URL,
  port: PORT,
  recorder: socketPlace(SUVOK_RECORDER),
  webFolder: SUVOK_WEB,
  log: logger,
}).catch((error: NodeJS.ErrnoException & { port?: number }) => {
  if (error.code === 'EADDRINUSE') giveUp(`port ${error.port} is taken by another program; choose another with PORT.`);
  if (error.code === 'ECONNREFUSED')
    giveUp('the database does not answer; check DATABASE_URL and that PostgreSQL runs.');
  giveUp(`the server could not start: ${error.message}`);
});

liveAsProcess({ port: server.port }, () => server.close(), logger);
