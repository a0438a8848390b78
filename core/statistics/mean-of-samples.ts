import { scatterOf } from '../numerics/mean.ts';
import { sampleAt } from '../numerics/sample-at.ts';
import { autoregressiveCovariance, independentIn } from '../smoothing/noise.ts';
import { studentT } from './student-t.ts';

/** A mean over a stretch, its scatter, and the half width of its 95 % interval with the samples as correlated as they are. */
export interface MeanOfSamples {
  mean: number;
  sd: number;
  halfWidth: number;
}

// Set by bench/coverage.ts: stretches of 3 to 20 s whose reading wanders for 0.1 to 1 s.
/** Cosines that the slow scatter is measured by: so many, times the two-thirds power of how many samples are independent. */
const cosines = 0.7;
const leastCosines = 2;
/** For that number, samples are taken as related over so many, and their relation is continued by so many times that. */
const memorySamples = 40;
const continued = 6;

/**
 * The mean of samples that follow one another evenly. What its scatter comes to over the stretch is the mean square
 * of its slowest cosines, which are nearly independent however the samples hang together; Student's t with as many
 * degrees of freedom. Right while the reading wanders for less than about a tenth of the stretch; slower, it cannot
 * be told from the mean.
 * Source: Lazarus, Lewis, Stock and Watson, Journal of Business & Economic Statistics 36 (2018) 541 (equal-weighted cosines).
 */
export function meanOfSamples(values: Float64Array): MeanOfSamples {
  const count = values.length;
  const mean = values.reduce((sum, value) => sum + value, 0) / count;
  const residuals = values.map((value) => value - mean);
  const sd = Math.sqrt(scatterOf(values) / Math.max(1, count - 1));
  const wanted = Math.round(cosines * independentOf(residuals) ** (2 / 3));
  const used = Math.min(Math.floor(count / 2), Math.max(leastCosines, wanted));
  if (used < 1) return { mean, sd, halfWidth: NaN };
  let square = 0;
  for (let wave = 1; wave <= used; wave++) {
    let along = 0;
    for (let at = 0; at < count; at++)
      along += sampleAt(residuals, at) * Math.cos((Math.PI * wave * (at + 0.5)) / count);
    square += (2 / count) * along ** 2;
  }
  return { mean, sd, halfWidth: studentT(0.95, used) * Math.sqrt(square / used / count) };
}

/** How many independent samples these are worth, by an autoregressive model of them; too coarse for an interval. */
function independentOf(residuals: Float64Array): number {
  const count = residuals.length;
  const memory = Math.max(1, Math.min(memorySamples, Math.floor(count / 10)));
  const constant = new Float64Array(count).fill(1 / Math.sqrt(count));
  const gamma = autoregressiveCovariance(residuals, memory, Math.min(count - 1, continued * memory), [constant]);
  return independentIn(gamma, count);
}
