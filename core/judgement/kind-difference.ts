import { meanOf } from '../numerics/mean.ts';
import type { ComparedKind } from '../run-kinds/figures-of-kind.ts';
import type { RunFigure } from '../run-kinds/run-figure.ts';
import { meanDifference, type MeanDifference } from '../statistics/mean-difference.ts';
import { studentT, twoSidedProbability } from '../statistics/student-t.ts';

/** Degrees of freedom of an interval that rests on one run's own blocks. */
const blockDf = 4;

/** A figure as one run gave it. */
export type ReadFigure = Pick<RunFigure, 'value' | 'halfWidth' | 'resolution'>;

/** A figure of two setups and how sure its difference is; NaN where nothing tells that. */
export interface FigureDifference {
  before: number;
  after: number;
  difference: number;
  halfWidth: number;
  pValue: number;
}

/**
 * The difference of a figure by the spread of repeats, never less than one run's
 * own interval allows, nor than the step that it is told in.
 * @param alike the figure in runs of other setups, a list each: they tell of the spread
 */
export function figureDifference(
  kind: ComparedKind,
  shape: Pick<RunFigure, 'digits'>,
  first: readonly ReadFigure[],
  second: readonly ReadFigure[],
  alike: readonly (readonly ReadFigure[])[],
): FigureDifference {
  const step = finestOf(shape, [...first, ...second]);
  const plain = (values: readonly ReadFigure[]) => values.map(({ value }) => value);
  const found = meanDifference(plain(second), plain(first), { alike: alike.map(plain) });
  const means = { before: meanOf(plain(first)), after: meanOf(plain(second)), difference: found.difference };
  const own = Math.sqrt(
    [first, second].reduce(
      (sum, side) => sum + side.reduce((all, { halfWidth }) => all + halfWidth ** 2, 0) / side.length ** 2,
      0,
    ),
  );
  if (Number.isNaN(found.halfWidth)) {
    // Within a cruise the blocks count its drift. Of other kinds nothing within one run tells how repeats differ: their
    // figures are shown and never claimed.
    if (kind !== 'cruise') return { ...means, halfWidth: own > 0 ? Math.max(own, step) : NaN, pValue: NaN };
    return { ...means, halfWidth: own, pValue: ownProbability(found.difference, own) };
  }
  const stepped = asStepped(found, step, 1 / first.length + 1 / second.length);
  // Repeats that happen to agree closely do not make the mean surer than one run's own interval.
  if (own > stepped.halfWidth)
    return { ...means, halfWidth: own, pValue: Math.max(stepped.pValue, ownProbability(found.difference, own)) };
  return { ...means, ...stepped };
}

/** The coarsest step of the values compared, and never finer than what is written of them. */
const finestOf = ({ digits }: Pick<RunFigure, 'digits'>, values: readonly ReadFigure[]) =>
  Math.max(10 ** -digits, ...values.map(({ resolution }) => resolution));

/**
 * Interval and probability of a difference of values that are told in steps: a
 * value is known no better than to a step, whose spread, evenly spread over it,
 * is step ÷ √12; and repeats that fall on the same step have not shown that
 * they agree. A difference of a step or less is none.
 */
function asStepped(
  { difference, standardDeviation, df, halfWidth, pValue }: MeanDifference,
  step: number,
  perMean: number,
): { halfWidth: number; pValue: number } {
  const least = (step / Math.sqrt(12)) * Math.sqrt(perMean);
  const error = Math.max(least, standardDeviation * Math.sqrt(perMean));
  const wider = Math.max(halfWidth, studentT(0.95, df) * error, step);
  // Where the steps fell may make a step's difference by itself.
  const shown = Math.abs(difference) > step * (1 + 1e-9);
  return { halfWidth: wider, pValue: shown ? Math.max(pValue, twoSidedProbability(difference / error, df)) : 1 };
}

/** Of a difference with an interval of few degrees of freedom. */
export const ownProbability = (difference: number, halfWidth: number) =>
  twoSidedProbability((difference / halfWidth) * studentT(0.95, blockDf), blockDf);
