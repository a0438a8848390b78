import { join } from 'node:path';
import { outsideAddresses, type Outside } from '../contract/people/people.ts';
import { databaseAccount } from './account.ts';
import { backupBeforeUpgrade, keepBackups } from './backups.ts';
import { buildWeb, webFolder } from './build-web.ts';
import { claimFolder, dataFolder, prepareFolder } from './data-folder.ts';
import { embeddedRoles, upToDate, type DatabaseAddresses } from './database-roles.ts';
import { loadDemo } from './demo/play.ts';
import { Failure } from './failure.ts';
import { ensureDatabase, startCluster } from './postgres.ts';
import { postgresPrograms } from './postgres-programs.ts';
import { keepRunning, type Keeping, type Kept } from './keep-running.ts';
import { startProgram, stopProgram } from './program.ts';
import { recorderFolder, startLinesProgram, startRecorderProgram, startServerProgram } from './suvok-programs.ts';
import { Started, Stopped } from './started.ts';
import { demoEnd, mustBeFree, portFrom, wantedDemo } from './settings.ts';

/** `npm start`: from a bare clone to a running Suvok, and back to nothing on Ctrl-C. */
const say = (text: string) => process.stdout.write(`${text}\n`);
const started = new Started();

/** The first reason to stop says with which code this ends. */
async function stop(code: number): Promise<never> {
  if (started.signal.aborted) return new Promise(() => undefined);
  await started.stop();
  process.exit(code);
}

async function database(): Promise<DatabaseAddresses> {
  const application = process.env.DATABASE_URL;
  if (application) {
    const { folder } = dataFolder(undefined);
    prepareFolder(folder);
    say('Using the database of DATABASE_URL');
    return { owner: process.env.DATABASE_OWNER_URL ?? application, application };
  }
  const programs = await started.begin(() => postgresPrograms(say));
  const account = databaseAccount();
  const { folder, elsewhere } = dataFolder(account);
  prepareFolder(folder, account);
  if (elsewhere) say(`PostgreSQL cannot reach this clone, so the data is kept in ${folder}`);
  started.add(claimFolder(folder));
  say('Starting the database');
  let port: number | undefined;
  const cluster = await keep({
    name: 'database',
    start: async () => {
      const cluster = await startCluster({
        programs,
        folder: join(folder, 'postgresql'),
        account,
        ...(port ? { port } : {}),
      });
      port = cluster.port;
      return cluster;
    },
    revived: () => say('The database runs again'),
    died: tell,
  });
  return started.begin(async () => {
    await ensureDatabase(cluster, 'suvok');
    return embeddedRoles(cluster, 'suvok');
  });
}

/** Keeps something running until Suvok stops. @returns the first of it */
async function keep<T extends Kept>(keeping: Keeping<T>): Promise<T> {
  const { first } = await started.begin(
    () => keepRunning(keeping),
    ({ stop }) => stop,
  );
  return first;
}

const tell = (sentence: string) => process.stderr.write(`suvok: ${sentence}\n`);

/** Keeps the recorder running: if it dies, it is started again on the same port, and instruments come back to it. */
async function keepRecorder(
  environment: NodeJS.ProcessEnv,
): Promise<{ benchLinkPort: number; outside: Outside | null }> {
  let ports: NodeJS.ProcessEnv = {};
  return keep({
    name: 'recorder',
    start: async () => {
      const recorder = await startRecorderProgram({ ...environment, ...ports });
      const { benchLinkPort, outside } = recorder;
      ports = { BENCH_LINK_PORT: String(benchLinkPort), ...(outside && { BENCH_LINK_TLS_PORT: String(outside.port) }) };
      return recorder;
    },
    revived: () =>
      say('The recorder runs again; runs that were being recorded go on where their instruments send again'),
    died: tell,
  });
}

/** Keeps running what takes lines of instruments; the recorder tells it again what is wanted. */
async function keepLines(environment: NodeJS.ProcessEnv): Promise<void> {
  await keep({
    name: 'program that takes lines of instruments',
    start: () => startLinesProgram(environment),
    revived: () => say('Lines of instruments are taken again'),
    died: tell,
  });
}

/** Keeps the server running: if it dies, it is started again on the same port. */
async function keepServer(environment: NodeJS.ProcessEnv): Promise<{ port: number; outside: Outside | null }> {
  let ports: NodeJS.ProcessEnv = {};
  return keep({
    name: 'server',
    start: async () => {
      const server = await startServerProgram({ ...environment, ...ports });
      ports = { PORT: String(server.port), ...(server.outside && { TLS_PORT: String(server.outside.port) }) };
      return server;
    },
    revived: () => say('The server runs again'),
    died: tell,
  });
}

/** Keeps the stand-in instruments of one bay running. */
async function keepStandIns(benchLinkPort: number, words: readonly string[]): Promise<void> {
  await keep({
    name: 'simulator',
    start: () => {
      const child = startProgram('simulator/main.ts', ['--port', String(benchLinkPort), ...words], {});
      const ended = new Promise<void>((resolve) => child.once('close', () => resolve()));
      return Promise.resolve({ ended, stop: () => stopProgram(child) });
    },
    revived: () => undefined,
    died: tell,
  });
}

async function start(): Promise<void> {
  const port = portFrom('PORT', 5180);
  const benchLinkPort = portFrom('BENCH_LINK_PORT', 5181);
  const demo = wantedDemo();
  if (process.env.HOST) {
    await mustBeFree(portFrom('TLS_PORT', 5443), 'TLS_PORT');
    await mustBeFree(portFrom('BENCH_LINK_TLS_PORT', 5444), 'BENCH_LINK_TLS_PORT');
  }
  await mustBeFree(port, 'PORT');
  await mustBeFree(benchLinkPort, 'BENCH_LINK_PORT');
  const addresses = await database();
  const backups = process.env.SUVOK_BACKUPS !== 'off';
  if (backups) await started.begin(() => backupBeforeUpgrade(addresses.owner, say, started.signal));
  await started.begin(() => upToDate(addresses));
  const databaseUrl = addresses.application;
  // It writes down last what it has built: nothing that must be waited for.
  await buildWeb(say);
  started.mustGoOn();
  say('Starting the recorder and the server');
  const { folder } = dataFolder(process.env.DATABASE_URL ? undefined : databaseAccount());
  const recorderAt = recorderFolder(folder);
  const tls = join(folder, 'tls');
  const recorder = await keepRecorder({
    DATABASE_URL: databaseUrl,
    SUVOK_RECORDER: recorderAt,
    BENCH_LINK_PORT: String(benchLinkPort),
    SUVOK_TLS: tls,
    SUVOK_LOG: join(folder, 'recorder.log'),
  });
  await keepLines({ SUVOK_RECORDER: recorderAt, SUVOK_LOG: join(folder, 'lines.log') });
  const server = await keepServer({
    DATABASE_URL: databaseUrl,
    PORT: String(port),
    SUVOK_RECORDER: recorderAt,
    SUVOK_TLS: tls,
    SUVOK_WEB: webFolder,
    SUVOK_LOG: join(folder, 'server.log'),
  });
  await started.begin(() =>
    loadDemo({ ...server, ...recorder }, addresses.owner, { kind: demo, endsAt: demoEnd() }, say, started.signal).catch(
      (error: Error) => {
        // Suvok serves without its demo days; the pulls that were played are kept.
        if (!started.signal.aborted) tell(error.message);
      },
    ),
  );
  // A shop that works has instruments of its own.
  if (demo !== 'off') {
    await keepStandIns(recorder.benchLinkPort, ['--seed', '4', '--bay', 'Bay 1']);
    await keepStandIns(recorder.benchLinkPort, [
      '--seed',
      '9',
      '--bay',
      'Bay 2',
      '--number',
      '2',
      '--dyno',
      'four-hubs',
    ]);
  }
  if (backups) started.add(keepBackups(folder, tell));
  if (server.outside) {
    const { fingerprint, madeHere } = server.outside;
    say(`\nOthers reach it at ${outsideAddresses(server.outside)}, once there is an account (People).`);
    if (recorder.outside)
      say(`Instruments on other machines: port ${recorder.outside.port}, once they are paired (Devices).`);
    if (madeHere)
      say(`Its certificate was made here; a browser that warns shows this SHA-256 fingerprint:\n${fingerprint}`);
  }
  say(`\nSuvok is at http://localhost:${server.port}   (Ctrl-C stops it)`);
}

process.on('SIGINT', () => void stop(0));
process.on('SIGTERM', () => void stop(0));
process.on('SIGHUP', () => void stop(0));
// npm may be killed before it can pass a signal on: whoever lost its starter stops as well.
const starter = process.ppid;
setInterval(() => process.ppid !== starter && void stop(0), 1000).unref();
try {
  await start();
} catch (error) {
  if (!(error instanceof Stopped))
    tell(error instanceof Failure ? error.message : `it could not start: ${(error as Error).message}`);
  await stop(1);
}
