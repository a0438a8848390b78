import { expect, test } from '@jest/globals';
import { mkdtempSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { migrate } from '../store/database/migrate.ts';
import { freshDatabase } from '../store/testing/test-database.ts';
import { keepRunning } from './keep-running.ts';
import { startRecorderProgram, startServerProgram, type StartedProgram } from './suvok-programs.ts';

/** Has a program fail in a way that nobody thought of, at the signal USR2. */
const failing = `process.on('SIGUSR2', () => { throw new Error('nobody thought of it'); });`;
const failsAtUsr2 = { NODE_OPTIONS: `--import=data:text/javascript,${encodeURIComponent(failing)}` };

test('a server in which something fails that nobody thought of ends what it has, and is begun anew on its port', async () => {
  const database = await freshDatabase();
  await migrate(database.url);
  const folder = mkdtempSync(join(tmpdir(), 'suvok-failing-'));
  const log = join(folder, 'server.log');
  const environment = {
    DATABASE_URL: database.url,
    SUVOK_RECORDER: folder,
    BENCH_LINK_PORT: '0',
    PORT: '0',
    SUVOK_FREE_MB: '0',
    SUVOK_LOG: log,
    ...failsAtUsr2,
  };
  const recorder = await startRecorderProgram({ ...environment, SUVOK_LOG: join(folder, 'recorder.log') });
  const servers: StartedProgram<{ port: number }>[] = [];
  let revive = () => undefined as void;
  const revived = new Promise<void>((resolve) => (revive = resolve));
  const kept = await keepRunning({
    name: 'server',
    start: async () => {
      const server = await startServerProgram({ ...environment, ...(servers[0] && { PORT: String(servers[0].port) }) });
      servers.push(server);
      return server;
    },
    revived: () => revive(),
    died: () => undefined,
  });
  const address = `http://127.0.0.1:${servers[0]!.port}/api`;
  const health = async () => (await fetch(`${address}/health`)).status;
  expect(await health()).toBe(200);
  servers[0]!.child.kill('SIGUSR2');
  await servers[0]!.ended;
  expect(servers[0]!.child.exitCode).toBe(1);
  await revived;
  expect(await health()).toBe(200);
  expect(readFileSync(log, 'utf8')).toMatch(/"level":60.*nobody thought of it.*begun anew/);
  await kept.stop();
  await recorder.stop();
  await database.drop();
});
