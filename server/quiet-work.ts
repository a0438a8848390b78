import { setTimeout as pause } from 'node:timers/promises';
import type { WorkKind, WorkQueue } from './work-queue.ts';

/** So long at most for one piece of work of the queue, ms: what is left is the next one. */
const pieceMs = 60_000;

/** Work that nobody waits for, one thing after the other. */
export interface QuietKind {
  /** Its name in the queue of all servers. */
  queue: WorkKind;
  /** It is looked so often whether anything is wanting, ms. */
  everyMs: number;
  /** Pages come first: a pause after each thing, ms. */
  pauseMs: number;
  /** What is wanting; undefined for nothing. */
  wanting: () => Promise<unknown>;
  /** Makes one thing. @returns false where there is none left, or the server stops */
  makeOne: (signal: AbortSignal) => Promise<boolean>;
  /** Told after each piece how much of it was made. */
  made?: (count: number) => void;
}

/**
 * Looks now and then whether something is wanting, asks the queue for it, and makes it while nothing is recorded. Of
 * several servers one does it, whichever is free.
 */
export class QuietWork {
  private timer: NodeJS.Timeout | undefined;

  /** @param busy whether a run is being recorded: nothing is made then */
  constructor(
    private readonly kind: QuietKind,
    private readonly busy: () => boolean,
  ) {}

  /** @param everyMs in the place of the kind's own */
  async start(queue: WorkQueue, everyMs = this.kind.everyMs): Promise<void> {
    await queue.work(this.kind.queue, (signal) => this.makeAll(signal));
    this.timer = setInterval(() => void this.look(queue), everyMs);
    this.timer.unref();
  }

  stop(): void {
    clearInterval(this.timer);
  }

  /** Makes what is wanting, until a run is recorded, the server stops, or others may want their turn. */
  private async makeAll(signal: AbortSignal): Promise<void> {
    const { makeOne, pauseMs, made } = this.kind;
    const until = Date.now() + pieceMs;
    let count = 0;
    while (!signal.aborted && !this.busy() && Date.now() < until && (await makeOne(signal))) {
      count++;
      await pause(pauseMs);
    }
    if (count > 0) made?.(count);
  }

  private async look(queue: WorkQueue): Promise<void> {
    if (this.busy()) return;
    // With the database away there is nothing to do; it is told of elsewhere.
    const wanting = await this.kind.wanting().catch(() => undefined);
    if (wanting !== undefined) await queue.ask(this.kind.queue);
  }
}
