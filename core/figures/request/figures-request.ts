import type { StandardId } from '../../air/correction.ts';
import type { Span } from '../../smoothing/span.ts';
import type { UsualDrift } from '../../comparison/drift.ts';
import type { KnownDeviation } from '../../statistics/mean-difference.ts';
import type { SpreadPrior } from '../../statistics/spread-prior.ts';
import type { PowerUnit } from '../../units/units.ts';
import type { BorrowedCurve } from './borrowed-curve.ts';
import type { GuestRecord, JobRecord } from './job-record.ts';

/** How a job is looked at. Nothing of it is ever baked into what is stored. */
export interface FiguresView {
  standard: StandardId;
  /** 0 to 1: share of the correction that is applied. */
  share: number;
  /** Span of engine speed, rpm, or `auto`: the one with the least error on the baseline's runs, shared by all. */
  smoothing: Span | 'auto';
  /** Step of the engine-speed grid, rpm; the usual one where left out. */
  gridRpm?: number | undefined;
  /** Power and torque are estimated for the crank: with an assumed loss such as `15` or `12+3`, or that of a coast-down, by its label. */
  crank?: string | undefined;
  /** Setups, by id; the job's usual ones where left out. The baseline is drawn in ink; the test is compared with `againstId`. */
  baselineId?: number | undefined;
  testId?: number | undefined;
  againstId?: number | undefined;
  /** Compared with instead of a setup: a curve from elsewhere. */
  borrowed?: BorrowedCurve | undefined;
  /** Only these runs of either side, by id; all counted ones where left out. */
  testRuns?: readonly number[] | undefined;
  againstRuns?: readonly number[] | undefined;
  /** Bands that matter, chosen before their gain was seen, rpm. */
  bands?: readonly (readonly [number, number])[] | undefined;
  atRpm?: number | undefined;
  /** Which look this is, where it is told and not read out of the runs' times: `one` when nobody looked before. */
  look?: number | 'one' | undefined;
  /** Curves to look at while the rest is made: no comparison. */
  curvesOnly?: boolean | undefined;
  /** The comparison of every setup with its parent and with the baseline is wanted too. */
  everyPair?: boolean | undefined;
  /** The test's unsmoothed points are wanted too. */
  raw?: boolean | undefined;
  /** What is wanted beside the comparison: the ladder of steps, or the response to an item. */
  beside?: 'steps' | 'response' | undefined;
  /** Runs that are no power runs are wanted too, judged kind by kind. */
  tests?: boolean | undefined;
  /** Key of the item that a response is wanted to (`ignition/0`); the one with the most levels where left out. */
  respondTo?: string | undefined;
  /** Sentences name power in this unit. */
  powerUnit: PowerUnit;
}

/** What the shop has learned of its dyno and its cars; used beside what the job's own runs show. */
export interface Learned {
  /** Spread of repeats within a mounting. */
  spread?: SpreadPrior | undefined;
  /** From one mounting to the next, as a share of power. */
  remount?: KnownDeviation | undefined;
  /** Drift from run to run, in units of one run's spread. */
  drift?: UsualDrift | undefined;
}

export interface FiguresRequest {
  job: JobRecord;
  /** A setup of another job beside this one's; where it is there, it is what the test is compared with. */
  guest?: GuestRecord | undefined;
  view: FiguresView;
  learned?: Learned | undefined;
}
