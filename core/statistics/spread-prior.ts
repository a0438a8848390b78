import type { DynoKind, MachineKind } from '../dyno/dyno-profile.ts';
import { belonging, fittedVariances, together } from './variance-prior.ts';

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
  /** Repeats that scatter so much more than all others that they were left out. */
  leftOut?: readonly string[] | undefined;
}

/** Repeats of one setup in an earlier job. */
export interface Repeats {
  runs: number;
  /** Standard deviation of their mean power, as a share of it. */
  share: number;
  /** Whose they are, such as `B of 14 May 2026`, and of which car; the latter does not leave the shop. */
  of?: string | undefined;
  car?: string | undefined;
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
/** One or two earlier jobs tell little of how spreads differ: worth no more than this. */
const mostDfOfFew = 4;
const fewJobs = 3;
/** However many jobs there were, the next car is of another kind: they are worth no more than this. */
const mostDf = 60;

/** The default of a kind of dyno, for a shop without a history. */
export function assumedSpread(kind: DynoKind): SpreadPrior {
  // No power is made of a run from the road.
  return { ...assumed[kind === 'road' ? 'loaded-roller' : kind], df: assumedDf, from: 'assumed' };
}

/**
 * Learns the spread of repeats from earlier ones: a scaled inverse χ² of their
 * variances (`fittedVariances`). Spreads that differ no more from one another
 * than chance makes them are worth all their degrees of freedom. What plainly
 * is no repeat of the same thing (a run that was cut) is left out and named.
 * Earlier repeats of the same car are taken as repeats of its own:
 * s² = (ν₀·s₀² + Σνᵢ·sᵢ²)/(ν₀ + Σνᵢ).
 *
 * @returns undefined where no setup was repeated
 */
export function learnedSpread(history: readonly Repeats[]): SpreadPrior | undefined {
  const repeated = history.flatMap((repeats) =>
    repeats.runs > 1 && repeats.share > 0 ? [{ ...repeats, variance: repeats.share ** 2, df: repeats.runs - 1 }] : [],
  );
  const expected = { variance: assumed['loaded-roller'].share ** 2, df: assumedDf };
  const kept = belonging(repeated, expected);
  const ofOthers = kept.filter(({ sameVehicle }) => !sameVehicle);
  const ofVehicle = kept.filter(({ sameVehicle }) => sameVehicle);
  const prior = fittedSpread(ofOthers);
  const leftOut = repeated.flatMap((one) =>
    kept.includes(one) || one.of === undefined ? [] : [one.car ? `${one.car}, ${one.of}` : one.of],
  );
  const named = leftOut.length > 0 ? { leftOut } : {};
  if (ofVehicle.length === 0) return prior && { ...prior, ...named };
  // What this car has shown itself counts as repeats of its own.
  if (!prior) {
    const alone = fittedSpread(ofVehicle);
    return alone && { ...alone, ...named };
  }
  const { variance, df } = together([{ variance: prior.share ** 2, df: prior.df }, ...ofVehicle]);
  const runsOfVehicle = ofVehicle.reduce((sum, { runs }) => sum + runs, 0);
  return {
    share: Math.sqrt(variance),
    df,
    from: 'learned',
    repeats: (prior.repeats ?? 0) + runsOfVehicle,
    ofVehicle: runsOfVehicle,
    ...named,
  };
}

function fittedSpread(known: readonly { variance: number; df: number }[]): SpreadPrior | undefined {
  if (known.length === 0) return undefined;
  const all = known.reduce((sum, { df }) => sum + df, 0);
  const { variance, df } = fittedVariances(known);
  return {
    share: Math.sqrt(variance),
    df: Math.min(df, all, known.length < fewJobs ? mostDfOfFew : mostDf),
    from: 'learned',
    repeats: all + known.length,
  };
}
