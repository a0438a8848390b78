import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { spawn, type ChildProcess } from 'node:child_process';
import { chmodSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Change } from '../contract/job/job-file.ts';
import type { BayState } from '../contract/bays/live.ts';
import type { Job } from '../contract/job/records.ts';
import pg from 'pg';
import { databaseAccount } from './account.ts';
import { webFolder } from './build-web.ts';
import { findPostgres } from './postgres-programs.ts';
import { freePort, startCluster } from './postgres.ts';

const folder = mkdtempSync(join(tmpdir(), 'suvok-start-'));
const started: { child: ChildProcess; ended: Promise<number | null> }[] = [];
let blocker: Server;
let taken: number;

beforeAll(async () => {
  chmodSync(folder, 0o755);
  blocker = createServer();
  await new Promise<void>((resolve) => blocker.listen(0, '127.0.0.1', resolve));
  taken = (blocker.address() as { port: number }).port;
});
afterAll(async () => {
  blocker.close();
  // One that a failed expectation left running would be waited for without end.
  for (const { child, ended } of started) {
    child.kill('SIGTERM');
    await ended;
  }
  rmSync(folder, { recursive: true, force: true });
});

function npmStart(
  environment: Record<string, string>,
  before: string[] = [],
): { child: ChildProcess; said: () => string; ended: Promise<number | null> } {
  const child = spawn(process.execPath, [...before, 'launch/bootstrap.cjs', 'start'], {
    env: { ...process.env, NODE_OPTIONS: '', DATABASE_URL: '', ...environment },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let text = '';
  child.stdout.on('data', (more: Buffer) => (text += more.toString()));
  child.stderr.on('data', (more: Buffer) => (text += more.toString()));
  const start = {
    child,
    said: () => text,
    ended: new Promise<number | null>((resolve) => child.once('close', resolve)),
  };
  started.push(start);
  return start;
}

describe('what stands in the way is one clear line and an exit code', () => {
  test.each<[string, () => Record<string, string>, RegExp]>([
    ['a taken port', () => ({ PORT: String(taken) }), /Port \d+ is taken by another program/],
    ['a taken bench link port', () => ({ PORT: '0', BENCH_LINK_PORT: String(taken) }), /BENCH_LINK_PORT=\d+ npm start/],
    ['a port that is none', () => ({ PORT: 'high' }), /PORT must be a port/],
    [
      'demo days that there are none of',
      () => ({ PORT: '0', BENCH_LINK_PORT: '0', SUVOK_DEMO: 'no' }),
      /SUVOK_DEMO must be one of days, today, off/,
    ],
    [
      'another address than loopback',
      () => ({ PORT: '0', BENCH_LINK_PORT: '0', HOST: '0.0.0.0' }),
      /HOST is 0\.0\.0\.0/,
    ],
    [
      'a folder that cannot be written',
      () => ({ PORT: '0', BENCH_LINK_PORT: '0', SUVOK_DATA: '/proc/suvok' }),
      /\/proc\/suvok cannot be written/,
    ],
    [
      'a database that does not answer',
      () => ({
        PORT: '0',
        BENCH_LINK_PORT: '0',
        SUVOK_DATA: join(folder, 'other'),
        DATABASE_URL: `postgres://x:y@127.0.0.1:${taken + 1}/z`,
      }),
      /database does not answer|could not start/,
    ],
  ])('%s', async (_, environment, sentence) => {
    const { said, ended } = npmStart(environment());
    expect(await ended).toBe(1);
    expect(said()).toMatch(sentence);
    expect(
      said()
        .split('\n')
        .filter((line) => line.startsWith('suvok: ')),
    ).toHaveLength(1);
    expect(said()).not.toMatch(/\n\s+at /);
  });

  test('an old Node', async () => {
    const old = join(folder, 'old.cjs');
    writeFileSync(old, `Object.defineProperty(process.versions, 'node', { value: '18.19.0' });`);
    const { said, ended } = npmStart({}, ['-r', old]);
    expect(await ended).toBe(1);
    expect(said().trim()).toBe('suvok: Node 18.19.0 is too old; Suvok needs Node 20.11 or newer.');
  });
});

async function running(start: ReturnType<typeof npmStart>): Promise<void> {
  while (!start.said().includes('Suvok is at')) {
    if (start.child.exitCode !== null) throw new Error(start.said());
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}

test('from an empty folder to the page, and again with the data kept', async () => {
  const environment = { PORT: String(await freePort()), BENCH_LINK_PORT: '0', SUVOK_DATA: join(folder, 'short') };
  const address = `http://127.0.0.1:${environment.PORT}`;
  const first = npmStart({ ...environment, SUVOK_DEMO: 'off' });
  await running(first);
  const headers = { 'content-type': 'application/json' };
  const kept = await fetch(`${address}/api/jobs`, { method: 'POST', headers, body: '{"vehicle":"Kept"}' });
  expect(kept.status).toBe(201);
  expect(await (await fetch(address)).text()).toContain('<title>Suvok</title>');
  // This test is no reason for the slower page that is for its makers: what is built once is served from then on.
  const scripts = readdirSync(join(webFolder, 'assets')).filter((name) => name.endsWith('.js'));
  expect(scripts.filter((name) => readFileSync(join(webFolder, 'assets', name), 'utf8').includes('jsxDEV('))).toEqual(
    [],
  );
  for (const owned of ['postgresql', 'recorder', 'server.log', 'recorder.log', 'postgresql/password'])
    expect(statSync(join(environment.SUVOK_DATA, owned)).mode & 0o077).toBe(0);
  const second = npmStart({ ...environment, PORT: '0', BENCH_LINK_PORT: '0' });
  expect(await second.ended).toBe(1);
  expect(second.said()).toMatch(/Suvok already runs on/);
  const postmaster = postmasterOf(environment.SUVOK_DATA);
  first.child.kill('SIGINT');
  expect(await first.ended).toBe(0);
  expect(() => process.kill(postmaster, 0)).toThrow();
  await expect(fetch(address)).rejects.toThrow();
  expect(processesWith(`SUVOK_DATA=${environment.SUVOK_DATA}`)).toEqual([]);
  const again = npmStart(environment);
  await running(again);
  expect(again.said()).not.toContain('Playing the demo days');
  const { jobs } = (await (await fetch(`${address}/api/jobs`)).json()) as { jobs: { vehicle: string }[] };
  expect(jobs.map(({ vehicle }) => vehicle)).toEqual(['Kept']);
  again.child.kill('SIGTERM');
  expect(await again.ended).toBe(0);
});

/** The process of a running database. */
const postmasterOf = (data: string) =>
  Number(readFileSync(join(data, 'postgresql', 'cluster', 'postmaster.pid'), 'utf8').split('\n')[0]);

/** Starts take seconds each, and the demo days a minute. */
const inFull = process.env.SUVOK_SOAK ? test : test.skip;

inFull('the demo days are played, whatever dies is begun again, and data of another version are minded', async () => {
  const data = join(folder, 'data');
  const ends = '2026-05-21T16:30:00Z';
  const demo = { SUVOK_DEMO: 'days', jobs: 13, runs: [5, 5, 6, 8, 10, 11, 15] };
  const environment = {
    PORT: String(await freePort()),
    BENCH_LINK_PORT: String(await freePort()),
    SUVOK_DATA: data,
    SUVOK_DEMO: demo.SUVOK_DEMO,
    SUVOK_DEMO_ENDS: ends,
  };
  const address = `http://127.0.0.1:${environment.PORT}`;
  const first = npmStart(environment);
  await running(first);
  const { jobs } = (await (await fetch(`${address}/api/jobs`)).json()) as { jobs: { runs: number; state: string }[] };
  expect(jobs).toHaveLength(demo.jobs);
  expect(
    jobs
      .map((job) => job.runs)
      .filter((runs) => runs > 0)
      .sort((a, b) => a - b),
  ).toEqual(demo.runs);
  expect(new Set(jobs.map((job) => job.state))).toEqual(new Set(['open', 'paused', 'closed']));
  await demoKeepsItsOwnTimes(address, ends);
  first.child.kill('SIGINT');
  expect(await first.ended).toBe(0);
  const again = npmStart(environment);
  await running(again);
  expect(again.said()).not.toContain('Playing the demo days');
  const jobsAgain = async () => {
    const answer = await fetch(`${address}/api/jobs`).catch(() => undefined);
    return answer?.ok ? ((await answer.json()) as { total: number }).total : undefined;
  };
  expect(await jobsAgain()).toBe(demo.jobs);
  // Whatever dies is started again, on the port that it had, with all that was kept.
  process.kill(postmasterOf(data), 'SIGKILL');
  await until(() => again.said().includes('The database runs again'));
  await until(async () => (await jobsAgain()) === demo.jobs);
  process.kill(processWith('server/main.ts', `PORT=${environment.PORT}`), 'SIGKILL');
  await until(() => again.said().includes('The server has ended by itself; it is started again'));
  await until(async () => (await jobsAgain()) === demo.jobs);
  process.kill(processWith('recorder/main.ts', `BENCH_LINK_PORT=${environment.BENCH_LINK_PORT}`), 'SIGKILL');
  await until(() => again.said().includes('The recorder runs again'));
  await until(async () => {
    const bay = (await (await fetch(`${address}/api/bays/1`)).json()) as BayState;
    return bay.recorder.problem === null && bay.devices.filter(({ connected }) => connected).length === 3;
  });
  again.child.kill('SIGTERM');
  expect(await again.ended).toBe(0);

  // Data of an earlier version: a backup is made before they are changed.
  const newest = readdirSync('migrations').sort().at(-1)!;
  const back = readFileSync(join('migrations', newest), 'utf8').split('-- Down Migration')[1]!;
  await onStoppedData(data, `${back}; delete from migration where name = '${newest.replace('.sql', '')}'`);
  const upgraded = npmStart(environment);
  await running(upgraded);
  expect(upgraded.said()).toContain('Making a backup before');
  expect(readdirSync(join(data, 'backups')).filter((name) => name.endsWith('-upgrade.backup'))).toHaveLength(1);
  expect(await jobsAgain()).toBe(demo.jobs);
  upgraded.child.kill('SIGTERM');
  expect(await upgraded.ended).toBe(0);
  // Data of a later version are left alone.
  await onStoppedData(data, `insert into migration (name, run_on) values ('0099_later', now())`);
  const older = npmStart(environment);
  expect(await older.ended).toBe(1);
  expect(older.said()).toMatch(/written by a newer Suvok.*0099_later/);
});

/** When a start is stopped: at something that it says, and so much later, ms. */
const moments = (
  [
    ['Starting the database', 50, 500, 1200],
    ['Starting the recorder and the server', 250, 700, 1200, 2000],
    ['Playing the demo days', 0, 400, 2500, 6000],
    ['Suvok is at', 0],
  ] as const
).flatMap(([words, ...times]) => times.map((laterMs) => [words, laterMs] as const));

inFull.each(moments)(
  'a start that is stopped at “%s” and %d ms leaves no process, and begins cleanly',
  async (words, laterMs) => {
    const data = join(mkdtempSync(join(folder, 'stopped-')), 'data');
    chmodSync(join(data, '..'), 0o755);
    const environment = { PORT: '0', BENCH_LINK_PORT: '0', SUVOK_DATA: data, SUVOK_DEMO: 'today' };
    const stopped = npmStart(environment);
    await until(() => stopped.said().includes(words));
    await new Promise((resolve) => setTimeout(resolve, laterMs));
    const before = stopped.said();
    stopped.child.kill('SIGINT');
    expect(await stopped.ended).toBe(0);
    expect(processesWith(`SUVOK_DATA=${data}`)).toEqual([]);
    // It goes quietly: nothing is started after that, and nothing is said to have failed.
    expect(stopped.said().slice(before.length)).toBe('');
    const again = npmStart({ ...environment, SUVOK_DEMO: 'off' });
    await until(() => again.said().includes('Suvok is at'));
    expect(again.said()).not.toContain('suvok: ');
    again.child.kill('SIGINT');
    expect(await again.ended).toBe(0);
    expect(processesWith(`SUVOK_DATA=${data}`)).toEqual([]);
  },
);

/** Does something to the data while Suvok is stopped. */
async function onStoppedData(data: string, sql: string): Promise<void> {
  const account = databaseAccount();
  const cluster = await startCluster({ programs: findPostgres()!, folder: join(data, 'postgresql'), account });
  const client = new pg.Client({ connectionString: cluster.url('suvok') });
  await client.connect();
  await client.query(sql);
  await client.end();
  await cluster.stop();
}

async function until(holds: () => boolean | Promise<boolean>): Promise<void> {
  for (const deadline = Date.now() + 120_000; !(await holds());) {
    if (Date.now() > deadline) throw new Error(`waited in vain: ${String(holds)}`);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

/** Processes that were started with a setting, and what they were started as. */
function processesWith(setting: string): { pid: number; command: string }[] {
  const readable = (pid: string, file: string) => {
    try {
      return readFileSync(`/proc/${pid}/${file}`, 'utf8').split('\0');
    } catch {
      return [];
    }
  };
  const running = readdirSync('/proc').filter((pid) => /^\d+$/.test(pid) && readable(pid, 'environ').includes(setting));
  return running.map((pid) => ({ pid: Number(pid), command: readable(pid, 'cmdline').join(' ') }));
}

/** The process that was started with a script and a setting. */
function processWith(script: string, setting: string): number {
  const found = processesWith(setting).filter(({ command }) => command.includes(script));
  expect(found).toHaveLength(1);
  return found[0]!.pid;
}

/** Acts lie among the runs they speak of, in the scenario's days and not in those of its playing. */
async function demoKeepsItsOwnTimes(address: string, ends: string): Promise<void> {
  const get = async <T>(path: string) => (await (await fetch(address + path)).json()) as T;
  const { jobs } = await get<{ jobs: { id: number; createdAt: string; lastRunAt: string | null }[] }>('/api/jobs');
  expect(
    jobs
      .map(({ lastRunAt }) => lastRunAt ?? '')
      .sort()
      .at(-1),
  ).toMatch(/^2026-05-21/);
  for (const { id, createdAt } of jobs) {
    const job = await get<Job>(`/api/jobs/${id}`);
    const history = await get<Change[]>(`/api/jobs/${id}/history`);
    // Whatever car came on, its logger was heard from its first run.
    expect(job.runs.filter(({ logs }) => logs.length !== 1).map(({ label }) => label)).toEqual([]);
    const times = history.map(({ at }) => Date.parse(at));
    expect(Math.max(...times)).toBeLessThanOrEqual(Date.parse(ends));
    expect(history.find(({ subject, rowId, before }) => subject === 'job' && rowId === id && !before)!.at).toBe(
      createdAt,
    );
    for (const setup of job.setups) {
      const ran = job.runs.filter(({ setupId }) => setupId === setup.id);
      for (const run of ran) expect(Date.parse(run.startedAt)).toBeGreaterThan(Date.parse(setup.createdAt));
      if (setup.decidedAt)
        for (const run of ran) expect(Date.parse(setup.decidedAt)).toBeGreaterThan(Date.parse(run.endedAt!));
    }
    if (job.closedAt) expect(Date.parse(job.closedAt)).toBeLessThan(Date.parse(createdAt) + 2 * 86_400e3);
  }
}
