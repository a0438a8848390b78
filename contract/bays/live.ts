import { z } from 'zod';
import { channelDeclaration, deviceKinds } from '../instruments/bench-link.ts';
import { airFile, dynoFile } from '../files/machine-and-air.ts';
import { bayNumber, identifier } from '../values/parts.ts';
import { pairingState } from '../people/pairing.ts';
import { plainInstrument, trialState } from '../instruments/plain-instrument.ts';
import { run } from '../job/records.ts';
import { deviceSettings, runPlan } from '../instruments/recording.ts';

/** What the server says over the WebSocket at /live. */
export const deviceState = z.object({
  device: z.string(),
  name: z.string(),
  kind: z.enum(deviceKinds),
  /** The bay that it stands in; null for one that serves all, or that nobody has placed yet. */
  bay: bayNumber.nullable(),
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

/** One bay: its own instruments, car, plan and recorder. */
export const bayState = z.object({
  bay: bayNumber,
  name: z.string(),
  /** Those that stand in it, and the weather stations that serve all bays. */
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
    /** The run of this bay that was stored last since the recorder started. */
    lastRunId: identifier.nullable(),
    problem: z.string().nullable(),
  }),
});
export type BayState = z.infer<typeof bayState>;

export const baysState = z.object({
  type: z.literal('bays'),
  /** By their numbers; there is always one. */
  bays: z.array(bayState).min(1),
  /** Instruments that stand in no bay: nothing of theirs is recorded. */
  unplaced: z.array(deviceState),
  /** Instruments that send lines of text, as they were entered, and why nothing comes from one. */
  plain: z.array(z.object({ instrument: plainInstrument, problem: z.string().nullable() })),
  /** Lines that somebody listens to before an instrument is settled. */
  trial: trialState.nullable(),
  pairing: pairingState,
  /** Since when the recorder says nothing though it is there, ms since 1970: all this is what it said last. */
  silentSince: z.number().nullable(),
});
export type BaysState = z.infer<typeof baysState>;

/** Rows of a table have changed, of a job or of none; whoever shows what that touches fetches it anew. */
export const changedMessage = z.object({ type: z.literal('changed'), table: z.string(), jobId: identifier.nullable() });

/** Names the columns of the binary messages that follow: float64 rows of time and one value a channel, of one bay. */
export const columnsMessage = z.object({
  type: z.literal('columns'),
  bay: bayNumber,
  device: z.string(),
  columns: z.array(z.string()),
});

/** Which data the server serves: after a restore they are other ones, of the same numbers. Said first of all, and again where they change. */
const dataMessage = z.object({ type: z.literal('data'), id: z.uuid() });

/** The header by which a page says which data it shows; a request for others is refused. */
export const dataHeader = 'suvok-data';

/** Said when there is nothing else to say, so that silence means that nobody speaks. */
const aliveMessage = z.object({ type: z.literal('alive') });

/** Whoever speaks says something this often, ms … */
export const heartbeatMs = 500;
/** … and does not answer once nothing has been heard for this long, ms. */
export const silentAfterMs = 2000;

export const liveMessage = z.discriminatedUnion('type', [
  baysState,
  changedMessage,
  columnsMessage,
  dataMessage,
  aliveMessage,
]);
export type LiveMessage = z.infer<typeof liveMessage>;

/** What a page says: whose rows it wants. */
export const watchMessage = z.object({ type: z.literal('watch'), bay: bayNumber });

export const unclaimedRuns = z.array(run);
