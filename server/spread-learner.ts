import type { CurveView } from '../core/figures/curve-of-run.ts';
import { loneCurve } from './lone-curve.ts';
import type { Log } from '../contract/log.ts';
import type { Database } from '../store/database.ts';
import { setTimeout as pause } from 'node:timers/promises';
import type { WorkQueue } from './work-queue.ts';
import { keepPower, nextWithoutPower, type RunPower } from '../store/run-power.ts';
import { runById } from '../store/runs.ts';

/** It is looked so often whether a run's power is wanting, ms. */
const lookMs = 30_000;
/** Pages come first: a pause after every run, ms. */
const pauseMs = 100;
/** So long at most for one piece of work of the queue, ms: what is left is the next one. */
const pieceMs = 60_000;
/** All runs alike, so that their spread is theirs: SAE J1349 and one smoothing, wide enough for a mean. */
const view: CurveView = { standard: 'sae-j1349', share: 1, smoothing: 300, gridRpm: 50 };

/**
 * Keeps what the shop knows of the spread of repeats up to date: makes the
 * power of counted runs one at a time while nothing is recorded, and stores
 * it. Of several servers one does it, whichever is free.
 */
export class SpreadLearner {
  private timer: NodeJS.Timeout | undefined;

  /** @param busy whether a run is being recorded: nothing is made then */
  constructor(
    private readonly database: Database,
    private readonly busy: () => boolean,
    private readonly log: Log,
  ) {}

  /** @param everyMs how often it is looked whether there is anything to do */
  async start(queue: WorkQueue, everyMs = lookMs): Promise<void> {
    await queue.work('run-powers', (signal) => this.learnAll(signal));
    this.timer = setInterval(() => void this.look(queue), everyMs);
    this.timer.unref();
  }

  stop(): void {
    clearInterval(this.timer);
  }

  /** Makes one run's power. @returns false where there is none left */
  async learnOne(): Promise<boolean> {
    const id = await nextWithoutPower(this.database);
    if (id === undefined) return false;
    await keepPower(this.database, id, (await powerOf(this.database, id)) ?? null);
    return true;
  }

  /** Makes what is wanting, until a run is recorded, the server stops, or others may want their turn. */
  private async learnAll(signal: AbortSignal): Promise<void> {
    const until = Date.now() + pieceMs;
    let made = 0;
    while (!signal.aborted && !this.busy() && Date.now() < until && (await this.learnOne())) {
      made++;
      await pause(pauseMs);
    }
    if (made > 0) this.log.info({ made }, 'powers of runs were made for the spread of repeats');
  }

  private async look(queue: WorkQueue): Promise<void> {
    if (this.busy()) return;
    // With the database away there is nothing to do; it is told of elsewhere.
    const wanting = await nextWithoutPower(this.database).catch(() => undefined);
    if (wanting !== undefined) await queue.ask('run-powers');
  }
}

async function powerOf(database: Database, id: number): Promise<RunPower | undefined> {
  const run = await runById(database, id);
  const curve = run && (await loneCurve(database, run, view));
  if (!curve) return undefined;
  const { engineSpeedRpm, powerKw } = curve;
  return {
    fromRpm: engineSpeedRpm[0]!,
    stepRpm: engineSpeedRpm[1]! - engineSpeedRpm[0]!,
    powerKw: Array.from(powerKw),
  };
}
