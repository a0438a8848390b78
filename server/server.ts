import { createServer } from 'node:http';
import type { Log } from '../contract/log.ts';
import { openDatabase, type Database } from '../store/database.ts';
import { migrate } from '../store/migrate.ts';
import { Accounts } from './accounts/accounts.ts';
import { createApp } from './app.ts';
import { ImportReader } from './import/import-reader.ts';
import { Live } from './live.ts';
import { RecorderClient } from './recorder-client.ts';
import { SpreadLearner } from './spread-learner.ts';

export interface ServerSettings {
  databaseUrl: string;
  /** 0 for any free port. */
  port: number;
  /** The local socket of the recorder, which may come later than the server. */
  recorder: string;
  webFolder?: string | undefined;
  log: Log;
}

export interface RunningServer {
  port: number;
  database: Database;
  close(): Promise<void>;
}

/**
 * Starts a server: schema, HTTP and WebSocket, on loopback only.
 * @throws with code EADDRINUSE when the port is taken
 */
export async function startServer(settings: ServerSettings): Promise<RunningServer> {
  await migrate(settings.databaseUrl);
  const database = openDatabase(settings.databaseUrl, settings.log);
  const recorder = new RecorderClient(settings.recorder);
  const reader = new ImportReader();
  const accounts = await Accounts.open(database, settings.log);
  const http = createServer(createApp(database, recorder, reader, accounts, settings.webFolder, settings.log));
  // One that sends its request by drops holds nothing up.
  http.headersTimeout = 15_000;
  http.requestTimeout = 300_000;
  const live = new Live(http, recorder, database, accounts);
  await live.listen();
  await recorder.ready();
  await new Promise<void>((resolve, reject) => {
    http.once('error', reject);
    http.listen(settings.port, '127.0.0.1', resolve);
  });
  const learner = new SpreadLearner(
    database,
    () => recorder.state().bays.some(({ recorder: { state } }) => state !== 'idle'),
    settings.log,
  );
  learner.start();
  return {
    port: (http.address() as { port: number }).port,
    database,
    async close() {
      await learner.stop();
      recorder.close();
      await live.close();
      http.closeAllConnections();
      await new Promise<void>((resolve) => http.close(() => resolve()));
      await reader.close();
      accounts.close();
      await database.end();
    },
  };
}
