import type { MeanDifference } from '../statistics/mean-difference.ts';

/** What a change was expected to give: mean power over a range, kW, against its parent. */
export interface Prediction {
  gainKw: number;
  /** The whole common range where none is named. */
  fromRpm: number | null;
  toRpm: number | null;
}

export type PredictionScore = 'open' | 'held' | 'too high' | 'too low' | 'wrong way';

/**
 * How a prediction came out: it held when it lies inside the measured gain's
 * 95 % interval; open while there is no interval; the wrong way round when
 * the measured gain is clear of zero on the other side.
 */
export function scorePrediction(
  { gainKw }: Pick<Prediction, 'gainKw'>,
  measured: Pick<MeanDifference, 'difference' | 'halfWidth'> | undefined,
): PredictionScore {
  if (!measured || Number.isNaN(measured.halfWidth)) return 'open';
  const { difference, halfWidth } = measured;
  if (Math.abs(gainKw - difference) <= halfWidth) return 'held';
  const clear = Math.abs(difference) > halfWidth;
  if (clear && gainKw !== 0 && Math.sign(gainKw) !== Math.sign(difference)) return 'wrong way';
  return gainKw > difference ? 'too high' : 'too low';
}
