import type { Job, Setup } from '../contract/job/records.ts';
import { freshDatabase, type TestDatabase } from '../store/testing/test-database.ts';
import { Suvok } from './running-suvok.ts';

/** Jobs that several tests look at: recorded once, copied for each. */
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

interface Recording {
  database: string;
  jobId: number;
}

/** The recorded jobs of one test worker. */
export class Recordings {
  private readonly made = new Map<Recipe, Promise<Recording>>();
  private readonly databases: TestDatabase[] = [];

  of(recipe: Recipe): Promise<Recording> {
    const made = this.made.get(recipe) ?? this.make(recipe);
    this.made.set(recipe, made);
    made.catch(() => this.made.delete(recipe));
    return made;
  }

  async drop(): Promise<void> {
    for (const database of this.databases) await database.drop();
  }

  private async make(recipe: Recipe): Promise<Recording> {
    const database = await freshDatabase();
    this.databases.push(database);
    const suvok = await Suvok.on(database.url);
    const job = await recipes[recipe](suvok);
    // Nobody may be connected to what is copied.
    await suvok.stop();
    return { database: database.name, jobId: job.id };
  }
}
