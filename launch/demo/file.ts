import { job as jobSchema, setup as setupSchema, type Job } from '../../contract/job/records.ts';
import { z } from 'zod';
import { consentTemplate } from '../../contract/shop/consents.ts';
import type { DemoAsk } from './ask.ts';
import type { DemoJob } from './job.ts';
import { demoVehicles } from './vehicles.ts';

const anything = z.looseObject({});

/** How long before the day's beginning it was booked, and the car looked over, ms. */
const bookedMs = 20 * 3600e3;
const inspectedMs = 25 * 60e3;
/** Notes were written so long after the day's beginning, ms. */
const notedMs = 45 * 60e3;
/** From a setup's last run to its decision, and from the last run to the car's leaving, ms. */
const decidedMs = 3 * 60e3;
const leftMs = 15 * 60e3;

/** A moment so long before or after another. */
const shifted = (moment: Date, byMs: number) => new Date(moment.getTime() + byMs);

/** Begins a demo job as it was booked: brief, bounds, and what is known of the vehicle. @returns the job */
export async function bookJob(demo: DemoJob, dayBegan: Date, ask: DemoAsk): Promise<Job> {
  ask.now = shifted(dayBegan, -bookedMs);
  const { vehicle, owner, question, gear } = demo;
  const job = await ask.json(jobSchema, 'POST', '/api/jobs', { vehicle, owner, question, gear });
  await writeVehicle(job, ask);
  if (demo.brief) await ask.json(jobSchema, 'PATCH', `/api/jobs/${job.id}`, demo.brief);
  await addEntries(job, 'bands', demo.bands, ask);
  await addEntries(job, 'limits', demo.limits, ask);
  await addEntries(job, 'targets', demo.targets, ask);
  return job;
}

/** Writes what was found when the car was looked over: inspection, fuel, suspicions and notes. */
export async function writeArrival(job: Job, demo: DemoJob, dayBegan: Date, ask: DemoAsk): Promise<void> {
  ask.now = shifted(dayBegan, -inspectedMs);
  await addEntries(job, 'inspections', demo.inspections, ask);
  for (const { minutesBefore, ...entry } of demo.fuel ?? []) {
    ask.now = shifted(dayBegan, -minutesBefore * 60e3);
    const usual = { litres: null, ethanolPct: null, name: '', note: '' };
    await addEntries(job, 'fuel-entries', [{ ...usual, ...entry, at: ask.now.toISOString() }], ask);
  }
  ask.now = shifted(dayBegan, -inspectedMs);
  await sign(job, demo, ask);
  await addEntries(
    job,
    'suspicions',
    demo.suspicions?.map((suspicion) => ({ ...suspicion, runIds: [] })),
    ask,
  );
  ask.now = shifted(dayBegan, notedMs);
  await addEntries(
    job,
    'notes',
    demo.notes?.map((text) => ({ text, at: ask.now.toISOString() })),
    ask,
  );
}

async function addEntries(job: Job, path: string, entries: readonly object[] = [], ask: DemoAsk): Promise<void> {
  for (const entry of entries) await ask.json(anything, 'POST', `/api/jobs/${job.id}/${path}`, entry);
}

/** A hand of our own: a wave that runs out into a line. */
const hand = [
  Array.from({ length: 60 }, (_, at) => [
    30 + 4 * at,
    90 + 34 * Math.sin(at / 3.1) * Math.exp(-at / 45),
    0.35 + 0.3 * Math.abs(Math.sin(at / 5)),
  ]),
  Array.from({ length: 24 }, (_, at) => [60 + 9 * at, 138 - at / 2, 0.4]),
];

/** Lets the owner sign. */
async function sign(job: Job, { signed = [], owner }: DemoJob, ask: DemoAsk): Promise<void> {
  if (signed.length === 0) return;
  const texts = await ask.json(z.array(consentTemplate), 'GET', '/api/consent-templates');
  for (const title of signed) {
    const text = texts.find((one) => one.title.startsWith(title));
    if (!text) throw new Error(`The demo’s owner signs a text that is not there: ${title}`);
    await ask.json(anything, 'POST', `/api/jobs/${job.id}/consents`, {
      templateId: text.id,
      version: text.revision,
      name: owner,
      strokes: hand,
    });
  }
}

/** A setup that was made, and when its last run ended. */
export interface PlayedSetup {
  id: number;
  endedAt: Date;
}

/** Decisions, and how the job ended. */
export async function finishJob(
  job: Job,
  demo: DemoJob,
  played: ReadonlyMap<string, PlayedSetup>,
  ask: DemoAsk,
): Promise<void> {
  for (const [index, { decision, why }] of demo.setups.entries()) {
    const setup = played.get(String.fromCharCode(65 + index));
    if (!decision || !setup) continue;
    ask.now = shifted(setup.endedAt, decidedMs);
    await ask.json(setupSchema, 'PATCH', `/api/setups/${setup.id}`, { decision, decisionWhy: why ?? '' });
  }
  for (const { setup, ...line } of demo.charges ?? [])
    await addEntries(
      job,
      'charges',
      [{ ...line, currency: '€', why: '', setupId: setup ? (played.get(setup)?.id ?? null) : null }],
      ask,
    );
  const { end } = demo;
  if (!end) return;
  const lastRun = Math.max(...[...played.values()].map(({ endedAt }) => endedAt.getTime()));
  ask.now = shifted(new Date(lastRun), leftMs);
  const state =
    end.state === 'paused'
      ? {
          state: end.state,
          for: end.for,
          why: end.why,
          expectedAt:
            end.expectedInDays === undefined ? null : shifted(ask.now, end.expectedInDays * 24 * 3600e3).toISOString(),
        }
      : {
          state: 'closed',
          deliveredSetupId: end.delivered === null ? null : played.get(end.delivered)?.id,
          untested: end.untested,
          deliveredNote: '',
        };
  await ask.json(jobSchema, 'PUT', `/api/jobs/${job.id}/state`, state);
}

/** Writes down what is known of the vehicle of a job, once. */
async function writeVehicle(job: Job, ask: DemoAsk): Promise<void> {
  const known = demoVehicles[job.vehicle];
  if (!known || job.car.engine !== '') return;
  await ask.json(anything, 'PATCH', `/api/vehicles/${job.vehicleId}`, known.fields);
  for (const [name, knowledge] of known.parts) {
    await ask.json(anything, 'POST', `/api/vehicles/${job.vehicleId}/parts`, { name, knowledge, note: '' });
  }
}
