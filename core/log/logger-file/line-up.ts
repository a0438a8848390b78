import { sampleAt } from '../../numerics/sample-at.ts';
import { firstNotBelow, interpolate } from '../../numerics/interpolation.ts';
import { pickedAt, seriesOf } from '../../numerics/picked.ts';
import { Refusal } from '../../refusal.ts';

/** Engine speed as one instrument saw it, on its own clock. */
export interface SpeedTrace {
  /** s, rising. */
  time: Float64Array;
  rpm: Float64Array;
}

/** How a logger's clock lies on the dyno's: dyno time = logger time + `shiftS`. */
export interface LineUp {
  shiftS: number;
  /** Correlation of the two engine-speed traces where they overlap. */
  correlation: number;
  /** Usual distance between them there, % of the mean. */
  residualPercent: number;
  overlapS: number;
}

// Set by bench/logs.ts: the error of the lined-up clock.
/** Traces are compared at this rate, Hz, and must overlap for so long, s. */
const rateHz = 50;
const leastOverlapS = 4;
/** A fit poorer than this is refused. */
const leastCorrelation = 0.985;
const mostResidualPercent = 3;
/** Another place that fits nearly as well makes the answer ambiguous: by how much its residual must exceed the best, and how far off it lies, s. */
const clearlyWorse = 1.15;
const apartS = 1;

/**
 * Lays a logger's engine speed over the dyno's: the shift of least distance
 * over all overlaps, refined below a sample by the parabola through its
 * neighbours. Both must show one pull with its rise and fall; a trace that is
 * steady, or another run's, is refused.
 *
 * @throws Refusal with the reason
 */
export function lineUp(dyno: SpeedTrace, logger: SpeedTrace): LineUp {
  const a = resampled(dyno);
  const b = resampled(logger);
  const least = Math.ceil(leastOverlapS * rateHz);
  if (a.length < least || b.length < least) {
    throw new Refusal(
      `The traces are too short to be lined up: ${leastOverlapS} s of engine speed are needed in both.`,
    );
  }
  const candidates: { lag: number; square: number }[] = [];
  for (let lag = least - b.length; lag <= a.length - least; lag++)
    candidates.push({ lag, square: distance(a, b, lag) });
  const best = candidates.reduce((least, other) => (other.square < least.square ? other : least));
  const rival = candidates.find(
    ({ lag, square }) =>
      Math.abs(lag - best.lag) > apartS * rateHz && Math.sqrt(square) < clearlyWorse * Math.sqrt(best.square),
  );
  const [before, after] = [distance(a, b, best.lag - 1), distance(a, b, best.lag + 1)];
  const bend = before - 2 * best.square + after;
  const fine = bend > 0 ? Math.max(-0.5, Math.min(0.5, (before - after) / 2 / bend)) : 0;
  const overlap = overlapOf(a, b, best.lag);
  const correlation = correlationOf(a, b, best.lag);
  const mean = meanOf(a, Math.max(0, best.lag), overlap);
  const found = {
    shiftS: sampleAt(dyno.time, 0) - sampleAt(logger.time, 0) + (best.lag + fine) / rateHz,
    correlation,
    residualPercent: (100 * Math.sqrt(best.square)) / mean,
    overlapS: overlap / rateHz,
  };
  if (!(correlation >= leastCorrelation) || found.residualPercent > mostResidualPercent) {
    throw new Refusal(
      `The logger’s engine speed does not fit the dyno’s (correlation ${Number.isNaN(correlation) ? 'none' : correlation.toFixed(3)}, ${found.residualPercent.toFixed(1)} % apart): it is another run’s, or a trace is faulty. It was not lined up.`,
    );
  }
  if (rival) {
    throw new Refusal(
      'The logger’s engine speed fits the dyno’s in more than one place: the traces are too steady to tell. It was not lined up.',
    );
  }
  return found;
}

/** A trace without the samples in which nothing was read. */
export function whole({ time, rpm }: SpeedTrace): SpeedTrace {
  if (rpm.every((value) => !Number.isNaN(value))) return { time, rpm };
  const kept = Array.from(rpm.keys()).filter((index) => !Number.isNaN(sampleAt(rpm, index)));
  return {
    time: pickedAt(time, kept),
    rpm: pickedAt(rpm, kept),
  };
}

function resampled({ time, rpm }: SpeedTrace): Float64Array {
  const count = time.length > 1 ? Math.floor((sampleAt(time, time.length - 1) - sampleAt(time, 0)) * rateHz) : 0;
  return seriesOf(count, (index) => {
    const [from, to] = [sampleAt(time, 0) + (index - 0.5) / rateHz, sampleAt(time, 0) + (index + 0.5) / rateHz];
    // A fast trace is averaged, a slow one drawn through.
    const [first, end] = [firstNotBelow(time, from), firstNotBelow(time, to)];
    if (end - first < 2) return interpolate(time, rpm, (from + to) / 2);
    let sum = 0;
    for (let at = first; at < end; at++) sum += sampleAt(rpm, at);
    return sum / (end - first);
  });
}

function overlapOf(a: Float64Array, b: Float64Array, lag: number): number {
  return Math.min(a.length, b.length + lag) - Math.max(0, lag);
}

/** Mean square distance over the overlap. */
function distance(a: Float64Array, b: Float64Array, lag: number): number {
  const first = Math.max(0, lag);
  const count = overlapOf(a, b, lag);
  if (count < 2) return Infinity;
  let sum = 0;
  for (let index = first; index < first + count; index++) sum += (sampleAt(a, index) - sampleAt(b, index - lag)) ** 2;
  return sum / count;
}

function meanOf(values: Float64Array, first: number, count: number): number {
  let sum = 0;
  for (let index = first; index < first + count; index++) sum += sampleAt(values, index);
  return sum / count;
}

function correlationOf(a: Float64Array, b: Float64Array, lag: number): number {
  const first = Math.max(0, lag);
  const count = overlapOf(a, b, lag);
  const [meanA, meanB] = [meanOf(a, first, count), meanOf(b, first - lag, count)];
  let [ab, aa, bb] = [0, 0, 0];
  for (let index = first; index < first + count; index++) {
    const [x, y] = [sampleAt(a, index) - meanA, sampleAt(b, index - lag) - meanB];
    ab += x * y;
    aa += x * x;
    bb += y * y;
  }
  return ab / Math.sqrt(aa * bb);
}
