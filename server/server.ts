import { randomInt } from 'node:crypto';
import { createServer } from 'node:http';
import { createApp } from './app.ts';
import { BenchLink } from '../recorder/devices/bench-link.ts';
import { ImportReader } from './import/import-reader.ts';
import { Live } from './live.ts';
import { Bay } from '../recorder/bay.ts';
import { SpreadLearner } from './spread-learner.ts';
import { openDatabase, type Database } from './store/database.ts';
import type { Log } from '../recorder/log.ts';
import { migrate } from './store/migrate.ts';
import { recorderStore } from './store/recorder-store.ts';
import { RecorderLock, sealOrphans } from './store/recorder-lock.ts';

export interface ServerSettings {
  databaseUrl: string;
  /** 0 for any free port. */
  port: number;
  benchLinkPort: number;
  webFolder?: string | undefined;
  log: Log;
}

export interface RunningServer {
  port: number;
  benchLinkPort: number;
  database: Database;
  /** Runs that an earlier server left open and that were sealed at the start. */
  interruptedRuns: (string | null)[];
  close(): Promise<void>;
}

/**
 * Starts a whole server: schema, recorder, bench link, HTTP and WebSocket, on loopback only.
 * @throws with code EADDRINUSE when a port is taken
 */
export async function startServer(settings: ServerSettings): Promise<RunningServer> {
  await migrate(settings.databaseUrl);
  const database = openDatabase(settings.databaseUrl, settings.log);
  const recorderId = randomInt(1, 2 ** 31 - 1);
  const lock = await RecorderLock.hold(database, recorderId, settings.log);
  const orphans = await sealOrphans(database);
  const link = new BenchLink();
  const bay = new Bay(recorderStore(database), recorderId, link, settings.log);
  await bay.restore();
  const reader = new ImportReader();
  const http = createServer(createApp(database, bay, reader, settings.webFolder, settings.log));
  const live = new Live(http, bay, database);
  await live.listen();
  await new Promise<void>((resolve, reject) => {
    http.once('error', reject);
    http.listen(settings.port, '127.0.0.1', resolve);
  });
  const benchLinkPort = await link.listen(settings.benchLinkPort);
  const learner = new SpreadLearner(database, () => bay.state().recorder.state !== 'idle', settings.log);
  learner.start();
  return {
    port: (http.address() as { port: number }).port,
    benchLinkPort,
    database,
    interruptedRuns: orphans.map((run) => run.label),
    async close() {
      await learner.stop();
      await bay.drained();
      await link.close();
      await live.close();
      http.closeAllConnections();
      await new Promise<void>((resolve) => http.close(() => resolve()));
      await reader.close();
      await lock.release();
      await database.end();
    },
  };
}
