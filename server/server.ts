import { createServer } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import type { Outside } from '../contract/people/people.ts';
import type { Log } from '../contract/values/service-log.ts';
import { listening } from '../recorder/listening.ts';
import { tlsAt, type OutsidePlace } from '../recorder/outside/outside-place.ts';
import { openDatabase, type Database } from '../store/database/database.ts';
import { databaseIdentity } from '../store/database/database-identity.ts';
import { migrate } from '../store/database/migrate.ts';
import { Accounts } from './accounts/accounts.ts';
import { createApp } from './app.ts';
import { DynoHistory } from './dyno-history.ts';
import { ImportReader } from './import/import-reader.ts';
import { Live } from './live.ts';
import { RecorderClient } from './recorder-client.ts';
import { HeadlineMaker } from './reports/headline-maker.ts';
import { SpreadLearner } from './spread-learner.ts';
import { WatchedFolder } from './watched/watched-folder.ts';
import { RequestsAtWork } from './requests-at-work.ts';
import { WorkQueue, type QueuePace } from './work-queue.ts';

export interface ServerSettings {
  databaseUrl: string;
  /** 0 for any free port. */
  port: number;
  /** The local socket of the recorder, which may come later than the server. */
  recorder: string;
  webFolder?: string | undefined;
  /** For others than this machine: over TLS, and only once there are accounts. */
  outside?: OutsidePlace | undefined;
  /** The database has become another one: what this server knows of it holds no more, so it is best begun anew. */
  dataReplaced?: () => void;
  /** For tests: what one machine elsewhere may ask in ten seconds. */
  askedMost?: number;
  /** For tests: how often it is looked whether there is long work. */
  lookForWorkMs?: number;
  /** For tests: how often the queue of that work is looked at. */
  queuePace?: QueuePace;
  /** For tests: how long a dropped file must stay the same before it is taken. */
  completeMs?: number;
  log: Log;
}

export interface RunningServer {
  port: number;
  outside: Outside | null;
  database: Database;
  close(): Promise<void>;
}

/** A stopping server lets what was asked be answered for so long, and gives what nobody listens to so long to end, ms. */
const answeredMs = 1000;
const givenUpMs = 5000;

/**
 * Starts a server: schema, HTTP and WebSocket, on loopback, and over TLS for others where that is wanted.
 * @throws with code EADDRINUSE when the port is taken
 */
export async function startServer(settings: ServerSettings): Promise<RunningServer> {
  await migrate(settings.databaseUrl);
  const database = openDatabase(settings.databaseUrl, settings.log);
  const recorder = new RecorderClient(settings.recorder);
  const reader = new ImportReader();
  const watched = new WatchedFolder({ database, recorder, reader }, settings.log, settings.completeMs);
  const accounts = await Accounts.open(database, settings.log);
  let outside: Outside | null = null;
  const hosts = settings.outside?.hosts ?? [];
  const dynos = new DynoHistory(database);
  const atWork = new RequestsAtWork();
  const data = {
    identity: await databaseIdentity(database),
    replaced: () => {
      settings.log.warn({}, 'the database has become another one');
      settings.dataReplaced?.();
    },
  };
  const app = createApp({
    database,
    atWork,
    dynos,
    recorder,
    reader,
    watched,
    accounts,
    hosts,
    outside: () => outside,
    data,
    webFolder: settings.webFolder,
    askedMost: settings.askedMost,
    log: settings.log,
  });
  const http = createServer(app);
  const tls = settings.outside && (await tlsAt(settings.outside));
  const https = tls && createSecureServer(tls.options, app);
  const servers = [http, ...(https ? [https] : [])];
  // One that sends its request by drops holds nothing up.
  for (const one of servers) {
    one.headersTimeout = 15_000;
    one.requestTimeout = 300_000;
  }
  const live = new Live(servers, hosts, recorder, database, accounts, data);
  await live.listen();
  await recorder.ready();
  const port = await listening(http, { port: settings.port, host: '127.0.0.1' });
  if (https && settings.outside) outside = tls.reached(await listening(https, { port: settings.outside.port }));
  const busy = () => recorder.state().bays.some(({ recorder: { state } }) => state !== 'idle');
  const learner = new SpreadLearner(database, busy, settings.log);
  const headlines = new HeadlineMaker(database, dynos, busy, settings.log);
  const queue = new WorkQueue(database, settings.log, settings.queuePace);
  await queue.start();
  await learner.start(queue, settings.lookForWorkMs);
  await headlines.start(queue, settings.lookForWorkMs);
  await watched.start();
  return {
    port,
    outside,
    database,
    async close() {
      // Nothing new is taken from the first moment.
      const closed = servers.map((one) => new Promise<void>((resolve) => one.close(() => resolve())));
      learner.stop();
      headlines.stop();
      await watched.close();
      const queueEnds = queue.stop();
      await live.close();
      // What was asked is answered; what takes longer is told that nobody listens any more, and ends.
      await atWork.ended(answeredMs);
      recorder.close();
      for (const one of servers) one.closeAllConnections();
      await Promise.all([...closed, queueEnds]);
      if (!(await atWork.ended(givenUpMs)))
        settings.log.warn({}, 'requests were still at work when the server stopped');
      await reader.close();
      accounts.close();
      await database.end();
    },
  };
}
