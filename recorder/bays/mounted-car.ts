import type { ConfigureMessage } from '../../contract/instruments/bench-link.ts';
import type { Mounting } from '../../contract/bays/bay-requests.ts';
import type { Log } from '../../contract/values/service-log.ts';
import type { CarOnDyno } from '../../contract/bays/recorded-run.ts';
import type { Device } from '../devices/device.ts';
import type { BayStore } from '../database/recorder-store.ts';

/** After a failure the database is asked again after this long, ms. */
const retryMs = 500;

/** Where what is on a dyno is remembered: on the recorder's own disk. */
export interface CarMemory {
  readonly now: (Mounting & CarOnDyno) | null;
  keep(mounted: (Mounting & CarOnDyno) | null): Promise<void>;
}

/**
 * The car and setup on one dyno, told to instruments that want to know. What a
 * job says of it is asked of the database, and asked again while it is away.
 */
export class MountedCar {
  /** What was last read may be out of date, as a sentence. */
  problem: string | null = null;
  private again: NodeJS.Timeout | undefined;

  constructor(
    private readonly store: BayStore,
    private readonly memory: CarMemory,
    private readonly devices: () => Iterable<Device>,
    private readonly changed: () => void,
    private readonly log: Log,
  ) {}

  get now(): (Mounting & CarOnDyno) | null {
    return this.memory.now;
  }

  /** Another car is on the dyno, or none. */
  async put(mounted: (Mounting & CarOnDyno) | null): Promise<void> {
    await this.memory.keep(mounted);
    this.tell(this.devices());
    this.changed();
  }

  /** Tells instruments which car and setup are on the dyno. */
  tell(devices: Iterable<Device>): void {
    if (!this.now) return;
    const { vehicle, letter, items, gear } = this.now;
    const message: ConfigureMessage = { type: 'configure', vehicle, setup: letter, items, ...(gear ? { gear } : {}) };
    for (const device of devices) device.send(message);
  }

  /** Reads the car anew and tells instruments; while the database is away it is tried again. Never rejects. */
  async refresh(): Promise<void> {
    clearTimeout(this.again);
    try {
      await this.read();
      this.say(null);
    } catch (error) {
      if (!this.problem) this.log.warn({ err: error }, 'the car on the dyno cannot be read anew');
      this.say(
        `The database does not answer (${(error as Error).message}), so what changed in the job is not known to instruments yet. Runs are recorded all the same; it is tried again.`,
      );
      this.again = setTimeout(() => void this.refresh(), retryMs);
    }
  }

  stop(): void {
    clearTimeout(this.again);
  }

  private async read(): Promise<void> {
    const { now } = this;
    if (!now) return;
    const { jobId, setupId } = now;
    const car = await this.store.carOnDyno({ jobId, setupId });
    // Something else may have been put on meanwhile.
    if (!car || this.now?.setupId !== setupId || this.now.jobId !== jobId) return;
    await this.memory.keep({ jobId, setupId, ...car });
    this.tell(this.devices());
  }

  private say(problem: string | null): void {
    if (this.problem === problem) return;
    this.problem = problem;
    this.changed();
  }
}
