import {
  job as jobSchema,
  run as runSchema,
  setup as setupSchema,
  jobSummary,
  type Job,
  type Run,
} from '../contract/records.ts';
import { bayState, type BayState } from '../contract/live.ts';
import { z } from 'zod';
import { demoJobs, type DemoJob, type DemoPull } from './demo-scenario.ts';
import { Failure } from './failure.ts';
import { startProgram, stopProgram } from './program.ts';

/** Asks the server over HTTP, as a page does. */
type Ask = <T extends z.ZodType>(schema: T, method: string, path: string, body?: unknown) => Promise<z.output<T>>;

/**
 * Plays the demo days on a server that has no job yet: stand-in instruments
 * run faster than real time and every pull goes through the recorder.
 */
export async function loadDemo(
  server: { port: number; benchLinkPort: number },
  say: (text: string) => void,
): Promise<void> {
  const ask = asker(server.port);
  if ((await ask(z.array(jobSummary), 'GET', '/api/jobs')).length > 0) return;
  const total = demoJobs.reduce(
    (sum, job) => sum + job.setups.reduce((runs, setup) => runs + setup.pulls.length, 0),
    0,
  );
  say(`Playing the demo days (${total} pulls)`);
  for (const demo of demoJobs) await playJob(demo, server.benchLinkPort, ask);
}

function asker(port: number): Ask {
  return async (schema, method, path, body) => {
    const response = await fetch(`http://127.0.0.1:${port}${path}`, {
      method,
      ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
    if (!response.ok)
      throw new Failure(`The demo data could not be made: ${method} ${path} answered ${await response.text()}`);
    return schema.parse(await response.json());
  };
}

async function playJob(demo: DemoJob, benchLinkPort: number, ask: Ask): Promise<void> {
  const { vehicle, owner, question, gear } = demo;
  const job = await ask(jobSchema, 'POST', '/api/jobs', { vehicle, owner, question, gear });
  if (demo.setups.every((setup) => setup.pulls.length === 0)) return;
  const startedAt = new Date(Date.now() - demo.hoursAgo * 3600e3).toISOString();
  await mount(job, job.setups[0]!.id, ask);
  const instruments = startProgram(
    'simulator/main.ts',
    [
      '--fast',
      '--port',
      String(benchLinkPort),
      '--seed',
      String(demo.seed),
      '--rate',
      '200',
      '--started-at',
      startedAt,
    ],
    {},
  );
  try {
    await until(ask, (bay) => bay.air !== null && bay.devices.some((device) => device.dyno && device.heard));
    const letters = new Map([['A', job.setups[0]!.id]]);
    for (const [index, setup] of demo.setups.entries()) {
      if (index > 0) {
        const added = await ask(setupSchema, 'POST', `/api/jobs/${job.id}/setups`, {
          parentId: letters.get(setup.from!),
          change: setup.change,
        });
        letters.set(added.letter, added.id);
        await mount(job, added.id, ask);
      }
      for (const pull of setup.pulls) await playPull(pull, ask);
    }
  } finally {
    await stopProgram(instruments);
  }
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
