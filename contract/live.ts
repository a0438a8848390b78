import { z } from 'zod';
import { channelDeclaration, deviceKinds } from './bench-link.ts';
import { airFile, dynoFile } from './files.ts';
import { identifier } from './parts.ts';
import { run } from './records.ts';
import { deviceSettings, runPlan } from './recording.ts';

/** What the server says over the WebSocket at /live. */
export const deviceState = z.object({
  device: z.string(),
  name: z.string(),
  kind: z.enum(deviceKinds),
  connected: z.boolean(),
  /** Frames have come within the last seconds. */
  heard: z.boolean(),
  channels: z.array(channelDeclaration),
  /** Measured, frames a second of device time. */
  rateHz: z.number().nullable(),
  /** Frames that the sequence numbers show missing since it connected. */
  missing: z.int().nonnegative(),
  /** Holes in the sequence of its frames since it connected. */
  gaps: z.int().nonnegative(),
  /** By how much its clock runs fast against this machine's, millionths; null until it can be told. */
  clockDriftPpm: z.number().nullable(),
  settings: deviceSettings,
  /** Its channels as it names them. */
  declared: z.array(channelDeclaration),
  commands: z.array(z.string()),
  dyno: dynoFile.nullable(),
  /** Engine speed ÷ drum speed, where it has no pickup and says so. */
  engineToDrumRatio: z.number().positive().nullable(),
  /** The last thing that went wrong with it, as a sentence. */
  problem: z.string().nullable(),
  /** A stand-in's faults: those that it can play, and those switched on. */
  faults: z.object({ offered: z.array(z.string()), on: z.array(z.string()) }),
});
export type DeviceState = z.infer<typeof deviceState>;

export const bayState = z.object({
  type: z.literal('bay'),
  devices: z.array(deviceState),
  air: airFile.extend({ takenAt: z.iso.datetime({ offset: true }) }).nullable(),
  mounted: z.object({ jobId: identifier, setupId: identifier }).nullable(),
  /** What is recorded next. */
  plan: runPlan,
  recorder: z.object({
    state: z.enum(['idle', 'armed', 'recording', 'sealing']),
    runId: identifier.nullable(),
    label: z.string().nullable(),
    /** Device time at which the run being recorded began, s. */
    startedS: z.number().nullable(),
    /** The run sealed last since the server started. */
    lastRunId: identifier.nullable(),
    problem: z.string().nullable(),
  }),
});
export type BayState = z.infer<typeof bayState>;

/** Something stored has changed; whoever shows that job fetches it anew. */
export const changedMessage = z.object({ type: z.literal('changed'), jobId: identifier.nullable() });

/** Names the columns of the binary messages that follow: float64 rows of time and one value a channel. */
export const columnsMessage = z.object({
  type: z.literal('columns'),
  device: z.string(),
  columns: z.array(z.string()),
});

export const liveMessage = z.discriminatedUnion('type', [bayState, changedMessage, columnsMessage]);
export type LiveMessage = z.infer<typeof liveMessage>;

export const unclaimedRuns = z.array(run);
