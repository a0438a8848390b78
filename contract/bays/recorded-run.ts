import { z } from 'zod';
import { channelDeclaration } from '../instruments/bench-link.ts';
import { airFile, dynoFile } from '../files/machine-and-air.ts';
import { bayNumber, identifier, moment } from '../values/parts.ts';
import { madeAs, runKinds, runLogRecord } from '../instruments/recording.ts';
import { setupItem } from '../values/setup-item.ts';

/** What the recorder keeps of its own, on its disk, until the database has it. */

/** A run as it begins, before its samples are known. */
export const newRun = z.object({
  /** Given by the recorder, so that entering it twice enters it once. */
  key: z.uuid(),
  /** Where it was made; null for a file, and in what an earlier Suvok wrote down. */
  bay: bayNumber.nullable().default(null),
  setup: z.object({ id: identifier, jobId: identifier }).nullable(),
  /** The database that the setup is one of; null where none had been met yet, and in what an earlier Suvok wrote down. */
  database: z.uuid().nullable().default(null),
  gear: z.string().nullable(),
  startedAt: moment,
  dyno: dynoFile,
  engineToDrumRatio: z.number().positive().nullable(),
  air: airFile.nullable(),
  airTakenAt: moment.nullable(),
  /** Temperatures at the start, °C. */
  startTemperatures: z.record(z.string(), z.number()),
  channels: z.array(channelDeclaration),
  /** What people read of the instrument, and its name on the bench link. */
  source: z.string(),
  device: z.string(),
  kind: z.enum(runKinds),
  plan: madeAs.nullable(),
  logs: z.array(runLogRecord),
  /** Who announced it, where they had signed in; empty otherwise, and in what an earlier Suvok wrote down. */
  recordedBy: z.string().max(120).default(''),
});
export type NewRun = z.infer<typeof newRun>;

/** What the recorder and instruments need to know of the car and setup on the dyno. */
export const carOnDyno = z.object({
  vehicleId: identifier,
  vehicle: z.string(),
  gear: z.string().nullable(),
  /** The setup's letter, and all that was changed up to it. */
  letter: z.string(),
  items: z.array(setupItem),
});
export type CarOnDyno = z.infer<typeof carOnDyno>;
