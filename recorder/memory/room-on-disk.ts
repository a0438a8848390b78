/** How often the free space is looked at, ms. */
const everyMs = 5000;
/** With this many times the floor left, it is said that room runs short. */
const shortAt = 2;
/** With this share of the floor left, a run that goes on is ended while its end can still be written down. */
const lastShare = 0.25;

/** Watches the free space where recordings go, so that recording stops in good time and with a sentence. */
export class RoomOnDisk {
  private free = Infinity;
  private readonly timer: NodeJS.Timeout;

  /**
   * @param floorBytes with less than this no run begins
   * @param freeBytes asks the disk
   * @param onChange is told whenever it has been looked at
   */
  constructor(
    private readonly floorBytes: number,
    private readonly freeBytes: () => Promise<number>,
    private readonly onChange: () => void,
  ) {
    this.timer = setInterval(() => void this.look(), everyMs);
    this.timer.unref();
  }

  async look(): Promise<void> {
    // A disk that does not say is not full by that: a write that fails is told by the spool.
    this.free = await this.freeBytes().catch(() => Infinity);
    this.onChange();
  }

  stop(): void {
    clearInterval(this.timer);
  }

  /** Why no run may begin; null when one may. */
  refusal(): string | null {
    if (this.free >= this.floorBytes) return null;
    return `Only ${megabytes(this.free)} are free on the recorder’s disk: no run is begun below ${megabytes(this.floorBytes)}. Make room, then go on; everything recorded so far is kept.`;
  }

  /** What is to be said now; null when there is room. */
  warning(): string | null {
    const short = `${megabytes(this.free)} are left on the recorder’s disk; below ${megabytes(this.floorBytes)} no run is begun. Make room soon.`;
    return this.refusal() ?? (this.free < shortAt * this.floorBytes ? short : null);
  }

  /** There is hardly room left for the end of what is being recorded. */
  get atTheEnd(): boolean {
    return this.free < lastShare * this.floorBytes;
  }
}

const megabytes = (bytes: number): string => `${Math.floor(bytes / 2 ** 20)} MB`;
