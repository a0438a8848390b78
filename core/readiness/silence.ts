/** Whoever is listened to is heard of again and again; this tells when they no longer are. */
export class Silence {
  private ticks = 0;
  private since = 0;
  private said = false;

  /**
   * @param afterMs nothing heard for so long is silence
   * @param tickMs how often `tick` is called
   */
  constructor(
    private readonly afterMs: number,
    private readonly tickMs: number,
  ) {}

  /** Something was heard. @returns whether that ended a silence */
  heard(): boolean {
    const ended = this.said;
    [this.ticks, this.said] = [0, false];
    return ended;
  }

  /**
   * Time has passed, by the listener's own timer: while that stands still, what was said is waiting to be read.
   * @param nowMs since 1970
   * @returns whether a silence has just begun
   */
  tick(nowMs: number): boolean {
    if (this.ticks === 0) this.since = nowMs - this.tickMs;
    this.ticks++;
    if (this.said || this.ticks * this.tickMs <= this.afterMs) return false;
    this.said = true;
    return true;
  }

  /** Since when nothing has been heard, ms since 1970; undefined while there is no silence. */
  get sinceMs(): number | undefined {
    return this.said ? this.since : undefined;
  }
}
