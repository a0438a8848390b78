import { sampleAt } from '../numerics/sample-at.ts';
import { holmAdjusted } from '../statistics/holm.ts';
import type { MeanDifference } from '../statistics/mean-difference.ts';
import { simultaneousT, supremumProbability } from '../statistics/simultaneous.ts';
import { survivesDrift, usualDrift, type Drift, type UsualDrift } from './drift.ts';
import type { RunCurve } from './run-curve.ts';
import type { Surroundings } from './surroundings.ts';
import type { GainBand } from './gain-band.ts';
import { mayClaim, paidFor, shareNow, type JudgingRule } from './judging-rule.ts';
import { stretchesClearOfZero, type ClearStretch } from './clear-stretches.ts';
import type { Verdict } from './verdict.ts';

/** A range that was chosen before its gain was seen: a band that matters, or the whole common range. */
export interface ChosenRange {
  fromRpm: number;
  toRpm: number;
  difference: MeanDifference;
  /** Its probability at the time when the plan was full, where more runs were made since. */
  pAtCompletion?: number | undefined;
  /** What run order says of this range's gain; undefined where it says nothing. */
  drift: Drift | undefined;
}

/** What may be said of a comparison. Over all comparisons, at most one in twenty says anything that is wrong. */
export interface Claims {
  /** Verdicts on the chosen ranges, in their order. */
  verdicts: Verdict[];
  /** Chosen ranges whose gain drift alone might have made: figures, no verdict. */
  driftSuspected: boolean;
  /** Clear stretches found in the data. */
  clearStretches: ClearStretch[];
}

/**
 * How the chance of a wrong claim is divided: the ranges chosen beforehand have most of it, the stretches found in the
 * data the rest.
 */
const stretchesWeight = 0.1;

/** All claims of one comparison share this chance of a wrong one. */
const level = 0.05;

/** How claims are made: what the looks cost, and which drift is reckoned with. */
export interface ClaimRule {
  judging: JudgingRule;
  drift: UsualDrift;
  /** 1/n₁ + 1/n₂ of the runs compared. */
  perMean: number;
}

/** The rule for two sets of runs; without a drift of their own the usual one of a dyno without a history. */
export function claimRule(
  judging: JudgingRule,
  { drift = usualDrift }: Surroundings,
  test: readonly RunCurve[],
  baseline: readonly RunCurve[],
): ClaimRule {
  return { judging, drift, perMean: 1 / test.length + 1 / baseline.length };
}

/**
 * Decides what a comparison may say. The chosen ranges share most of the chance
 * of a wrong claim, by Holm's rule; the stretches found in the data have the
 * rest, and all of it once every range is called. So *any* wrong claim has a
 * chance of 5 %, and what is said of the ranges needs no search along them: a card
 * says the same as the whole comparison. Where run order cannot tell drift from
 * change, a claim must survive taking the drift out.
 * Source: Bretz, Maurer, Brannath and Posch, Statistics in Medicine 28 (2009) 586.
 */
export function claimsOf(ranges: readonly ChosenRange[], band: GainBand | undefined, rule: ClaimRule): Claims {
  const largest = band ? largestT(band) : NaN;
  const { judging } = rule;
  const share = shareNow(judging);
  const { paid, verdicts } = verdictsOn(ranges, rule);
  const stretchesLevel = paid.every((one) => one <= level) ? level : level * stretchesWeight;
  const stretchesP =
    band && !Number.isNaN(largest) && ranges[0]?.difference.from !== 'assumed'
      ? supremumProbability(largest, band.kappaRad, band.df) / share
      : NaN;
  const driftSuspected = verdicts.includes('drift suspected');
  if (!band || !(stretchesP <= stretchesLevel) || driftSuspected || !mayClaim(judging))
    return { verdicts, driftSuspected, clearStretches: [] };
  return {
    verdicts,
    driftSuspected,
    clearStretches: stretchesClearOfZero(band, simultaneousT(1 - share * stretchesLevel, band.kappaRad, band.df)),
  };
}

/** The verdicts on all chosen ranges together, and the level at which each would be called just so. */
function verdictsOn(ranges: readonly ChosenRange[], rule: ClaimRule): { paid: number[]; verdicts: Verdict[] } {
  const weight = rangesWeight(ranges[0]);
  const adjusted = holmAdjusted(ranges.map((range) => paidOf(range, rule.judging)));
  const paid = adjusted.map((one) => one / weight);
  const each = (level * weight) / Math.max(1, ranges.length);
  return { paid, verdicts: ranges.map((range, index) => verdictOn(range, paid[index]! <= level, each, rule)) };
}

/** What the ranges share of the level: all of it where an assumed spread lets no stretch be tested. */
const rangesWeight = (first: ChosenRange | undefined) =>
  first?.difference.from === 'assumed' ? 1 : 1 - stretchesWeight;

/**
 * The verdict on the first of the chosen ranges, the same as the whole
 * comparison gives it, and the probability that it is made at, looks and ranges paid for.
 */
export function firstVerdict(
  ranges: readonly [ChosenRange, ...ChosenRange[]],
  rule: ClaimRule,
): { verdict: Verdict; paid: number } {
  const { paid, verdicts } = verdictsOn(ranges, rule);
  return { verdict: verdicts[0]!, paid: Math.min(1, paid[0]!) };
}

function paidOf({ difference, pAtCompletion }: ChosenRange, judging: JudgingRule, p = difference.pValue): number {
  return paidFor(judging, p, pAtCompletion);
}

/** @param ownLevel what the range may be called at by itself */
function verdictOn(range: ChosenRange, called: boolean, ownLevel: number, rule: ClaimRule): Verdict {
  const { difference, drift } = range;
  const { pValue, plainPValue } = difference;
  if (Number.isNaN(pValue)) return 'unknown';
  if (!mayClaim(rule.judging)) return 'plan not full';
  if (!called) {
    const byDefault = plainPValue < pValue && paidOf(range, rule.judging, plainPValue) <= ownLevel;
    if (byDefault) return 'spread assumed';
    // What is shown to exclude zero is never said to be within repeatability.
    return Math.abs(difference.difference) > difference.halfWidth ? 'clear alone' : 'within repeatability';
  }
  if (drift && !standsInDrift(drift, difference, rule)) return 'drift suspected';
  return difference.difference > 0 ? 'gain' : 'loss';
}

/** Whether a difference stands when the drift is taken out as far as it can be told. */
export function standsInDrift(
  drift: Drift,
  { asMeasured, standardDeviation }: Pick<MeanDifference, 'asMeasured' | 'standardDeviation'>,
  rule: ClaimRule,
): boolean {
  return survivesDrift(drift, asMeasured, standardDeviation, rule.perMean, rule.drift);
}

function largestT({ gain, standardError }: GainBand): number {
  let most = 0;
  for (let index = 0; index < gain.length; index++) {
    const t = Math.abs(sampleAt(gain, index)) / sampleAt(standardError, index);
    if (Number.isNaN(t)) return NaN;
    if (t > most) most = t;
  }
  return most;
}
