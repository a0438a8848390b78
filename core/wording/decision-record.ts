import type { FamilyPair } from '../judgement/job-claims.ts';
import { scorePrediction, type PredictionScore } from '../setup/prediction.ts';
import type { SpreadPrior } from '../statistics/spread-prior.ts';
import { difference as differenceOf, written } from '../sentence/sentence.ts';
import { keptUnits, type Units } from '../units/told-units.ts';
import { spokenRpm } from '../units/spoken.ts';
import { jobClaimWords, ruleWords, spreadWords, type Letters } from './judgement-words.ts';

/** How a prediction came out. */
export const predictionWords = {
  held: 'prediction right',
  'too high': 'prediction too high',
  'too low': 'prediction too low',
  'wrong way': 'prediction wrong',
} as const satisfies Record<Exclude<PredictionScore, 'open'>, string>;

/** What a decision on a setup can rest on. */
export interface DecidedOn {
  /** On the setup that it was changed from; undefined where nothing could be compared. */
  pair: FamilyPair | undefined;
  letters: Letters;
  /** Setups that are judged together. */
  among: number;
  spread: SpreadPrior;
  /** Null where none was written, or where it does not belong to these figures. */
  predictionKw: number | null;
  /** What figures for the crank rest on; undefined at the wheels. */
  estimate?: string | undefined;
}

/**
 * What is kept with a decision: the figure, the claim, the rule it was made by
 * and what its spread was known from, in the words of this moment and the
 * units of whoever decides.
 */
export function decisionRecord(
  { pair, letters, among, spread, predictionKw, estimate }: DecidedOn,
  units: Units = keptUnits,
): string {
  if (!pair) return '';
  const { difference, halfWidth, from } = pair.difference;
  const power = (kw: number, half = NaN) => written(differenceOf(kw, half, 'kW', 1), units);
  const claim = jobClaimWords(pair, among, letters) || `${pair.claim} shown`;
  const known = from === 'learned' || from === 'assumed' ? spreadWords(spread) : 'from the job’s own repeats';
  const score =
    predictionKw === null || pair.uncovered.length > 0
      ? 'open'
      : scorePrediction({ gainKw: predictionKw }, pair.difference);
  return [
    `${letters.test} on ${letters.against} ${power(difference, halfWidth)} from ${spokenRpm(pair.fromRpm)} to ${spokenRpm(pair.toRpm)} rpm${estimate === undefined ? '' : `, ≈ at the crank (${estimate})`}, ${claim}`,
    `interval ${ruleWords(pair.judging)}`,
    `spread ${known}`,
    ...(score === 'open' || predictionKw === null
      ? []
      : [`expected ${power(predictionKw)}: ${predictionWords[score]}`]),
  ].join('; ');
}
