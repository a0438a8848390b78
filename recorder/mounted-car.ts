import type { ConfigureMessage } from '../contract/bench-link.ts';
import type { Mounting } from '../contract/http.ts';
import type { Log } from '../contract/log.ts';
import type { CarOnDyno } from '../contract/recorded-run.ts';
import { Refusal } from '../core/refusal.ts';
import type { BayMemory } from './bay-memory.ts';
import type { Device } from './devices/device.ts';
import type { BayStore } from './recorder-store.ts';

/** After a failure the database is asked again after this long, ms. */
const retryMs = 500;

/**
 * The car and setup on the dyno, remembered on the recorder's own disk, and
 * told to instruments that want to know. What a job says of it is asked of the
 * database, and asked again while it is away.
 */
export class MountedCar {
  /** What was last read may be out of date, as a sentence. */
  problem: string | null = null;
  private again: NodeJS.Timeout | undefined;

  constructor(
    private readonly store: BayStore,
    private readonly memory: BayMemory,
    private readonly devices: () => Iterable<Device>,
    private readonly changed: () => void,
    private readonly log: Log,
  ) {}

  get now(): (Mounting & CarOnDyno) | null {
    return this.memory.now.mounted;
  }

  /** @throws Refusal when the setup is not one of the job */
  async mount({ jobId, setupId }: Mounting): Promise<void> {
    const car = await this.store.carOnDyno({ jobId, setupId });
    if (!car) throw new Refusal('That setup is not one of the job; open the job anew and try again.');
    await this.store.mount({ jobId, setupId });
    await this.memory.keep({ mounted: { jobId, setupId, ...car } });
    this.tell(this.devices());
    this.changed();
  }

  async unmount(): Promise<void> {
    await this.store.mount(null);
    await this.memory.keep({ mounted: null });
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
    await this.memory.keep({ mounted: { jobId, setupId, ...car } });
    this.tell(this.devices());
  }

  private say(problem: string | null): void {
    if (this.problem === problem) return;
    this.problem = problem;
    this.changed();
  }
}
