import { isTheEngines } from '../core/checks/check.ts';
import type { CurveView } from '../core/figures/curve-of-run.ts';
import { loneCurve } from './lone-curve.ts';
import type { Log } from '../contract/values/service-log.ts';
import type { Database } from '../store/database/database.ts';
import { QuietWork } from './quiet-work.ts';
import { keepPower, nextWithoutPower, type RunPower } from '../store/runs/run-power.ts';
import { runById } from '../store/runs/runs.ts';

/** It is looked so often whether a run's power is wanting, ms. */
const lookMs = 30_000;
/** Pages come first: a pause after every run, ms. */
const pauseMs = 100;
/** All runs alike, so that their spread is theirs: SAE J1349 and one smoothing, wide enough for a mean. */
const view: CurveView = { standard: 'sae-j1349', share: 1, smoothing: 300, gridRpm: 50 };

/** Keeps what the shop knows of the spread of repeats up to date: makes the power of counted runs one at a time, and stores it. */
export class SpreadLearner extends QuietWork {
  /** @param busy whether a run is being recorded: nothing is made then */
  constructor(
    private readonly database: Database,
    busy: () => boolean,
    log: Log,
  ) {
    super(
      {
        queue: 'run-powers',
        everyMs: lookMs,
        pauseMs,
        wanting: () => nextWithoutPower(database),
        makeOne: () => this.learnOne(),
        made: (made) => log.info({ made }, 'powers of runs were made for the spread of repeats'),
      },
      busy,
    );
  }

  /** Makes one run's power. @returns false where there is none left */
  async learnOne(): Promise<boolean> {
    const id = await nextWithoutPower(this.database);
    if (id === undefined) return false;
    await keepPower(this.database, id, (await powerOf(this.database, id)) ?? null);
    return true;
  }
}

async function powerOf(database: Database, id: number): Promise<RunPower | undefined> {
  const run = await runById(database, id);
  const curve = run && (await loneCurve(database, run, view));
  if (!curve || !isTheEngines(curve.checks)) return undefined;
  const { engineSpeedRpm, powerKw } = curve;
  return {
    fromRpm: engineSpeedRpm[0]!,
    stepRpm: engineSpeedRpm[1]! - engineSpeedRpm[0]!,
    powerKw: Array.from(powerKw),
  };
}
