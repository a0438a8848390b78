import { mkdtempSync, openAsBlob, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { bundleMade, bundleTaken } from '../contract/job/bundle.ts';
import { job as jobRecord } from '../contract/job/records.ts';
import { testDyno } from '../core/testing/test-car.ts';
import { ownCluster } from '../launch/own-cluster.ts';
import { stopProgram } from '../launch/program.ts';
import { startServerProgram } from '../launch/suvok-programs.ts';
import type { Figure } from './figure.ts';
import { residentMb } from './process-use.ts';

/** The longest day that is planned for: so many runs of a minute at 1 kHz with sixteen channels. */
const runs = 60;
const rows = 60_000;
const channels = 16;

/** A minute of it, drawn: four seconds in gear, then a pull. */
function minuteCsv(): string {
  const lines = [
    `time [s],rollerSpeed [rad/s],engineSpeed [rpm],${Array.from({ length: channels - 2 }, (_, at) => `more${at} [V]`).join(',')}`,
  ];
  for (let row = 0; row < rows; row++) {
    const time = row / 1000;
    const speed = 60 + Math.max(0, time - 4) * 1.4 + 0.01 * Math.sin(row);
    const cells = Array.from({ length: channels - 2 }, (_, index) => 2.5 + Math.sin(row / (7 + index)));
    lines.push([time, speed, (speed * 3.4 * 60) / (2 * Math.PI), ...cells].join(','));
  }
  return `${lines.join('\n')}\n`;
}

/** What a very long job costs as one file, out and in. */
export async function bundleFigures(): Promise<Figure[]> {
  const folder = mkdtempSync(join(tmpdir(), 'suvok-bench-'));
  const cluster = await ownCluster(folder);
  const asOwner = new pg.Client({ connectionString: cluster.url('postgres') });
  await asOwner.connect();
  await asOwner.query('create database there');
  const startServer = (database: string) =>
    startServerProgram({ DATABASE_URL: cluster.url(database), PORT: '0', SUVOK_RECORDER: folder });
  let here = await startServer('postgres');
  const there = await startServer('there');
  try {
    const jobId = await longJob(`http://127.0.0.1:${here.port}/api`, asOwner);
    // What reading the first run took is no part of it.
    await stopProgram(here.child);
    here = await startServer('postgres');
    const file = join(folder, 'job.zip');
    const out = await measured(here.child.pid ?? 0, async () => {
      const api = `http://127.0.0.1:${here.port}/api`;
      const made = bundleMade.parse(
        await (
          await fetch(`${api}/jobs/${jobId}/bundle`, {
            method: 'POST',
            headers: { 'content-type': 'application/json' },
            body: '{}',
          })
        ).json(),
      );
      writeFileSync(file, Buffer.from(await (await fetch(`${api}/bundles/${made.fetch}`)).arrayBuffer()));
      return made.bytes;
    });
    const back = await measured(there.child.pid ?? 0, async () => {
      const form = new FormData();
      form.append('file', await openAsBlob(file), 'job.zip');
      const answer = await fetch(`http://127.0.0.1:${there.port}/api/bundles`, { method: 'POST', body: form });
      return bundleTaken.parse(await answer.json()).runs;
    });
    if (back.result !== runs) throw new Error(`${back.result} runs came back`);
    const name = `job of ${runs} runs × 60 s × 1 kHz × ${channels} channels, ${Math.round(out.result / 1e6)} MB as a file`;
    return [
      { name: `${name}, written and fetched`, value: out.s, unit: 's' },
      {
        name: `${name}, most memory while it is written (${Math.round(out.beforeMb)} MB before)`,
        value: out.mostMb,
        unit: 'MB',
        budget: 300,
      },
      { name: `${name}, taken in`, value: back.s, unit: 's' },
      {
        name: `${name}, most memory while it is taken in (${Math.round(back.beforeMb)} MB before)`,
        value: back.mostMb,
        unit: 'MB',
        budget: 300,
      },
    ];
  } finally {
    await asOwner.end();
    await stopProgram(here.child);
    await stopProgram(there.child);
    await cluster.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** One run that came in, and copies of it. @returns the job's number */
async function longJob(api: string, asOwner: pg.Client): Promise<number> {
  const made = await fetch(`${api}/jobs`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: '{"vehicle":"Long day"}',
  });
  const job = jobRecord.parse(await made.json());
  const form = new FormData();
  form.append('file', new Blob([minuteCsv()]), 'minute.csv');
  form.append(
    'settings',
    JSON.stringify({
      setupId: job.setups[0]?.id,
      dyno: testDyno,
      air: null,
      engineToDrumRatio: null,
      startedAt: '2026-05-04T09:00:00Z',
    }),
  );
  const answer = await fetch(`${api}/imports`, { method: 'POST', body: form });
  if (!answer.ok) throw new Error(`the import answered ${answer.status}: ${await answer.text()}`);
  // Nobody learns from it beside: that would take memory of its own.
  await asOwner.query(`update run set kind = 'conditioning'`);
  await asOwner.query(`insert into run (job_id, setup_id, number, kind, state, started_at, ended_at, dyno, channels, samples, source)
    select job_id, setup_id, n, kind, state, started_at + n * interval '5 min', ended_at + n * interval '5 min', dyno, channels, samples, source
    from run, generate_series(2, ${runs}) as n`);
  await asOwner.query(`insert into run_channel (run_id, source, position, name, unit, data)
    select run.id, run_channel.source, position, name, unit, data from run_channel, run where run_id = 1 and run.id > 1`);
  return job.id;
}

async function measured<T>(
  pid: number,
  work: () => Promise<T>,
): Promise<{ result: T; s: number; beforeMb: number; mostMb: number }> {
  const beforeMb = residentMb(pid);
  let mostMb = beforeMb;
  const watch = setInterval(() => (mostMb = Math.max(mostMb, residentMb(pid))), 20);
  const began = performance.now();
  const result = await work();
  clearInterval(watch);
  return { result, s: (performance.now() - began) / 1000, beforeMb, mostMb };
}
