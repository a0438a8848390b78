import { givenFields, loadModes, statedAir } from './circumstances.ts';
import { z } from 'zod';
import { channelDeclaration } from '../instruments/bench-link.ts';
import { airFile, dynoFile } from '../files/machine-and-air.ts';
import { baseline, briefFields, photo, tuneFile, tunerPackage } from './job-file.ts';
import { consent } from '../shop/consents.ts';
import { pauseReasons } from '../shop/day.ts';
import { jobEntryLists } from './entries.ts';
import { bayNumber, identifier, moment } from '../values/parts.ts';
import { reportVersion } from '../report/report.ts';
import { madeAs, runKinds, runLogRecord } from '../instruments/recording.ts';
import { setupItem } from '../values/setup-item.ts';
import { vehicle } from '../shop/vehicles.ts';

/** What is stored and sent: jobs, setups and runs. */

export const runStates = ['recording', 'sealed', 'interrupted'] as const;

/** What was in the tank when a run began, as the ledger told it then. */
export const fuelState = z.object({
  name: z.string(),
  litres: z.number().nullable(),
  ethanolPct: z.number().nullable(),
  from: z.enum(['measured', 'computed', 'stated', 'unknown']),
  moving: z.boolean(),
});

export const run = z.object({
  id: identifier,
  /** Its own wherever it is: numbers come again in restored data, keys do not. */
  key: z.uuid(),
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
  fuel: fuelState.nullable(),
  /** Labels that it had before it was moved; never used again. */
  formerLabels: z.array(z.string()),
  /** Temperatures at the start, °C, as far as they were logged. */
  startTemperatures: z.record(z.string(), z.number()),
  channels: z.array(channelDeclaration),
  samples: z.int().nonnegative(),
  /** Where it came from: an instrument's name or a file's. */
  source: z.string(),
  /** Who announced it, where they had signed in. */
  recordedBy: z.string().default(''),
  /** The bay that it was made in; null for a file, and for runs from before bays had numbers. */
  bay: bayNumber.nullable(),
  /** The instrument on the bench link; empty for a file. */
  device: z.string(),
  plan: madeAs.nullable(),
  /** Loggers that recorded beside it. */
  logs: z.array(runLogRecord),
  remarks: z.array(z.string()),
  tyres: z.string().nullable(),
  tyrePressureKpa: z.number().nullable(),
  fan: z.string().nullable(),
  bonnet: z.string().nullable(),
  loadMode: z.enum(loadModes).nullable(),
  remounted: z.boolean().nullable(),
  /** The air as a person stated it; null where it was read, or nobody said. */
  airStated: statedAir.nullable(),
  /** What was recorded, of all that a person has put right since. */
  given: z.partialRecord(z.enum(givenFields), z.unknown()),
});
export type Run = z.infer<typeof run>;

export const setup = z.object({
  id: identifier,
  jobId: identifier,
  letter: z.string(),
  parentId: identifier.nullable(),
  /** What was changed from the parent, in a line. */
  change: z.string(),
  items: z.array(setupItem),
  createdAt: moment,
  revision: z.int().positive(),
  /** Mean power that the change was expected to give, kW; locked at the first run. */
  predictionKw: z.number().nullable(),
  predictionFromRpm: z.number().nullable(),
  predictionToRpm: z.number().nullable(),
  predictionWhy: z.string(),
  decision: z.enum(['keep', 'go back', 'try further']).nullable(),
  decisionWhy: z.string(),
  decidedAt: moment.nullable(),
  /** What it rested on, in the words of that moment and with its rule; empty where nobody recorded it. */
  decidedOn: z.string(),
  /** Runs that were planned before the first one: judged as one look when all are there. Null: every look is paid for. */
  plannedRuns: z.int().min(1).max(30).nullable(),
});
export type Setup = z.infer<typeof setup>;

/** What a job came to, in a line: what is delivered or was tried last, against what arrived; powers in kW. */
export const jobHeadline = z.object({
  letter: z.string(),
  gain: z
    .object({ kw: z.number(), halfWidthKw: z.number().nullable(), claim: z.enum(['gain', 'loss']).nullable() })
    .nullable(),
  /** Why no gain is told over the band that matters. */
  notCovered: z.string().nullable().default(null),
  strip: z.object({ rpm: z.array(z.number()), kw: z.array(z.number()) }),
  broke: z.string().nullable(),
  tests: z.string().nullable(),
  /** What came of forecasts, by their numbers. */
  outcomes: z.record(z.string(), z.number()).default({}),
});

export const jobSummary = z.object({
  id: identifier,
  vehicleId: identifier,
  vehicle: z.string(),
  plate: z.string(),
  owner: z.string(),
  question: z.string(),
  state: z.enum(['open', 'paused', 'closed']),
  /** The next step, in a few words. */
  waiting: z.string(),
  createdAt: moment,
  setups: z.int().nonnegative(),
  runs: z.int().nonnegative(),
  lastRunAt: moment.nullable(),
  /** What it came to, from its figures; null while that is being made, or where there is nothing to tell. */
  headline: jobHeadline.nullable(),
});
export type JobSummary = z.infer<typeof jobSummary>;

/** A page of the list, and how many there are in all. */
export const jobList = z.object({ jobs: z.array(jobSummary), total: z.int().nonnegative() });
export type JobList = z.infer<typeof jobList>;

export const job = jobSummary.omit({ setups: true, runs: true, waiting: true, headline: true }).extend({
  ...briefFields.shape,
  revision: z.int().positive(),
  /** What it waits for while it is paused, why, since when, and until when at best. */
  pausedFor: z.enum(pauseReasons).nullable(),
  pausedWhy: z.string(),
  pausedAt: moment.nullable(),
  expectedAt: moment.nullable(),
  closedAt: moment.nullable(),
  deliveredSetupId: identifier.nullable(),
  deliveredNote: z.string(),
  /** What was still open when it was closed, in the words of that day. */
  openPoints: z.array(z.string()).default([]),
  car: vehicle,
  setups: z.array(setup),
  runs: z.array(run),
  /** Bands, limits, notes and its other short lists. */
  ...jobEntryLists,
  /** What its owner signed, the first first. */
  consents: z.array(consent).default([]),
  photos: z.array(photo),
  tuneFiles: z.array(tuneFile),
  /** What was sent to a remote tuner, the first first. */
  tunerPackages: z.array(tunerPackage).default([]),
  /** Reports that were kept, the first first. */
  reportVersions: z.array(reportVersion),
  baseline: baseline.nullable(),
  /** Versions that were replaced, the latest first. */
  earlierBaselines: z.array(baseline),
});
export type Job = z.infer<typeof job>;
