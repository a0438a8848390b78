import type { StandardId } from '../air/correction.ts';
import type { AskedFigure } from '../curve/asked-figure.ts';

/** What the owner wants a setup to make at least: kW, N·m or kPa. */
export interface Target extends AskedFigure {
  id: number;
  value: number;
  /** Whose figure it is; null for boost, which has no scale. */
  scale: 'wheels' | 'crank' | null;
  /** The standard that it is wanted under, whatever is shown; null for boost, and of old targets: as shown. */
  standard: StandardId | null;
}

/**
 * `reached`: the whole interval lies at the target or above. `short`: all of it below. `open`: the runs
 * do not tell yet. `not covered`: none was driven there, or the quantity was not recorded. `no air`: the
 * target's standard asks for it, and no run has any.
 */
export type TargetStanding = 'reached' | 'short' | 'open' | 'not covered' | 'no air';

/**
 * Where a figure stands against a target.
 * @param here what the target reads on the scale of the figure; both ends the same where that is known
 * @param halfWidth of the figure's 95 % interval; undefined where nothing tells of it: then only a clear answer
 *   for every spread would do, and there is none
 */
export function targetStanding(
  here: readonly [least: number, most: number],
  made: number | undefined,
  halfWidth: number | undefined,
): TargetStanding {
  if (made === undefined) return 'not covered';
  if (halfWidth === undefined) return 'open';
  if (made - halfWidth >= here[1]) return 'reached';
  return made + halfWidth < here[0] ? 'short' : 'open';
}

/** What one setup made of a target: the mean of its counted runs that were driven there. */
export interface TargetOfSetup {
  setupId: number;
  runs: number;
  /** kW, N·m or kPa, and half of its 95 % interval; absent where nothing tells of it. */
  made?: number;
  halfWidth?: number;
  standing: TargetStanding;
}

export interface TargetFigures {
  id: number;
  /** What the target reads on the scale that is shown: a range where only the usual losses tell; undefined where nothing does. */
  here: readonly [least: number, most: number] | undefined;
  /** Every setup with counted runs, in the job's order. */
  setups: TargetOfSetup[];
}
