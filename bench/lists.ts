import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { ownCluster } from '../launch/own-cluster.ts';
import { stopProgram } from '../launch/program.ts';
import { startServerProgram } from '../launch/suvok-programs.ts';
import type { Figure } from './figure.ts';

const jobs = 10_000;
const runs = 100_000;

/** So many owners, vehicles, jobs, setups and runs (without samples), spread over years; written straight into the tables. */
const generated = `
  set session_replication_role = replica;
  insert into owner (name) select 'Owner ' || n from generate_series(1, ${jobs / 5}) as n;
  insert into vehicle (name, owner_id, plate)
    select 'Vehicle ' || n, 1 + n % ${jobs / 5}, 'P ' || n from generate_series(1, ${jobs / 3}) as n;
  insert into job (vehicle_id, question, setups_lettered, created_at, last_run_at)
    select 1 + n % ${Math.floor(jobs / 3)}, 'Does change ' || n || ' pay?', 4, now() - n * interval '3 hours', now() - n * interval '3 hours'
    from generate_series(1, ${jobs}) as n;
  insert into setup (job_id, position, parent_id, change, items)
    select 1 + n / 4, n % 4, case when n % 4 = 0 then null else n end, 'ignition +1°', '[{"kind":"ignition","by":1}]'
    from generate_series(0, ${jobs * 4 - 1}) as n;
  insert into run (job_id, setup_id, number, state, started_at, ended_at, dyno, channels, samples, source, note)
    select job_id, id, 1 + n / ${jobs * 4}, 'sealed', now() - job_id * interval '3 hours', now() - job_id * interval '3 hours',
      '{"kind":"inertia-roller","inertiaKgM2":50,"parasitic":{"aNm":0,"bNmPerRadS":0,"cNmPerRadS2":0}}',
      '[{"name":"rollerSpeed","unit":"rad/s"},{"name":"engineSpeed","unit":"rpm"}]', 2000, 'bench',
      case when n % 10 = 0 then 'note number ' || n else '' end
    from generate_series(0, ${runs - 1}) as n join setup on setup.id = 1 + n % ${jobs * 4};
  update setup set runs_numbered = (select count(*) from run where setup_id = setup.id);
  -- One long job.
  insert into run (job_id, setup_id, number, state, started_at, ended_at, dyno, channels, samples, source)
    select 1, 1, 1000 + n, 'sealed', now(), now(), dyno, channels, samples, source
    from generate_series(1, 55) as n, (select * from run where id = 1) as one;
  analyze;`;

async function times(url: string): Promise<number> {
  const found: number[] = [];
  for (let count = 0; count < 9; count++) {
    const began = performance.now();
    const response = await fetch(url);
    await response.arrayBuffer();
    if (!response.ok) throw new Error(`${url} answered ${response.status}`);
    found.push(performance.now() - began);
  }
  return found.sort((a, b) => a - b)[4]!;
}

/** Milliseconds that lists and a long job take at the server, median of nine, with a shop's many years stored. */
export async function listTimes(): Promise<Figure[]> {
  const folder = mkdtempSync(join(tmpdir(), 'suvok-bench-'));
  const cluster = await ownCluster(folder);
  const admin = new pg.Client({ connectionString: cluster.url('postgres') });
  await admin.connect();
  await admin.query('create database lists');
  await admin.end();
  const databaseUrl = cluster.url('lists');
  const server = await startServerProgram({ DATABASE_URL: databaseUrl, PORT: '0', SUVOK_RECORDER: folder });
  try {
    const client = new pg.Client({ connectionString: databaseUrl });
    await client.connect();
    await client.query(generated);
    await client.end();
    const api = `http://127.0.0.1:${server.port}/api`;
    const budget = 100;
    const list = async (name: string, path: string): Promise<Figure> => ({
      name: `${name}, ${jobs.toLocaleString('en-GB')} jobs and ${runs.toLocaleString('en-GB')} runs stored`,
      value: await times(api + path),
      unit: 'ms',
      budget,
    });
    return [
      await list('first page of jobs', '/jobs'),
      await list('page of jobs far down', '/jobs?offset=9000'),
      await list('search by owner and vehicle', '/jobs?search=owner%2077%20vehicle'),
      await list('search by a run’s note', '/jobs?search=number%2054320'),
      await list('search for what is nowhere', '/jobs?search=nowhere'),
      await list('vehicles', '/vehicles'),
      await list('vehicles by plate', '/vehicles?search=P%20123'),
      { name: 'a job of 60 runs at the server', value: await times(`${api}/jobs/1`), unit: 'ms', budget: 300 },
    ];
  } finally {
    await stopProgram(server.child);
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}
