import { sampleAt } from '../numerics/sample-at.ts';
import { satterthwaite } from '../statistics/mean-difference.ts';
import { simultaneousT, turning } from '../statistics/simultaneous.ts';
import { withLoneSides } from '../statistics/lone-side.ts';
import { movedT } from '../statistics/moved-t.ts';
import { studentT } from '../statistics/student-t.ts';
import { commonSpeeds, covers, meanCurve, valuesAt, type RunCurve } from './run-curve.ts';
import { allowanceFor, leastDeviationKw, narrowing, type Surroundings } from './surroundings.ts';
import { meanOf } from '../numerics/mean.ts';
import { seriesOf } from '../numerics/picked.ts';

/** The difference of two sets of runs over engine speed, and how sure it is. All arrays of one length. */
export interface GainBand {
  engineSpeedRpm: Float64Array;
  test: Float64Array;
  baseline: Float64Array;
  gain: Float64Array;
  /** Standard error of the gain, widened for the drift that there may be; NaN without a spread. */
  standardError: Float64Array;
  /** Spread of single runs, for the repeatability of the baseline. */
  standardDeviation: Float64Array;
  df: number;
  /** Radians that the scatter turns along the range. */
  kappaRad: number;
  /** Standard errors that hold for all speeds of the range at once, and at each by itself, with the level asked for. */
  criticalT: number;
  pointwiseT: number;
  /** 95 % of further single runs of the baseline lie within its mean ± this. */
  repeatability: Float64Array;
}

// Set by bench/experiments.ts: coverage of the intervals, and claims where nothing changed.
/** The spread at a speed is averaged over this share of the range to each side: few runs tell little of it by themselves. */
const spreadReach = 0.25;
/** With a single residual the scatter's stiffness cannot be seen; it is taken to turn this much. */
const unknownKappaRad = 6;

/**
 * Mean difference over the range that all runs of both sides cover, with what
 * a simultaneous 95 % band needs. Spread is taken relative to power and
 * averaged along the range, its degrees of freedom with it; for how stiff the
 * runs' scatter is, see `simultaneousT`.
 *
 * @param alike further setups' runs; those that cover the range lend their scatter
 * @param ownSpreads each side keeps its own spread (Welch), as the band means' did
 * @returns undefined when the runs share no range
 */
export function gainBand(
  test: readonly RunCurve[],
  baseline: readonly RunCurve[],
  alike: readonly (readonly RunCurve[])[],
  ownSpreads: boolean,
  around: Surroundings = {},
): GainBand | undefined {
  const { spread, remount, level = 0.95 } = around;
  const speeds = commonSpeeds([...test, ...baseline]);
  if (!speeds) return undefined;
  const [from, to] = [sampleAt(speeds, 0), sampleAt(speeds, speeds.length - 1)];
  const sides = [test, baseline].map((runs) => scatterOf(runs, speeds));
  const others = ownSpreads
    ? []
    : alike.map((runs) =>
        scatterOf(
          runs.filter((run) => covers(run, from, to)),
          speeds,
        ),
      );
  const all = [...sides, ...others];
  const baselineMean = meanCurve(baseline, speeds).values;
  const testMean = meanCurve(test, speeds).values;
  const residuals = all.flatMap((group) => group.residuals);
  const residualDf = all.reduce((sum, group) => sum + group.df, 0);
  const kappaRad = residualDf >= 2 ? turning(ownSpreads ? standardised(sides) : residuals) : unknownKappaRad;
  const smooth = (square: Float64Array) => alongRange(square, baselineMean);
  const gained = independentAlong(kappaRad);
  const perSide = sides.map((group) => ({ ...group, square: smooth(group.square) }));
  const pooled = smooth(pooledSquare(all, speeds.length));
  // While few runs tell of it, the spread at one speed is the assumed one: that of a mean, and of shape beside it.
  const priorDf = spread?.df ?? 0;
  const middleMean = baselineMean.map((kw, index) => (kw + sampleAt(testMean, index)) / 2);
  const before = middleMean.map((kw) => (spread ? narrowing(0) * (spread.share * kw) ** 2 + leastDeviationKw ** 2 : 0));
  // What the averaging along the range tells counts as such: a car that scatters in shape soon has its own spread.
  const together = (own: Float64Array, ownDf: number) =>
    own.map((value, index) =>
      ownDf > 0
        ? (priorDf * sampleAt(before, index) + ownDf * gained * value) / (priorDf + ownDf * gained)
        : sampleAt(before, index),
    );
  const single = together(pooled, residualDf);
  const perMean = 1 / test.length + 1 / baseline.length;
  const ownSides = perSide.map((side) => together(side.square, side.df));
  const square = speeds.map((_, index) =>
    ownSpreads
      ? sampleAt(ownSides[0]!, index) / test.length + sampleAt(ownSides[1]!, index) / baseline.length
      : sampleAt(single, index) * perMean,
  );
  const middle = speeds.length >> 1;
  const within = ownSpreads
    ? satterthwaite(
        [sampleAt(ownSides[0]!, middle) / test.length, priorDf + perSide[0]!.df * gained],
        [sampleAt(ownSides[1]!, middle) / baseline.length, priorDf + perSide[1]!.df * gained],
      )
    : withLoneSides({ df: priorDf + residualDf * gained, told: residualDf }, [test.length, baseline.length]);
  const added = middleMean.map((kw) => (remount ? 2 * (remount.standardDeviation * kw) ** 2 : 0));
  const addedMiddle = sampleAt(added, middle);
  const df =
    remount && addedMiddle > 0 && within > 0
      ? satterthwaite([sampleAt(square, middle), within], [addedMiddle, remount.df])
      : within;
  const usable = df > 0;
  // A new mounting moves a curve up or down as a whole and does not change its shape.
  const shareTurning = addedMiddle > 0 ? sampleAt(square, middle) / (sampleAt(square, middle) + addedMiddle) : 1;
  const pointwiseT = usable ? studentT(level, df) : NaN;
  // The band holds with the drift that there may be, as the interval of a mean does.
  const moved = (allowanceFor(around, test, baseline)?.most ?? 0) / Math.sqrt(perMean);
  const drifted = usable ? movedT(level, df, moved) / pointwiseT : 1;
  const baselineSpread = ownSpreads ? ownSides[1]! : single;
  return {
    engineSpeedRpm: speeds,
    test: testMean,
    baseline: baselineMean,
    gain: testMean.map((value, index) => value - sampleAt(baselineMean, index)),
    standardError: square.map((value, index) => (usable ? drifted * Math.sqrt(value + sampleAt(added, index)) : NaN)),
    standardDeviation: single.map(Math.sqrt),
    df,
    kappaRad,
    criticalT: usable ? simultaneousT(level, kappaRad * Math.sqrt(shareTurning), df) : NaN,
    pointwiseT,
    repeatability: baselineSpread.map(
      (value) => (usable ? studentT(0.95, df) : NaN) * Math.sqrt(value * (1 + 1 / baseline.length)),
    ),
  };
}

interface Scatter {
  residuals: Float64Array[];
  /** Variance at each speed; NaN for fewer than two runs. */
  square: Float64Array;
  df: number;
}

function scatterOf(runs: readonly RunCurve[], speeds: Float64Array): Scatter {
  const df = runs.length - 1;
  if (df < 1) return { residuals: [], square: speeds.map(() => NaN), df: 0 };
  const values = runs.map((run) => valuesAt(run, speeds));
  const mean = speeds.map((_, index) => meanOf(values.map((run) => sampleAt(run, index))));
  const residuals = values.map((run) => run.map((value, index) => value - sampleAt(mean, index)));
  return { residuals, square: speeds.map((_, index) => sumOfSquares(residuals, index) / df), df };
}

function sumOfSquares(residuals: readonly Float64Array[], index: number): number {
  let sum = 0;
  for (const run of residuals) sum += sampleAt(run, index) ** 2;
  return sum;
}

function pooledSquare(groups: readonly Scatter[], places: number): Float64Array {
  const df = groups.reduce((sum, group) => sum + group.df, 0);
  const residuals = groups.flatMap((group) => group.residuals);
  return seriesOf(places, (index) => (df > 0 ? sumOfSquares(residuals, index) / df : NaN));
}

/** Residuals in units of their own side's spread, so that the noisier side does not hide the other. */
function standardised(sides: readonly Scatter[]): Float64Array[] {
  return sides.flatMap(({ residuals, square }) => {
    const mean = Math.sqrt(meanOf(square)) || 1;
    return residuals.map((run) => run.map((value) => value / mean));
  });
}

/** A variance averaged along the range with triangular weights, as a share of power squared. */
function alongRange(square: Float64Array, power: Float64Array): Float64Array {
  const count = square.length;
  const reach = Math.max(1, Math.round(spreadReach * count));
  const relative = square.map((value, index) => value / Math.max(sampleAt(power, index) ** 2, 1e-12));
  const weight = seriesOf(reach + 1, (away) => 1 - away / (reach + 1));
  const result = new Float64Array(count);
  for (let at = 0; at < count; at++) {
    let sum = sampleAt(relative, at);
    let weights = 1;
    for (let away = 1; away <= reach; away++) {
      if (at >= away) {
        sum += sampleAt(weight, away) * sampleAt(relative, at - away);
        weights += sampleAt(weight, away);
      }
      if (at + away < count) {
        sum += sampleAt(weight, away) * sampleAt(relative, at + away);
        weights += sampleAt(weight, away);
      }
    }
    result[at] = (sum / weights) * sampleAt(power, at) ** 2;
  }
  return result;
}

/**
 * How many independent looks at the spread the averaging along the range is
 * worth: with correlation exp(−λd²/2) along it, ∫w² · √(π/λ) is what is left
 * of a variance's own variance, w the triangular weights.
 */
function independentAlong(kappaRad: number): number {
  return Math.max(1, (1.5 * spreadReach * kappaRad) / Math.sqrt(Math.PI));
}
