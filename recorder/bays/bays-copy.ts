import type { Log } from '../../contract/values/service-log.ts';
import type { RecorderMemory, RememberedBay } from '../memory/recorder-memory.ts';
import type { BayStore } from '../database/recorder-store.ts';

/** While the database is away it is asked again this often, ms. */
const retryMs = 500;

/**
 * The database's copy of the bays, for a recorder that begins anew and for the
 * rule that a setup on a dyno is not removed. The recorder's own memory counts.
 */
export class BaysCopy {
  private again: NodeJS.Timeout | undefined;
  private stopped = false;

  constructor(
    private readonly store: BayStore,
    private readonly memory: RecorderMemory,
    private readonly log: Log,
  ) {}

  /** Writes the bays as they would be after a change. @throws when the database does not take them */
  async first(bays: readonly RememberedBay[]): Promise<void> {
    await this.store.keepBays(bays.map(stored));
  }

  /** Brings the copy up to what is remembered, now or when the database is back. Never rejects. */
  async follow(told = false): Promise<void> {
    clearTimeout(this.again);
    try {
      await this.first(this.memory.now.bays);
    } catch (error) {
      if (!told) this.log.warn({ err: error }, 'the database’s copy of the bays waits');
      if (!this.stopped) this.again = setTimeout(() => void this.follow(true), retryMs).unref();
    }
  }

  stop(): void {
    this.stopped = true;
    clearTimeout(this.again);
  }
}

const stored = ({ bay, name, mounted, plan }: RememberedBay) => ({
  bay,
  name,
  mounted: mounted && { jobId: mounted.jobId, setupId: mounted.setupId },
  plan,
});
