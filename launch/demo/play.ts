import { run as runSchema, setup as setupSchema, jobList, type Job } from '../../contract/job/records.ts';
import { z } from 'zod';
import { account } from '../../contract/people/people.ts';
import { setupFuelling } from '../../contract/shop/fuelling.ts';
import { bayState, type BayState } from '../../contract/bays/live.ts';
import { usualSteps, type RunPlan } from '../../contract/instruments/recording.ts';
import type { SetupItemRecord } from '../../contract/values/setup-item.ts';
import { DemoAsk } from './ask.ts';
import { bookDays } from './day.ts';
import { bookJob, finishJob, writeArrival, type PlayedSetup } from './file.ts';
import type { DemoJob, DemoPull, DemoSetup } from './job.ts';
import { jobsBefore } from './jobs-before.ts';
import { jobsLately } from './jobs-lately.ts';
import { setActTimes } from './times.ts';
import { Failure } from '../failure.ts';
import type { DemoKind } from '../settings.ts';
import { startProgram, stopProgram } from '../program.ts';

/** The invented shop's first days, the oldest first; the last job with runs stays on the dyno. */
const demoJobs: readonly DemoJob[] = [...jobsBefore, ...jobsLately];

const hasRuns = ({ setups }: DemoJob) => setups.some(({ pulls }) => pulls.length > 0);

/**
 * Plays the demo days on a server that has no job yet: stand-in instruments
 * run faster than real time and every pull goes through the recorder. The days
 * are shifted as a whole so that the last one ends on the day of `endsAt`, and
 * what was done in them carries the scenario's times.
 *
 * @param databaseUrl of the server's own database, as its owner
 * @param days `today`: the last day alone, and the jobs that have no run yet
 * @param signal ends it early: what was played by then stays, with the scenario's times
 */
export async function loadDemo(
  server: { port: number; benchLinkPort: number },
  databaseUrl: string,
  { kind, endsAt }: { kind: DemoKind; endsAt: Date },
  say: (text: string) => void,
  signal: AbortSignal,
): Promise<void> {
  if (kind === 'off') return;
  const ask = new DemoAsk(server.port, signal);
  // Where there are accounts there is work of somebody's own.
  if ((await ask.json(account, 'GET', '/api/account')).accounts) return;
  if ((await ask.json(jobList, 'GET', '/api/jobs')).total > 0) return;
  const played = demoJobs.filter((job) => kind === 'days' || job.daysAgo === 0 || !hasRuns(job));
  const total = played.reduce((sum, job) => sum + job.setups.reduce((runs, setup) => runs + setup.pulls.length, 0), 0);
  say(`Playing the demo days (${total} pulls)`);
  try {
    const jobs: Job[] = [];
    for (const demo of played) jobs.push(await playJob(demo, beginningOf(demo, endsAt), server.benchLinkPort, ask));
    const [last] = played.slice(-1);
    if (last) await bookDays(jobs, beginningOf(last, endsAt), kind === 'days', ask);
  } finally {
    await setActTimes(databaseUrl, ask.acts);
  }
}

/** The scenario's last day takes so long, ms: begun at a late hour it has still ended. */
const lastDayMs = 2.4 * 3600e3;

/** When a job's day began, the scenario ending at a moment of its last day. */
export function beginningOf({ daysAgo, from }: Pick<DemoJob, 'daysAgo' | 'from'>, endsAt: Date): Date {
  const began = new Date(endsAt);
  began.setDate(began.getDate() - daysAgo);
  const [hours = 0, minutes = 0] = from.split(':').map(Number);
  began.setHours(hours, minutes, 0, 0);
  // Started before that hour, or while the day would still go on: it began earlier.
  const latest = endsAt.getTime() - lastDayMs;
  return began.getTime() > latest ? new Date(latest) : began;
}

async function playJob(demo: DemoJob, dayBegan: Date, benchLinkPort: number, ask: DemoAsk): Promise<Job> {
  const job = await bookJob(demo, dayBegan, ask);
  await writeArrival(job, demo, dayBegan, ask);
  const played = new Map<string, PlayedSetup>([['A', { id: job.setups[0]!.id, endedAt: dayBegan }]]);
  const play = async () => {
    for (const setup of demo.setups) await playSetup(job, setup, played, ask);
  };
  if (hasRuns(demo)) await withInstruments(demo, dayBegan, benchLinkPort, ask, job, play);
  else await play();
  await finishJob(job, demo, played, ask);
  return job;
}

/** Lets the stand-ins play while the work is done, on the job's day. */
async function withInstruments(
  demo: DemoJob,
  dayBegan: Date,
  benchLinkPort: number,
  ask: DemoAsk,
  job: Job,
  work: () => Promise<void>,
): Promise<void> {
  await mount(job, job.setups[0]!.id, ask);
  const words = [
    '--fast',
    '--port',
    benchLinkPort,
    '--seed',
    demo.seed,
    '--rate',
    demo.rateHz ?? 200,
    '--dyno',
    demo.dyno ?? 'inertia-roller',
    '--started-at',
    dayBegan.toISOString(),
  ];
  const instruments = startProgram('simulator/main.ts', words.map(String), {});
  try {
    await until(
      ask,
      (bay) =>
        bay.air !== null &&
        ['engine-logger', demo.dyno ?? 'inertia-roller'].every((kind) =>
          bay.devices.some((device) => device.kind === kind && device.heard),
        ),
    );
    await work();
  } finally {
    await stopProgram(instruments);
  }
}

/** From a run's end to what is written of it, and from there to the next setup, ms. */
const writtenMs = 40e3;
const changedMs = 4 * 60e3;

async function playSetup(job: Job, demo: DemoSetup, played: Map<string, PlayedSetup>, ask: DemoAsk): Promise<void> {
  const earlier = [...played.values()].at(-1);
  const parent = played.get(demo.from ?? 'A');
  if (!earlier || !parent) throw new Error(`The demo’s setup "${demo.change}" follows one that was not played.`);
  let { id } = parent;
  let letter = 'A';
  let { endedAt } = earlier;
  ask.now = new Date(endedAt.getTime() + (demo.from ? changedMs : 0));
  if (demo.from) {
    const back = demo.change?.startsWith('Back to');
    ({ id, letter } = await ask.json(setupSchema, 'POST', `/api/jobs/${job.id}/setups`, {
      parentId: parent.id,
      change: demo.change,
      ...(back ? { items: [] } : {}),
      ...(demo.fuelTable ? { items: [await proposedTable(parent.id, demo.change ?? '', ask)] } : {}),
      ...(demo.expectedKw === undefined ? {} : { predictionKw: demo.expectedKw }),
    }));
    for (const { fromRpm = null, toRpm = null, ...said } of demo.forecasts ?? [])
      await ask.json(z.looseObject({}), 'POST', `/api/jobs/${job.id}/forecasts`, {
        ...said,
        setupId: id,
        fromRpm,
        toRpm,
      });
    if (demo.pulls.length > 0) await mount(job, id, ask);
  }
  if (demo.file) await ask.file(`/api/setups/${id}/tune-files`, demo.file);
  for (const pull of demo.pulls) endedAt = await playPull(pull, ask);
  played.set(letter, { id, endedAt });
}

/** The fuel table that a setup's runs propose. */
async function proposedTable(setupId: number, name: string, ask: DemoAsk): Promise<SetupItemRecord> {
  const { axes, cells } = await ask.json(setupFuelling, 'GET', `/api/setups/${setupId}/fuelling`);
  const multipliers = cells.map(({ multiplier }) => Number(multiplier.toFixed(4)));
  return { kind: 'fuel-table', name: name.replace('fuel table ', ''), table: { ...axes, multipliers } };
}

async function mount(job: Job, setupId: number, ask: DemoAsk): Promise<void> {
  await ask.json(bayState, 'PUT', '/api/bays/1/mounted', { jobId: job.id, setupId });
}

/** Long enough to tell something, short enough for a first start. */
const demoLengths = { idleS: 30, startS: 40, cruiseS: 100 };

/** @returns when the run ended */
async function playPull(pull: DemoPull, ask: DemoAsk): Promise<Date> {
  const { plan, recorder: earlier } = await ask.json(bayState, 'GET', '/api/bays/1');
  const before = earlier.lastRunId;
  const wanted: RunPlan = {
    ...plan,
    kind: pull.kind ?? (pull.holds ? 'step' : 'power'),
    steps: { ...usualSteps, ...pull.holds },
    ofKind: { ...plan.ofKind, ...demoLengths },
  };
  if (wanted.kind !== plan.kind) await ask.json(bayState, 'PUT', '/api/bays/1/plan', wanted);
  await ask.json(bayState, 'POST', '/api/bays/1/arm', { afterS: pull.afterMin * 60 });
  const bay = await until(ask, ({ recorder }) => recorder.state === 'idle' && recorder.lastRunId !== before);
  const path = `/api/runs/${bay.recorder.lastRunId}`;
  const run = await ask.json(runSchema, 'GET', path);
  if (run.endedAt === null) throw new Error(`The demo’s run ${run.label ?? run.id} has not ended.`);
  const endedAt = new Date(run.endedAt);
  ask.now = new Date(endedAt.getTime() + writtenMs);
  const change = {
    ...(pull.note ? { note: pull.note } : {}),
    ...(pull.setAside ? { setAsideReason: pull.setAside } : {}),
  };
  if (Object.keys(change).length > 0) await ask.json(runSchema, 'PATCH', path, change);
  return endedAt;
}

async function until(ask: DemoAsk, holds: (bay: BayState) => boolean): Promise<BayState> {
  const deadline = Date.now() + 60_000;
  while (Date.now() < deadline) {
    const bay = await ask.json(bayState, 'GET', '/api/bays/1');
    if (holds(bay)) return bay;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  throw new Failure('The demo data could not be made: the stand-in instruments did not answer.');
}
