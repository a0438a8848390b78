/** Does something at once after a quiet moment, and no more often than its pace while much happens. */
export class Pace {
  private timer: NodeJS.Timeout | undefined;
  private doneMs = -Infinity;

  constructor(
    private readonly everyMs: number,
    private readonly act: () => void,
  ) {}

  /** It is to be done; asked again before it was, it is done once. */
  plan(): void {
    const waitMs = Math.max(0, this.doneMs + this.everyMs - performance.now());
    this.timer ??= setTimeout(() => {
      this.timer = undefined;
      this.doneMs = performance.now();
      this.act();
    }, waitMs);
  }

  stop(): void {
    clearTimeout(this.timer);
  }
}
