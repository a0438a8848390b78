import type { CurveView } from '../core/figures/curve-of-run.ts';
import { loneCurve } from './lone-curve.ts';
import type { Log } from '../contract/log.ts';
import type { Database } from '../store/database.ts';
import { keepPower, nextWithoutPower, type RunPower } from '../store/run-power.ts';
import { runById } from '../store/runs.ts';

/** After the start, and once all is done, it waits so long, ms; between two runs, and while one is recorded, shorter. */
const idleMs = 30_000;
const betweenMs = 250;
/** All runs alike, so that their spread is theirs: SAE J1349 and one smoothing, wide enough for a mean. */
const view: CurveView = { standard: 'sae-j1349', share: 1, smoothing: 300, gridRpm: 50 };

/**
 * Keeps what the shop knows of the spread of repeats up to date: makes the
 * power of counted runs one at a time while nothing is recorded, and stores it.
 */
export class SpreadLearner {
  private timer: NodeJS.Timeout | undefined;
  private stopped = false;
  private working: Promise<void> = Promise.resolve();

  /** @param busy whether a run is being recorded: nothing is made then */
  constructor(
    private readonly database: Database,
    private readonly busy: () => boolean,
    private readonly log: Log,
  ) {}

  start(inMs = idleMs): void {
    this.plan(inMs);
  }

  /** Waits for the run at hand; nothing is begun after it. */
  async stop(): Promise<void> {
    this.stopped = true;
    clearTimeout(this.timer);
    await this.working;
  }

  /** Makes one run's power. @returns false where there is none left */
  async learnOne(): Promise<boolean> {
    const id = await nextWithoutPower(this.database);
    if (id === undefined) return false;
    await keepPower(this.database, id, (await powerOf(this.database, id)) ?? null);
    return true;
  }

  private plan(inMs: number): void {
    if (this.stopped) return;
    this.timer = setTimeout(() => {
      this.working = this.work();
    }, inMs);
    this.timer.unref();
  }

  private async work(): Promise<void> {
    let next = idleMs;
    try {
      if (this.busy() || (await this.learnOne())) next = betweenMs;
    } catch (error) {
      this.log.warn({ err: error }, 'the spread of repeats was not learned from a run; it is tried again');
    }
    this.plan(next);
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
