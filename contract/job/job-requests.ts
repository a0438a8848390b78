import { circumstances } from './circumstances.ts';
import { z } from 'zod';
import { pauseReasons } from '../shop/day.ts';
import { airFile, dynoFile } from '../files/machine-and-air.ts';
import { briefFields } from './job-file.ts';
import { identifier, trimmedText, rpm, freeText, moment } from '../values/parts.ts';
import { run } from './records.ts';
import { runKinds } from '../instruments/recording.ts';
import { setupItem } from '../values/setup-item.ts';

/** Bodies of requests about a job, its setups and runs. */
const revision = z.int().positive();

/** A vehicle by its number, or by its name and its owner's: found, or written down anew. */
export const newJob = z
  .object({
    vehicleId: identifier.optional(),
    vehicle: trimmedText(120).default(''),
    owner: trimmedText(120).default(''),
    question: trimmedText(300).default(''),
    gear: trimmedText(20).nullable().default(null),
  })
  .refine(({ vehicleId, vehicle }) => vehicleId !== undefined || vehicle !== '', {
    message: 'name the vehicle',
    path: ['vehicle'],
  });
export type NewJob = z.input<typeof newJob>;

/** A change leaves alone what it does not name; the revision is the one that the page had before it. */
export const jobChange = briefFields.partial().extend({ revision: revision.optional() });
export type JobChange = z.input<typeof jobChange>;

export const stateChange = z.discriminatedUnion('state', [
  z.object({ state: z.literal('open') }),
  z.object({
    state: z.literal('paused'),
    for: z.enum(pauseReasons).default('other'),
    why: trimmedText(300),
    /** When it is expected to go on. */
    expectedAt: moment.nullable().default(null),
  }),
  z.object({
    state: z.literal('closed'),
    deliveredSetupId: identifier.nullable(),
    untested: freeText(1000),
    deliveredNote: trimmedText(500),
  }),
]);
export type StateChange = z.input<typeof stateChange>;

export const newSetup = z.object({
  parentId: identifier.nullable(),
  change: trimmedText(300).min(1, 'say in a line what changed'),
  /** Read out of the line where left out. */
  items: z.array(setupItem).max(20).optional(),
  predictionKw: z.number().min(-5000).max(5000).nullable().optional(),
});
export type NewSetup = z.input<typeof newSetup>;

export const setupChange = z
  .object({
    change: trimmedText(300).min(1, 'say in a line what changed'),
    items: z.array(setupItem).max(20),
    predictionKw: z.number().min(-5000).max(5000).nullable(),
    predictionFromRpm: rpm.nullable(),
    predictionToRpm: rpm.nullable(),
    predictionWhy: trimmedText(300),
    decision: z.enum(['keep', 'go back', 'try further']).nullable(),
    decisionWhy: trimmedText(300),
    /** What it rested on, in the words of that moment. */
    decidedOn: trimmedText(600),
    /** Until its first run. */
    plannedRuns: z.int().min(1).max(30).nullable(),
  })
  .partial()
  .extend({ revision: revision.optional() });
export type SetupChange = z.input<typeof setupChange>;

export const runChange = z
  .object({
    setAsideReason: trimmedText(300).min(1, 'say why the run is set aside').nullable(),
    note: trimmedText(1000),
    kind: z.enum(runKinds),
    /** Moves the run, or claims one that belongs to no job. */
    setupId: identifier,
    ...circumstances.shape,
  })
  .partial();
export type RunChange = z.input<typeof runChange>;

/** The same said of several runs, in one act. */
export const runsChange = z.object({ runIds: z.array(identifier).min(1).max(200), change: runChange });

export const importSettings = z.object({
  setupId: identifier,
  dyno: dynoFile,
  air: airFile.nullable(),
  engineToDrumRatio: z.number().positive().nullable(),
  /** When it was recorded: nobody takes the moment of an import for it. */
  startedAt: moment,
  gear: trimmedText(20).nullable().default(null),
  /** Left out, the file itself tells: a row of holds is no power run. */
  kind: z
    .enum(['power', 'conditioning', 'step', 'coast-down', 'idle', 'cold-start', 'transient', 'cruise', 'road-check'])
    .optional(),
});
export type ImportSettings = z.input<typeof importSettings>;

export const importResult = z.object({ run, remarks: z.array(z.string()) });
