import type { ConfigureMessage } from '../contract/bench-link.ts';
import type { Mounting } from '../contract/http.ts';
import type { DeviceSettings, RunPlan } from '../contract/recording.ts';
import type { Run } from '../contract/records.ts';

/** A run as it begins, before its samples are known. */
export interface NewRun {
  setup: { id: number; jobId: number } | null;
  gear: string | null;
  startedAt: Date;
  dyno: Run['dyno'];
  engineToDrumRatio: number | null;
  air: Run['air'];
  airTakenAt: Date | null;
  startTemperatures: Record<string, number>;
  channels: Run['channels'];
  source: string;
  kind: Run['kind'];
  device: string;
  plan: Run['plan'];
  logs: Run['logs'];
  recorderId: number | null;
}

/** What the recorder and instruments need to know of the car and setup on the dyno. */
export interface CarOnDyno {
  vehicleId: number;
  vehicle: string;
  gear: string | null;
  /** The setup's letter, and all that was changed up to it. */
  letter: string;
  items: ConfigureMessage['items'];
}

/**
 * All that the recorder asks of whatever keeps its runs. Every call may fail
 * while the database is away; what is kept is tried again by the caller.
 */
export interface RecorderStore {
  /** Writes down that a run has begun. */
  addRun(beginning: NewRun): Promise<Run>;
  /** Keeps samples of a run, in the order of `sequence` within their source; those already kept are left as they are. */
  appendChunk(runId: number, source: number, sequence: number, columns: Float64Array[]): Promise<void>;
  /** Ends a run; one that has ended is left as it is. */
  sealRun(run: Run, as: 'sealed' | 'interrupted', remarks: readonly string[]): Promise<void>;

  /** What is on the dyno, and what is to be recorded next. */
  mounted(): Promise<Mounting | null>;
  mount(mounting: Mounting | null): Promise<void>;
  plan(): Promise<RunPlan | null>;
  setPlan(plan: RunPlan): Promise<void>;
  /** The car and setup of a mounting; undefined where the setup is not one of the job's. */
  carOnDyno(mounting: Mounting): Promise<CarOnDyno | undefined>;

  /** What the shop has set of its instruments, by their names on the bench link. */
  deviceSettings(): Promise<Map<string, DeviceSettings>>;
  saveDeviceSettings(device: string, settings: DeviceSettings): Promise<void>;
}
