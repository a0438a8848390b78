import type { MeanCurve } from '../comparison/run-curve.ts';
import { askedFigure, curveNamed, type AskedFigure } from '../curve/asked-figure.ts';
import { meanOf } from '../numerics/mean.ts';

/** What somebody says that a setup will make, before it ran; kW, N·m or kPa. */
export interface Forecast extends AskedFigure {
  who: string;
  /** The same twice for a single value. */
  low: number;
  high: number;
}

/** What came of a forecast: the mean of the setup's counted runs; undefined where its runs do not cover it. */
export function forecastOutcome(
  forecast: Forecast,
  curves: Record<'power' | 'torque', MeanCurve> & { boost?: MeanCurve },
): number | undefined {
  return askedFigure(forecast, curves[curveNamed(forecast.quantity)]);
}

/** A forecast with what came of it. */
export type ScoredForecast = Pick<Forecast, 'who' | 'low' | 'high'> & { actual: number };

/** How one person's forecasts came out. */
export interface Calibration {
  who: string;
  forecasts: number;
  /** Ranges that were given, and how many held what came. */
  ranges: number;
  held: number;
  /** Mean distance of the middle from what came, as a share of it, and its mean with its sign: above 0 is too high. */
  meanMiss: number;
  bias: number;
}

const middle = ({ low, high }: Pick<Forecast, 'low' | 'high'>) => (low + high) / 2;
const missOf = (one: ScoredForecast) => (middle(one) - one.actual) / one.actual;

/** Who forecasts well: the least mean distance first. */
export function calibrations(scored: readonly ScoredForecast[]): Calibration[] {
  const people = [...new Set(scored.map(({ who }) => who))];
  return people
    .map((who): Calibration => {
      const own = scored.filter((one) => one.who === who && one.actual !== 0);
      const ranges = own.filter(({ low, high }) => high > low);
      return {
        who,
        forecasts: own.length,
        ranges: ranges.length,
        held: ranges.filter(({ low, high, actual }) => actual >= low && actual <= high).length,
        meanMiss: meanOf(own.map((one) => Math.abs(missOf(one)))),
        bias: meanOf(own.map(missOf)),
      };
    })
    .sort((one, other) => one.meanMiss - other.meanMiss);
}
