import { correlate, halvedAutocovariance, noiseAutocovariance } from '../smoothing/noise.ts';
import type { RateWeights } from '../smoothing/rate-fit.ts';
import type { Span } from '../smoothing/span.ts';
import { thinnings, type SweepDrive } from './sweep-drive.ts';
import { levelAt, torqueAt, weightsAt } from './torque-fit.ts';

// Set by bench/accuracy.ts: the error against known truths, mean and worst.
/** The spans that *auto* chooses from, rpm. */
export const candidateSpans = [60, 80, 105, 140, 180, 240, 320, 420, 550, 720, 950, 1250, 1650, 2150] as const;
/** The span may change at this many knots along the range. */
const knots = 13;
/** Places between two knots at which the spans are compared. */
const placesPerKnot = 8;
/** A span is compared with this many next narrower ones: the noise of far narrower ones would drown its own loss. */
const compared = 2;
/** A difference between two spans counts as lost detail once it exceeds what noise explains by this many standard errors. */
const caution = 1;
/** Lost detail counts so many times noise: an owner misses a dip that is there sooner than one that is not. */
const detailWeight = 2;
/** What a step to the next span costs between neighbouring knots, in units of log risk. */
const stepCost = 0.1;

/** The span that *auto* stands for, jointly for the sweeps given, rpm. */
export function resolvedSpan(smoothing: Span | 'auto', runs: readonly SweepDrive[]): Span {
  if (smoothing !== 'auto') return smoothing;
  const [first] = runs;
  const kept = first && resolved.get(first);
  if (kept && kept.runs.length === runs.length && kept.runs.every((run, index) => run === runs[index]))
    return kept.span;
  const span = autoSpan(runs);
  if (first) resolved.set(first, { runs: [...runs], span });
  return span;
}

/** Spans found before, by the first sweep of their list: every change of another setting asks for the same list again. */
const resolved = new WeakMap<SweepDrive, { runs: readonly SweepDrive[]; span: Span }>();

/**
 * The spans that leave the least estimated error over the sweeps given, taken
 * together: for every span and stretch of the range, the noise it lets
 * through (from the noise as correlated as it is) plus the detail it loses
 * (what it differs by from the next narrower spans beyond what noise
 * explains). Neighbouring stretches change spans only where it pays.
 * Source: Goldenshluger and Lepski, Annals of Statistics 39 (2011) 1608,
 * applied stretch by stretch; the path along the range by dynamic programming.
 *
 * Every place is judged by the runs that reach it, so that one short run does
 * not narrow the spans of all others.
 *
 * @param runs at least one sweep of the same car; all share the span
 */
export function autoSpan(runs: readonly SweepDrive[]): Span {
  const [fromRpm, toRpm] = usualRange(runs);
  const spans = candidateSpans.filter((span) => span <= (toRpm - fromRpm) / 3);
  if (spans.length < 2) return candidateSpans[0];
  const noise = noiseAtKnots(runs, fromRpm, toRpm, spans);
  const squares = squaredDifferences(runs, fromRpm, toRpm, spans);
  const widthRpm = (toRpm - fromRpm) / (knots - 1);
  const risk = squares.map((atKnot, knot) => {
    const { variance, ofDifference } = noise[knot]!;
    return spans.map((_, k) => {
      let lost = 0;
      for (let j = Math.max(0, k - compared); j < k; j++) {
        const independent = Math.max(1, (knot === 0 || knot === knots - 1 ? 1 : 2) * (widthRpm / spans[j]!));
        const allowed = ofDifference[k]![j]! * (1 + caution * Math.sqrt(2 / independent));
        lost = Math.max(lost, atKnot[k]![j]! - allowed);
      }
      return detailWeight * lost + variance[k]!;
    });
  });
  const chosen = cheapestPath(risk).map((k) => spans[k]!);
  return chosen.every((span) => span === chosen[0]) ? chosen[0]! : { fromRpm, toRpm, spansRpm: chosen };
}

/**
 * The speeds that half of the runs cover or more, whole rpm: the middle one of
 * their starts and of their ends, the wider one of two. One short run, or one
 * revved further than the others, does not decide it.
 */
function usualRange(runs: readonly SweepDrive[]): readonly [number, number] {
  const ascending = (values: number[]) => values.sort((a, b) => a - b);
  const starts = ascending(runs.map(({ startRpm }) => startRpm));
  const ends = ascending(runs.map(({ endRpm }) => endRpm));
  return [Math.ceil(starts[(runs.length - 1) >> 1]!), Math.floor(ends[runs.length >> 1]!)];
}

/** The runs whose sweep reaches a speed; all where none does, as between two runs that share nothing. */
function covering<Run extends Pick<SweepDrive, 'startRpm' | 'endRpm'>>(
  runs: readonly Run[],
  rpm: number,
): readonly Run[] {
  const reaching = runs.filter(({ startRpm, endRpm }) => startRpm <= rpm && endRpm >= rpm);
  return reaching.length > 0 ? reaching : runs;
}

interface NoiseAtKnot {
  /** Of the torque that each span gives, (N·m)². */
  variance: number[];
  /** Of the difference of spans k and j. */
  ofDifference: number[][];
}

/** What the instruments' noise does to the mean of the runs' torques at each knot, for each span. */
function noiseAtKnots(
  runs: readonly SweepDrive[],
  fromRpm: number,
  toRpm: number,
  spans: readonly number[],
): NoiseAtKnot[] {
  const modelled = runs.map((run) => ({
    run,
    startRpm: run.startRpm,
    endRpm: run.endRpm,
    model: noiseModel(run),
  }));
  return Array.from({ length: knots }, (_, knot) => {
    const rpm = fromRpm + (knot / (knots - 1)) * (toRpm - fromRpm);
    const variance = spans.map(() => 0);
    const ofDifference = spans.map(() => spans.map(() => 0));
    const reaching = covering(modelled, rpm);
    const share = 1 / reaching.length ** 2;
    for (const { run, model } of reaching) {
      const made = new Map<string, RateWeights | undefined>();
      // A narrow span's weights may have been made already, when it was the wider one.
      const weightsOf = (k: number, level: number) => {
        const key = `${k} ${level}`;
        if (!made.has(key)) made.set(key, weightsAt(run, rpm, spans[k]!, level));
        return made.get(key);
      };
      spans.forEach((span, k) => {
        // Spans are compared on the traces that serve the wider one.
        const level = levelAt(run, rpm, span);
        const autocovariance = model[level]!;
        const wide = weightsOf(k, level);
        if (!wide) return;
        variance[k]! += share * varianceOf(autocovariance, wide);
        for (let j = Math.max(0, k - compared); j < k; j++) {
          const narrow = weightsOf(j, level);
          if (narrow) ofDifference[k]![j]! += share * varianceOf(autocovariance, difference(wide, narrow));
        }
      });
    }
    return { variance, ofDifference };
  });
}

/** The noise's autocovariance on the traces of each thinning. */
function noiseModel({ traces, stretches, corners, first }: SweepDrive): Float64Array[] {
  const { time, amount } = traces[0]!;
  const breaks = [...stretches.subarray(1, -1), ...corners].map((at) => at - first).sort((a, b) => a - b);
  let model = noiseAutocovariance(time, amount, breaks);
  const models = [model];
  while (models.length < thinnings) models.push((model = halvedAutocovariance(model)));
  return models;
}

function varianceOf(autocovariance: Float64Array, { weights }: RateWeights): number {
  const correlated = correlate(autocovariance, weights);
  let sum = 0;
  for (let index = 0; index < weights.length; index++) sum += weights[index]! * correlated[index]!;
  return Math.max(0, sum);
}

function difference(wide: RateWeights, narrow: RateWeights): RateWeights {
  const first = Math.min(wide.first, narrow.first);
  const end = Math.max(wide.first + wide.weights.length, narrow.first + narrow.weights.length);
  const weights = new Float64Array(end - first);
  wide.weights.forEach((weight, index) => (weights[wide.first - first + index]! += weight));
  narrow.weights.forEach((weight, index) => (weights[narrow.first - first + index]! -= weight));
  return { first, weights };
}

/** Squared differences of the mean torques of spans k and j around each knot, places near it counting most. */
function squaredDifferences(
  runs: readonly SweepDrive[],
  fromRpm: number,
  toRpm: number,
  spans: readonly number[],
): number[][][] {
  const places = (knots - 1) * placesPerKnot + 1;
  const sums = Array.from({ length: knots }, () => spans.map(() => spans.map(() => 0)));
  const weights = new Float64Array(knots);
  const torque = new Float64Array(spans.length);
  for (let place = 0; place < places; place++) {
    const rpm = fromRpm + (place / (places - 1)) * (toRpm - fromRpm);
    torque.fill(0);
    const reaching = covering(runs, rpm);
    for (const run of reaching) spans.forEach((span, k) => (torque[k]! += torqueAt(run, rpm, span) / reaching.length));
    const left = Math.min(knots - 2, Math.floor(place / placesPerKnot));
    const share = place / placesPerKnot - left;
    for (const [knot, weight] of [
      [left, 1 - share],
      [left + 1, share],
    ] as const) {
      weights[knot]! += weight;
      for (let k = 1; k < spans.length; k++) {
        for (let j = Math.max(0, k - compared); j < k; j++)
          sums[knot]![k]![j]! += weight * (torque[k]! - torque[j]!) ** 2;
      }
    }
  }
  return sums.map((atKnot, knot) => atKnot.map((row) => row.map((sum) => sum / weights[knot]!)));
}

/** The choice at each knot that makes the sum of log risks and of steps between neighbours least. */
function cheapestPath(risk: readonly (readonly number[])[]): number[] {
  // A span that no fit can be made with is no choice.
  const cost = risk.map((row) => row.map((value) => (Number.isNaN(value) ? 1e6 : Math.log(Math.max(value, 1e-12)))));
  const from: number[][] = [];
  let sums = cost[0]!;
  for (let knot = 1; knot < cost.length; knot++) {
    const origins = cost[knot]!.map((_, k) => {
      let best = 0;
      for (let j = 1; j < sums.length; j++) {
        if (sums[j]! + stepCost * Math.abs(k - j) < sums[best]! + stepCost * Math.abs(k - best)) best = j;
      }
      return best;
    });
    const earlier = sums;
    sums = cost[knot]!.map((knotCost, k) => knotCost + earlier[origins[k]!]! + stepCost * Math.abs(k - origins[k]!));
    from.push(origins);
  }
  const path = [sums.indexOf(Math.min(...sums))];
  for (let knot = from.length - 1; knot >= 0; knot--) path.unshift(from[knot]![path[0]!]!);
  return path;
}
