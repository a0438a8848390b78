import { Refusal } from '../../core/refusal.ts';

/** Reports are made in so many places at once, the others in turn: each takes a core, and memory of its own. */
export class ReportPlaces {
  private readonly waiting: (() => void)[] = [];

  constructor(private free = 2) {}

  /**
   * Does work once there is a place for it.
   * @param signal of who waits: gone before their turn they take none
   * @throws Refusal where it was cancelled before its turn
   */
  async use<T>(signal: AbortSignal, work: () => Promise<T>): Promise<T> {
    if (this.free > 0) this.free--;
    else await new Promise<void>((resolve) => this.waiting.push(resolve));
    try {
      if (signal.aborted) throw new Refusal('It was cancelled. Nothing was stored.');
      return await work();
    } finally {
      const next = this.waiting.shift();
      if (next) next();
      else this.free++;
    }
  }
}
