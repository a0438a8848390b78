import { z } from 'zod';
import { channelDeclaration, changeItem } from './bench-link.ts';
import { airFile, dynoFile } from './files.ts';

/** What is stored and sent: jobs, setups and runs. */
export const identifier = z.int().positive();
const moment = z.iso.datetime({ offset: true });

export const runKinds = ['power', 'conditioning'] as const;
export const runStates = ['recording', 'sealed', 'interrupted'] as const;

export const run = z.object({
  id: identifier,
  jobId: identifier.nullable(),
  setupId: identifier.nullable(),
  /** Such as B2; null while the run belongs to no job. */
  label: z.string().nullable(),
  kind: z.enum(runKinds),
  state: z.enum(runStates),
  gear: z.string().nullable(),
  startedAt: moment,
  endedAt: moment.nullable(),
  /** Why it stays out of figures; null when it counts. */
  setAsideReason: z.string().nullable(),
  note: z.string(),
  dyno: dynoFile,
  engineToDrumRatio: z.number().positive().nullable(),
  air: airFile.nullable(),
  airTakenAt: moment.nullable(),
  /** Temperatures at the start, °C, as far as they were logged. */
  startTemperatures: z.record(z.string(), z.number()),
  channels: z.array(channelDeclaration),
  samples: z.int().nonnegative(),
  /** Where it came from: an instrument's name or a file's. */
  source: z.string(),
  remarks: z.array(z.string()),
});
export type Run = z.infer<typeof run>;

export const setup = z.object({
  id: identifier,
  jobId: identifier,
  letter: z.string(),
  parentId: identifier.nullable(),
  /** What was changed from the parent, in a line. */
  change: z.string(),
  items: z.array(changeItem),
  createdAt: moment,
});
export type Setup = z.infer<typeof setup>;

export const jobSummary = z.object({
  id: identifier,
  vehicle: z.string(),
  owner: z.string(),
  question: z.string(),
  createdAt: moment,
  setups: z.int().nonnegative(),
  runs: z.int().nonnegative(),
  lastRunAt: moment.nullable(),
});
export type JobSummary = z.infer<typeof jobSummary>;

export const job = jobSummary
  .omit({ setups: true, runs: true })
  .extend({ gear: z.string().nullable(), setups: z.array(setup), runs: z.array(run) });
export type Job = z.infer<typeof job>;
