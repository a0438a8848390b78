import { job as jobSchema, setup as setupSchema, type Job } from '../contract/records.ts';
import { z } from 'zod';
import type { Ask } from './demo.ts';
import type { DemoJob } from './demo-scenario.ts';
import { demoVehicles } from './demo-vehicles.ts';

const anything = z.looseObject({});

/** Writes a demo job's file as a page would: brief, bounds, inspection, fuel, suspicions and notes. */
export async function writeFile(job: Job, demo: DemoJob, dayBeganAt: Date, ask: Ask): Promise<void> {
  const add = async (path: string, entries: readonly object[] = []) => {
    for (const entry of entries) await ask(anything, 'POST', `/api/jobs/${job.id}/${path}`, entry);
  };
  if (demo.brief) await ask(jobSchema, 'PATCH', `/api/jobs/${job.id}`, demo.brief);
  await add('bands', demo.bands);
  await add('limits', demo.limits);
  await add('inspections', demo.inspections);
  await add(
    'fuel-entries',
    demo.fuel?.map(({ minutesBefore, ...entry }) => ({
      litres: null,
      ethanolPct: null,
      name: '',
      note: '',
      ...entry,
      at: new Date(dayBeganAt.getTime() - minutesBefore * 60e3).toISOString(),
    })),
  );
  await add(
    'suspicions',
    demo.suspicions?.map((suspicion) => ({ ...suspicion, runIds: [] })),
  );
  await add(
    'notes',
    demo.notes?.map((text) => ({ text, at: new Date(dayBeganAt.getTime() + 45 * 60e3).toISOString() })),
  );
}

/** Decisions, and how the job ended: written after its last run. */
export async function finishJob(job: Job, demo: DemoJob, ids: ReadonlyMap<string, number>, ask: Ask): Promise<void> {
  for (const [index, { decision, why }] of demo.setups.entries()) {
    const letter = String.fromCharCode(65 + index);
    if (decision)
      await ask(setupSchema, 'PATCH', `/api/setups/${ids.get(letter)}`, { decision, decisionWhy: why ?? '' });
  }
  const { end } = demo;
  if (!end) return;
  const state =
    end.state === 'paused'
      ? end
      : {
          state: 'closed',
          deliveredSetupId: end.delivered === null ? null : ids.get(end.delivered),
          untested: end.untested,
          deliveredNote: '',
        };
  await ask(jobSchema, 'PUT', `/api/jobs/${job.id}/state`, state);
}

/** Writes down what is known of the vehicle of a job, once. */
export async function writeVehicle(job: Job, ask: Ask): Promise<void> {
  const known = demoVehicles[job.vehicle];
  if (!known || job.car.engine !== '') return;
  await ask(anything, 'PATCH', `/api/vehicles/${job.vehicleId}`, known.fields);
  for (const [name, knowledge] of known.parts) {
    await ask(anything, 'POST', `/api/vehicles/${job.vehicleId}/parts`, { name, knowledge, note: '' });
  }
}
