import {
  job as jobSchema,
  run as runSchema,
  setup as setupSchema,
  jobList,
  type Job,
  type Run,
} from '../contract/records.ts';
import { bayState, type BayState } from '../contract/live.ts';
import type { z } from 'zod';
import { finishJob, writeFile, writeVehicle } from './demo-file.ts';
import { demoJobs, type DemoJob, type DemoPull, type DemoSetup } from './demo-scenario.ts';
import { Failure } from './failure.ts';
import { startProgram, stopProgram } from './program.ts';

/** Asks the server over HTTP, as a page does. */
export interface Ask {
  <T extends z.ZodType>(schema: T, method: string, path: string, body?: unknown): Promise<z.output<T>>;
  /** Sends a file. */
  file(path: string, file: { name: string; content: string }): Promise<void>;
}

/**
 * Plays the demo days on a server that has no job yet: stand-in instruments
 * run faster than real time and every pull goes through the recorder.
 */
export async function loadDemo(
  server: { port: number; benchLinkPort: number },
  say: (text: string) => void,
): Promise<void> {
  const ask = asker(server.port);
  if ((await ask(jobList, 'GET', '/api/jobs')).total > 0) return;
  const total = demoJobs.reduce(
    (sum, job) => sum + job.setups.reduce((runs, setup) => runs + setup.pulls.length, 0),
    0,
  );
  say(`Playing the demo days (${total} pulls)`);
  for (const demo of demoJobs) await playJob(demo, server.benchLinkPort, ask);
}

function asker(port: number): Ask {
  const answered = async (path: string, init: RequestInit & { method: string }) => {
    const response = await fetch(`http://127.0.0.1:${port}${path}`, init);
    if (!response.ok)
      throw new Failure(`The demo data could not be made: ${init.method} ${path} answered ${await response.text()}`);
    return response;
  };
  const ask = async <T extends z.ZodType>(
    schema: T,
    method: string,
    path: string,
    body?: unknown,
  ): Promise<z.output<T>> => {
    const json = { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
    const response = await answered(path, { method, ...(body === undefined ? {} : json) });
    return schema.parse(await response.json());
  };
  const file = async (path: string, { name, content }: { name: string; content: string }) => {
    const form = new FormData();
    form.append('file', new Blob([content]), name);
    await answered(path, { method: 'POST', body: form });
  };
  return Object.assign(ask, { file });
}

async function playJob(demo: DemoJob, benchLinkPort: number, ask: Ask): Promise<void> {
  const { vehicle, owner, question, gear } = demo;
  const dayBegan = new Date(Date.now() - demo.hoursAgo * 3600e3);
  const job = await ask(jobSchema, 'POST', '/api/jobs', { vehicle, owner, question, gear });
  await writeVehicle(job, ask);
  await writeFile(job, demo, dayBegan, ask);
  const letters = new Map([['A', job.setups[0]!.id]]);
  const play = async () => {
    for (const setup of demo.setups) await playSetup(job, setup, letters, ask);
  };
  if (demo.setups.some((setup) => setup.pulls.length > 0))
    await withInstruments(demo, dayBegan, benchLinkPort, ask, job, play);
  else await play();
  await finishJob(job, demo, letters, ask);
}

/** Lets the stand-ins play while the work is done, on the job's day. */
async function withInstruments(
  demo: DemoJob,
  dayBegan: Date,
  benchLinkPort: number,
  ask: Ask,
  job: Job,
  work: () => Promise<void>,
): Promise<void> {
  await mount(job, job.setups[0]!.id, ask);
  const words = ['--fast', '--port', benchLinkPort, '--seed', demo.seed, '--rate', 200, '--dyno', demo.dyno ?? 'inertia-roller', '--started-at', dayBegan.toISOString()]; // prettier-ignore
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

async function playSetup(job: Job, demo: DemoSetup, letters: Map<string, number>, ask: Ask): Promise<void> {
  let id = letters.get('A')!;
  if (demo.from) {
    const back = demo.change!.startsWith('Back to');
    const added = await ask(setupSchema, 'POST', `/api/jobs/${job.id}/setups`, {
      parentId: letters.get(demo.from),
      change: demo.change,
      ...(back ? { items: [] } : {}),
      ...(demo.expectedKw === undefined ? {} : { predictionKw: demo.expectedKw }),
    });
    id = added.id;
    letters.set(added.letter, id);
    if (demo.pulls.length > 0) await mount(job, id, ask);
  }
  if (demo.file) await ask.file(`/api/setups/${id}/tune-files`, demo.file);
  for (const pull of demo.pulls) await playPull(pull, ask);
}

async function mount(job: Job, setupId: number, ask: Ask): Promise<void> {
  await ask(bayState, 'PUT', '/api/bay/mounted', { jobId: job.id, setupId });
}

async function playPull(pull: DemoPull, ask: Ask): Promise<Run> {
  const before = (await ask(bayState, 'GET', '/api/bay')).recorder.lastRunId;
  await ask(bayState, 'POST', '/api/bay/arm', { afterS: pull.afterMin * 60 });
  const bay = await until(ask, ({ recorder }) => recorder.state === 'idle' && recorder.lastRunId !== before);
  const change = {
    ...(pull.note ? { note: pull.note } : {}),
    ...(pull.setAside ? { setAsideReason: pull.setAside } : {}),
  };
  return ask(runSchema, 'PATCH', `/api/runs/${bay.recorder.lastRunId}`, change);
}

async function until(ask: Ask, holds: (bay: BayState) => boolean): Promise<BayState> {
  const deadline = Date.now() + 60_000;
  while (Date.now() < deadline) {
    const bay = await ask(bayState, 'GET', '/api/bay');
    if (holds(bay)) return bay;
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  throw new Failure('The demo data could not be made: the stand-in instruments did not answer.');
}
