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
    private readonly device: Pick<Device, 'resumes' | 'rows'>,
    private readonly silent: () => void,
  ) {}

  /** Something has come: the time begins anew. */
  heard(): void {
    this.stop();
    const { rows } = this.device;
    this.timer = setTimeout(() => this.judge(rows), this.device.resumes ? silenceMs.resuming : silenceMs.lasting);
  }

  stop(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
  }

  /** A process that was held up reads what lies in its sockets first, and judges then. */
  private judge(rows: number): void {
    const { timer } = this;
    setImmediate(() =>
      setImmediate(() => {
        if (this.timer !== timer) return;
        if (this.device.rows !== rows) this.heard();
        else this.silent();
      }),
    );
  }
}
