import digamma from '@stdlib/math-base-special-digamma';
import trigamma from '@stdlib/math-base-special-trigamma';
import { fallingRoot } from '../numerics/root.ts';
import type { DynoKind, MachineKind } from '../dyno/dyno-profile.ts';

/**
 * What is known of the spread of repeats before a job's own runs tell of it: a
 * scaled inverse χ² distribution of the variance.
 */
export interface SpreadPrior {
  /** Standard deviation of a run's mean power, as a share of it. */
  share: number;
  /** Degrees of freedom that the knowledge is worth. */
  df: number;
  /** Learned from earlier repeats, or a default of the kind of dyno. */
  from: 'learned' | 'assumed';
  /** The upper end of a default's range: a claim that rests on the default must hold there, too. */
  upperShare?: number | undefined;
  /** Runs that were learned from, and how many of them this very car made. */
  repeats?: number | undefined;
  ofVehicle?: number | undefined;
}

/** Repeats of one setup in an earlier job. */
export interface Repeats {
  runs: number;
  /** Standard deviation of their mean power, as a share of it. */
  share: number;
  /** Of the very car that is asked about. */
  sameVehicle?: boolean | undefined;
  /** How they changed from run to run. */
  slope?: RepeatsSlope | undefined;
}

/** A steady change within repeats, by their place in the session. */
export interface RepeatsSlope {
  /** From one run of the session to the next, as a share of power. */
  perRun: number;
  /** Scatter of the places, Σ(place − mean)²: how much they tell of it. */
  placeScatter: number;
}

// Chosen by bench/experiments.ts over cars whose spread is 0.2 to 0.8 %: coverage, false claims, gains found.
const assumed: Record<MachineKind, { share: number; upperShare: number }> = {
  'inertia-roller': { share: 0.004, upperShare: 0.0065 },
  'loaded-roller': { share: 0.004, upperShare: 0.0065 },
  hub: { share: 0.004, upperShare: 0.0065 },
};
const assumedDf = 3;
/** Spreads of earlier jobs below this are readings rounded to nothing: they would break the logarithm. */
const leastShare = 1e-5;
/** One or two earlier jobs tell little of how spreads differ: worth no more than this. */
const mostDfOfFew = 4;
const fewJobs = 3;

/** The default of a kind of dyno, for a shop without a history. */
export function assumedSpread(kind: DynoKind): SpreadPrior {
  // No power is made of a run from the road.
  return { ...assumed[kind === 'road' ? 'loaded-roller' : kind], df: assumedDf, from: 'assumed' };
}

/**
 * Learns the spread of repeats from earlier ones: a scaled inverse χ² fitted to
 * the logarithms of their variances by moments. Spreads that differ no more
 * from one another than chance makes them are worth all their degrees of freedom.
 * Earlier repeats of the same car are taken as repeats of its own:
 * s² = (ν₀·s₀² + Σνᵢ·sᵢ²)/(ν₀ + Σνᵢ).
 * Source: Smyth, Statistical Applications in Genetics and Molecular Biology 3 (2004) 3, §6.2.
 *
 * @returns undefined where no setup was repeated
 */
export function learnedSpread(history: readonly Repeats[]): SpreadPrior | undefined {
  const known = history.filter(({ runs, share }) => runs > 1 && share > leastShare);
  const [ofVehicle, others] = [
    known.filter(({ sameVehicle }) => sameVehicle),
    known.filter(({ sameVehicle }) => !sameVehicle),
  ];
  const prior = fittedSpread(others);
  if (ofVehicle.length === 0) return prior;
  // What this car has shown itself counts as repeats of its own.
  if (!prior) return fittedSpread(ofVehicle);
  const df = ofVehicle.reduce((sum, { runs }) => sum + runs - 1, 0);
  const square = ofVehicle.reduce((sum, { runs, share }) => sum + (runs - 1) * share ** 2, 0);
  const together = prior.df + df;
  return {
    share: Math.sqrt((prior.df * prior.share ** 2 + square) / together),
    df: together,
    from: 'learned',
    repeats: (prior.repeats ?? 0) + df + ofVehicle.length,
    ofVehicle: df + ofVehicle.length,
  };
}

function fittedSpread(known: readonly Repeats[]): SpreadPrior | undefined {
  if (known.length === 0) return undefined;
  const all = known.reduce((sum, { runs }) => sum + runs - 1, 0);
  const repeats = known.reduce((sum, { runs }) => sum + runs, 0);
  const logs = known.map(({ runs, share }) => {
    const half = (runs - 1) / 2;
    return { value: 2 * Math.log(share) - digamma(half) + Math.log(half), chance: trigamma(half) };
  });
  const mean = logs.reduce((sum, { value }) => sum + value, 0) / logs.length;
  const scatter =
    logs.reduce(
      (sum, { value, chance }) => sum + (value - mean) ** 2 * (logs.length / Math.max(1, logs.length - 1)) - chance,
      0,
    ) / logs.length;
  const fitted = scatter > 0 ? 2 * inverseTrigamma(scatter) : Infinity;
  const df = Math.min(fitted, all, known.length < fewJobs ? mostDfOfFew : Infinity);
  const share = Math.exp((mean + (Number.isFinite(fitted) ? digamma(fitted / 2) - Math.log(fitted / 2) : 0)) / 2);
  return { share, df, from: 'learned', repeats };
}

/** @param value above 0; Infinity where it is as good as nothing */
function inverseTrigamma(value: number): number {
  const [low, high] = [-9, 10];
  const above = (logX: number) => Math.log(trigamma(Math.exp(logX))) - Math.log(value);
  if (above(high) > 0) return Infinity;
  return above(low) < 0 ? Math.exp(low) : Math.exp(fallingRoot(above, low, high));
}
