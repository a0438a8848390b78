import type { BundledJob, BundleTaken } from '../../contract/job/bundle.ts';
import { Refusal } from '../../core/refusal.ts';
import { inTransaction, type Database, type Queryable } from '../../store/database/database.ts';
import { jobWithKey, runsWithKeys, takeInJob } from '../../store/jobs/take-in-job.ts';
import { OpenBundle } from './open-bundle.ts';

/**
 * Takes a job in from a bundle: all of it, or nothing. A job that is here already is left as it is, and what the bundle
 * has beyond it is told.
 * @param path where the file lies
 * @param told how much is stored, from 0 to 1
 * @param asPerson marks a transaction as that of whoever asks
 * @throws Refusal where the bundle is broken or it was cancelled; nothing was stored then
 */
export async function takeInBundle(
  database: Database,
  path: string,
  told: (done: number) => void,
  signal: AbortSignal,
  asPerson: (client: Queryable) => Promise<void>,
): Promise<BundleTaken> {
  const bundle = await OpenBundle.at(path, signal);
  try {
    return await inTransaction(database, async (client) => {
      await asPerson(client);
      // Two at once take one job in once.
      await client.query('select pg_advisory_xact_lock(24)');
      const { manifest, bundled } = bundle;
      const here = await jobWithKey(client, manifest.job);
      const known = await runsWithKeys(client, Object.values(bundled.runKeys));
      if (here !== undefined) return { jobId: here, already: true, runs: 0, remarks: beyond(bundled, known) };
      const elsewhere = bundled.job.runs.filter(({ id }) => known.has(bundled.runKeys[id] ?? ''));
      const except = new Set(elsewhere.map(({ id }) => id));
      const { jobId, remarks } = await takeInJob(client, manifest.job, bundled, bundle, except, told);
      if (signal.aborted) throw new Refusal('It was cancelled. Nothing was stored.');
      return {
        jobId,
        already: false,
        runs: bundled.job.runs.length - except.size,
        remarks: [
          ...remarks,
          ...elsewhere.map(
            ({ id, label }) =>
              `Run ${label} is here already, in ${placeOf(known.get(bundled.runKeys[id] ?? ''))}; it was not stored a second time.`,
          ),
          ...(manifest.runsLeftOut > 0
            ? [
                `${manifest.runsLeftOut} ${manifest.runsLeftOut === 1 ? 'run of the job was' : 'runs of the job were'} left out where the bundle was written.`,
              ]
            : []),
        ],
      };
    });
  } finally {
    bundle.close();
  }
}

const placeOf = (jobId: number | null | undefined) => (jobId ? `job ${jobId}` : 'the runs that belong to no job');

/** What a bundle has of a job that is here, and the job here has not. */
function beyond({ job, runKeys }: BundledJob, known: ReadonlyMap<string, number | null>): string[] {
  const missing = job.runs.filter(({ id }) => !known.has(runKeys[id] ?? '')).map(({ label }) => label);
  if (missing.length === 0) return ['Every run of the bundle is here.'];
  return [`The bundle has runs that are not here: ${missing.join(', ')}. The job here was left as it is.`];
}
