import type { Mounting } from '../../contract/bays/bay-requests.ts';
import type { CarOnDyno, NewRun } from '../../contract/bays/recorded-run.ts';
import type { DeviceSettings } from '../../contract/instruments/recording.ts';
import type { Run } from '../../contract/job/records.ts';
import type { StoredBay } from '../../store/shop/bays.ts';
import type { RowsKept } from '../../store/runs/samples.ts';

/** Another process has taken this recorder's place in the database: it writes nothing more there. */
export class Displaced extends Error {}

/** The database is another one than the place was taken in: what was known of runs in the other one is not true of this one. */
export class OtherDatabase extends Error {}

/** What a database refuses for good, whatever is tried again. */
export class NeverTaken extends Error {}

/**
 * Where runs go in the end. Every call may fail or hang while the database is
 * away, and is then made again: each does nothing where it has been done before.
 */
export interface RunStore {
  /**
   * Takes this recorder's place in the database; whoever had it is displaced.
   * Runs that were left open and are in no spool end as interrupted.
   * @param kept keys of the runs that the spool holds
   * @returns which database it is
   */
  takePlace(kept: readonly string[]): Promise<string>;
  /** Writes down that a run has begun. @throws NeverTaken when its setup cannot have it */
  addRun(run: NewRun): Promise<Run>;
  /** How far each source of a run is kept already, and how many rows that is. */
  rowsKept(run: Run): Promise<Map<number, RowsKept>>;
  /** Keeps rows of a run. @param from rows of the source before them, those that are missing among them */
  appendChunk(run: Run, source: number, from: number, columns: Float64Array[]): Promise<void>;
  /** Ends a run. */
  sealRun(run: Run, as: 'sealed' | 'interrupted', remarks: readonly string[]): Promise<void>;
}

/** What the bays ask of the database: every call may fail while it is away. */
export interface BayStore {
  /** Which database it is. */
  identity(): Promise<string>;
  /** Its copy of the bays. */
  bays(): Promise<StoredBay[]>;
  keepBays(bays: readonly StoredBay[]): Promise<void>;
  /** The car and setup of a mounting; undefined where the setup is not one of the job's. */
  carOnDyno(mounting: Mounting): Promise<CarOnDyno | undefined>;

  /** What the shop has set of its instruments, by their names on the bench link. */
  deviceSettings(): Promise<Map<string, DeviceSettings>>;
  saveDeviceSettings(device: string, settings: DeviceSettings): Promise<void>;
}

export type RecorderStore = RunStore & BayStore;
