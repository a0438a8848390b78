import type { TestFigures } from './runs/kinds-of-job.ts';
import type { NumericItem } from '../setup/item.ts';
import type { NextRun } from '../judgement/next-run.ts';
import type { TargetFigures } from '../targets/target.ts';
import type { HeadroomNow } from './runs/limits-of-runs.ts';
import type { SpreadPrior } from '../statistics/spread-prior.ts';
import type { SetupFigures } from './pairs/setup-figures.ts';
import type { MeanCurve } from '../comparison/run-curve.ts';
import type { ComparisonFigures } from './pairs/comparison-figures.ts';
import type { UnusableRun, RunFigures } from './runs/figured-run.ts';
import type { Span } from '../smoothing/span.ts';
import type { Unlikeness } from '../likeness/run-conditions.ts';
import type { Attribution } from '../comparison/attribution.ts';
import type { PlaneFigures } from '../response/plane-figures.ts';
import type { NoResponse, Response } from '../response/response.ts';

/** Everything that is shown of a job: by the page, the command line, the interface to programs, exports. */
export interface JobFigures {
  /** The setups that were looked at, by id: those asked for, else the job's usual ones. */
  sides: { baselineId: number; testId: number; againstId: number };
  spanRpm: Span;
  /** Least and greatest correction factor among the runs shown; absent when there is no run. */
  factors?: [number, number];
  /** What power and torque rest on where they are estimated for the crank; absent for figures at the wheels. */
  estimate?: string;
  /** Why there is no estimate for the crank, where one was asked for: the figures are those at the wheels. */
  noEstimate?: string;
  runs: RunFigures[];
  /** Runs that no curve can be made of, and why. */
  unusable: UnusableRun[];
  setups: SetupFigures[];
  comparison?: ComparisonFigures;
  /** Every setup against its parent and the baseline, where that was asked for. */
  pairs?: ComparisonFigures[];
  /** Spread of repeats as it was known before the job's own. */
  spread: SpreadPrior;
  /** The setup that gives most of those that may be called so; absent where there is none. */
  bestId?: number;
  /** What to run next, and why. */
  next: NextRun;
  /** The borrowed curve that the setup is compared with. */
  borrowed?: Record<'power' | 'torque', MeanCurve>;
  /** How far it may be off by the way it was traced, half of its 95 % interval, kW. */
  borrowedErrorKw?: number;
  /** The norm of one figure that the setup is held against, on the scale that is shown. */
  norm?: { name: string; kw: number };
  /** What is left to the job's limits in the test setup's last counted run; absent without limits or runs. */
  headroom?: HeadroomNow;
  /** Where the setups stand against what the owner wants; absent where no target was set. */
  targets?: TargetFigures[];
  /** Why there is no comparison, as a sentence. */
  noComparison?: string;
  /** What each step on the way to the test setup gave, where it was asked for. */
  attribution?: Attribution & {
    /** Why the total is not one of like with like; absent where it is. */ notAlike?: Unlikeness;
  };
  /** Runs that are no power runs, kind by kind, where they were asked for. */
  tests?: TestFigures;
  /** Numeric items that runs were made at several levels of, and the response to one of them, where it was asked for. */
  varied?: { key: string; label: string; levels: number }[];
  /** Pairs of items that setups differ in alone or together, and what one of them gives, likewise. */
  planes?: { key: string; label: string; points: number }[];
  plane?: PlaneFigures;
  response?: {
    key: string;
    label: string;
    unit: string;
    found: Response | NoResponse;
    /** Letters of setups whose level is not known: they are left out. */
    unknown: string[];
    /** The item itself, without its step. */
    item: NumericItem;
  };
}
