import { z } from 'zod';
import { airFile, dynoFile } from './files.ts';
import { identifier, run, runKinds } from './records.ts';

/** Bodies of requests to the server, and the one form in which it says no. */
const line = (longest: number) => z.string().trim().max(longest);

const jobFields = z.object({
  vehicle: line(120).min(1, 'name the vehicle'),
  owner: line(120),
  question: line(300),
  gear: line(20).nullable(),
});

export const newJob = jobFields.extend({
  owner: jobFields.shape.owner.default(''),
  question: jobFields.shape.question.default(''),
  gear: jobFields.shape.gear.default(null),
});
export type NewJob = z.input<typeof newJob>;

// Made from the fields without defaults: a change leaves alone what it does not name.
export const jobChange = jobFields.partial();
export type JobChange = z.input<typeof jobChange>;

export const newSetup = z.object({
  parentId: identifier.nullable(),
  change: line(300).min(1, 'say in a line what changed'),
});
export type NewSetup = z.input<typeof newSetup>;

export const setupChange = z.object({ change: line(300).min(1, 'say in a line what changed') });

export const runChange = z
  .object({
    setAsideReason: line(300).min(1, 'say why the run is set aside').nullable(),
    note: line(1000),
    kind: z.enum(runKinds),
    gear: line(20).nullable(),
    /** Moves the run, or claims one that belongs to no job. */
    setupId: identifier,
  })
  .partial();
export type RunChange = z.input<typeof runChange>;

export const importSettings = z.object({
  setupId: identifier,
  dyno: dynoFile,
  air: airFile.nullable(),
  engineToDrumRatio: z.number().positive().nullable(),
});
export type ImportSettings = z.input<typeof importSettings>;

export const importResult = z.object({ run, remarks: z.array(z.string()) });

export const mounting = z.object({ jobId: identifier, setupId: identifier });
export type Mounting = z.infer<typeof mounting>;

export const armRequest = z.object({ afterS: z.number().nonnegative().max(7200).optional() });

export const refusal = z.object({ error: z.string() });
