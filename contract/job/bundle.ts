import { z } from 'zod';
import { checkHistory } from './check-history.ts';
import { strokes } from '../shop/consents.ts';
import { identifier, moment } from '../values/parts.ts';
import { job } from './records.ts';
import { wholeReportVersion } from '../report/report.ts';
import { ownerFields, partFields } from '../shop/vehicles.ts';

/** A job as one file (.zip) that another Suvok takes in; docs/file-formats.md describes it. */
export const bundleFormat = 'suvok job bundle';
export const bundleVersion = 1;

/** `bundle.json`: what the file is, and what must be in it. */
export const bundleManifest = z.object({
  format: z.literal(bundleFormat),
  version: z.int().positive(),
  madeAt: moment,
  /** The program's version. */
  madeBy: z.string(),
  /** The job is known again by it, wherever it is. */
  job: z.uuid(),
  vehicle: z.string(),
  question: z.string(),
  ownerLeftOut: z.boolean(),
  /** Runs that the job has and the bundle has not. */
  runsLeftOut: z.int().nonnegative(),
  files: z.array(z.object({ path: z.string().min(1), bytes: z.int().nonnegative(), sha256: z.string() })),
});
export type BundleManifest = z.infer<typeof bundleManifest>;

/** `job.json`: the job's file as the API tells it, and what stands beside it. Numbers of rows hold within the bundle. */
const bundledFields = z.object({
  job,
  owner: ownerFields.nullable(),
  parts: z.array(partFields),
  /** So that no letter and no number is given out again. */
  counted: z.object({
    setupsLettered: z.int().nonnegative(),
    runsNumbered: z.record(z.string(), z.int().nonnegative()),
  }),
  /** By the run's number within the bundle: a run is known again by it. */
  runKeys: z.record(z.string(), z.uuid()),
  reports: z.array(wholeReportVersion),
  /** By instrument: what the shop knew of it, which the job's figures rest on. */
  learned: z.record(z.string(), checkHistory),
  /** The lines of the hands under its consents, by their numbers. */
  hands: z.record(z.string(), strokes).default({}),
});
/** A bundle of before runs told their keys has them beside the job. */
const bundleOfBefore = z.looseObject({
  job: z.looseObject({ runs: z.array(z.looseObject({ id: z.number() })) }),
  runKeys: z.record(z.string(), z.string()),
});

export const bundledJob = z.preprocess((value) => {
  const before = bundleOfBefore.safeParse(value);
  if (!before.success) return value;
  const { job, runKeys, ...rest } = before.data;
  return { ...rest, runKeys, job: { ...job, runs: job.runs.map((run) => ({ key: runKeys[run.id], ...run })) } };
}, bundledFields);
export type BundledJob = z.infer<typeof bundledJob>;

/** What goes into a bundle. */
export const bundleWishes = z.strictObject({
  /** Setups whose runs go with it; null for all. */
  setupIds: z.array(identifier).max(500).nullable().default(null),
  /** Without it owner, plate and contact are left out, and kept reports, which may name them. */
  withOwner: z.boolean().default(true),
});
export type BundleWishes = z.infer<typeof bundleWishes>;

/** A bundle that was written, to be fetched within ten minutes. */
export const bundleMade = z.object({ name: z.string(), bytes: z.int().positive(), fetch: z.uuid() });

/** What became of a bundle that came in. */
export const bundleTaken = z.object({
  jobId: identifier,
  /** The job was here before; nothing was stored. */
  already: z.boolean(),
  runs: z.int().nonnegative(),
  /** What was not stored as it was written, and why; and runs of the bundle that are not here. */
  remarks: z.array(z.string()),
});
export type BundleTaken = z.infer<typeof bundleTaken>;

/** Where the parts of a bundle lie. */
export const bundlePaths = {
  manifest: 'bundle.json',
  job: 'job.json',
  run: (label: string) => `runs/${label}.csv`,
  log: (label: string, source: number) => `runs/${label}-log-${source}.csv`,
  photo: (id: number) => `photos/${id}`,
  tuneFile: (sha256: string) => `tune-files/${sha256}`,
};
