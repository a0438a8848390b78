import type { Units } from '../units/told-units.ts';
import type { LaneAxisId } from './lane-axis.ts';

/** A setup as far as the lanes draw it. */
export interface DrawnSetup {
  id: number;
  letter: string;
}

/** How a job's figures are drawn: which setups, over what, in which units. */
export interface SceneView {
  test: DrawnSetup;
  against: DrawnSetup;
  baseline: DrawnSetup;
  /** What it is compared with does not belong to this job; as it is called. */
  elsewhere?: { name: string } | undefined;
  /** Labels of the only runs compared. */
  runs?: readonly string[] | undefined;
  againstRuns?: readonly string[] | undefined;
  /** Setups shown beside those compared, and those not shown: letters. */
  also: readonly string[];
  hide: readonly string[];
  /** Whose single runs are drawn. */
  singles: 'test' | 'all' | 'none';
  /** The test's unsmoothed points are drawn. */
  raw: boolean;
  axis: LaneAxisId;
  lanes: readonly string[];
  /** Shown large: the usual lanes alone. */
  presenting: boolean;
  bands: readonly { fromRpm: number; toRpm: number }[];
  units: Units;
}

/** Whether a setup's line is usually drawn, or was asked for. */
export function isWanted(
  { id, letter }: DrawnSetup,
  view: Pick<SceneView, 'test' | 'against' | 'baseline' | 'also'>,
): boolean {
  return [view.test.id, view.against.id, view.baseline.id].includes(id) || view.also.includes(letter);
}

/** Whether it was taken away; the compared setup's never is. */
export function isHidden({ id, letter }: DrawnSetup, view: Pick<SceneView, 'test' | 'hide'>): boolean {
  return id !== view.test.id && view.hide.includes(letter);
}
