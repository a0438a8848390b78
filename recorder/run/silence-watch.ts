import type { Device } from '../devices/device.ts';

/**
 * A dyno that says nothing for this long during a run has stopped, ms; one that sends again what it read meanwhile has
 * longer, for as long as it would be waited for after a broken connection, and no longer however often it connects.
 */
const silenceMs = { lasting: 4000, resuming: 10_500 };

/** Tells when an instrument has fallen silent during a run. */
export class SilenceWatch {
  private timer: NodeJS.Timeout | undefined;

  /** @param silent is called once nothing has come for too long */
  constructor(
    private readonly device: Pick<Device, 'resumes'>,
    private readonly silent: () => void,
  ) {}

  /** Something has come: the time begins anew. */
  heard(): void {
    this.stop();
    const timer = setTimeout(() => this.judge(timer), this.device.resumes ? silenceMs.resuming : silenceMs.lasting);
    this.timer = timer;
  }

  stop(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
  }

  /** A process that was held up reads what lies in its sockets first: what comes now begins the time anew. */
  private judge(timer: NodeJS.Timeout): void {
    setImmediate(() =>
      setImmediate(() => {
        if (this.timer === timer) this.silent();
      }),
    );
  }
}
