import type { Job, Setup } from '../contract/job/records.ts';
import { madeOnce } from '../store/testing/test-database.ts';
import { Suvok } from './running-suvok.ts';

/** Jobs that several tests look at: recorded once, copied for each, the only one of its database. */
const recipes = {
  /** Three runs of A, three of B with a shorter intake. */
  'two-setups': (suvok: Suvok) => recordSetups(suvok, 3, ['intake trumpets 40 mm shorter']),
  /** Three levels of ignition, two runs each. */
  ignition: (suvok: Suvok) => recordSetups(suvok, 2, ['ignition +2°', 'ignition +2°']),
};
export type Recipe = keyof typeof recipes;

/** A chain of setups, each changed from the one before, with so many runs each. */
async function recordSetups(suvok: Suvok, runs: number, changes: readonly string[]): Promise<Job> {
  await suvok.startStandIns('fast');
  const job = await suvok.mountedJob();
  await suvok.record(job, runs);
  let parentId = job.setups[0]!.id;
  for (const change of changes) {
    const setup = await suvok.ask<Setup>('POST', `/jobs/${job.id}/setups`, { parentId, change });
    parentId = setup.id;
    await suvok.ask('PUT', '/bays/1/mounted', { jobId: job.id, setupId: setup.id });
    await suvok.record(job, runs);
  }
  return job;
}

/** The database in which a recipe's job was recorded, once for all workers; with nothing in it beside. @returns its name */
export const recordedOnce = (recipe: Recipe): Promise<string> =>
  madeOnce(`recorded_${recipe.replace('-', '_')}`, async (url) => {
    const suvok = await Suvok.on(url);
    await recipes[recipe](suvok);
    // Nobody may be connected to what is copied.
    await suvok.stop();
  });
