import { holm } from '../statistics/holm.ts';
import type { MeanDifference } from '../statistics/mean-difference.ts';
import { simultaneousT, supremumProbability } from '../statistics/simultaneous.ts';
import type { Drift } from './drift.ts';
import type { GainBand } from './gain-band.ts';
import { stretchesClearOfZero, type ClearStretch } from './clear-stretches.ts';
import type { Verdict } from './verdict.ts';

/** A range that was chosen before its gain was seen: a band that matters, or the whole common range. */
export interface ChosenRange {
  fromRpm: number;
  toRpm: number;
  difference: MeanDifference;
  /** What run order says of this range's gain; undefined where it says nothing. */
  drift: Drift | undefined;
}

/** What may be said of a comparison, so that anything at all is said wrongly in at most one of twenty. */
export interface Claims {
  /** Verdicts on the chosen ranges, in their order. */
  verdicts: Verdict[];
  /** Chosen ranges whose gain drift alone might have made: figures, no verdict. */
  driftSuspected: boolean;
  /** Clear stretches found in the data. */
  clearStretches: ClearStretch[];
}

/** All claims of one comparison share this chance of a wrong one; the ranges chosen beforehand take most of it. */
const level = 0.05;
const stretchesWeight = 0.2;
/** A drift that cannot be told from the change must leave this share of it standing. */
const leftByDrift = 0.4;

/**
 * Decides what a comparison may say. The chosen ranges and the stretches found in
 * the data are tested together by Holm's rule with weights, so that *any*
 * wrong claim has a chance of 5 %: the ranges share four fifths of it, the
 * stretches have the rest and what the ranges leave them. Where run order cannot
 * tell drift from change, a claim must survive taking the drift out, in sign
 * and in two fifths of its size.
 */
export function claimsOf(ranges: readonly ChosenRange[], band: GainBand | undefined): Claims {
  const largest = band ? largestT(band) : NaN;
  const stretchesP = band && !Number.isNaN(largest) ? supremumProbability(largest, band.kappaRad, band.df) : NaN;
  const each = (1 - stretchesWeight) / Math.max(1, ranges.length);
  const called = holm([...ranges.map(({ difference }) => difference.pValue), stretchesP], level, [
    ...ranges.map(() => each),
    stretchesWeight,
  ]);
  const verdicts = ranges.map(({ difference, drift }, index): Verdict => {
    if (Number.isNaN(difference.pValue)) return 'unknown';
    if (!called[index]) return 'within repeatability';
    if (drift && !survives(drift, difference.difference)) return 'drift suspected';
    return difference.difference > 0 ? 'gain' : 'loss';
  });
  const driftSuspected = verdicts.includes('drift suspected');
  if (!band || !called.at(-1) || driftSuspected) return { verdicts, driftSuspected, clearStretches: [] };
  const open = ranges.filter((_, index) => !called[index]).length;
  const ownLevel = (level * stretchesWeight) / (stretchesWeight + each * open);
  return {
    verdicts,
    driftSuspected,
    clearStretches: stretchesClearOfZero(band, simultaneousT(1 - ownLevel, band.kappaRad, band.df)),
  };
}

/** Whether a difference stands when the drift is taken out as far as it can be told. */
export function survives(drift: Drift, plain: number): boolean {
  if (drift.separable) {
    return drift.pValue > level || drift.adjusted * Math.sign(plain) > drift.adjustedHalfWidth;
  }
  return drift.adjusted * Math.sign(plain) > leftByDrift * Math.abs(plain);
}

function largestT({ gain, standardError }: GainBand): number {
  let most = 0;
  for (let index = 0; index < gain.length; index++) {
    const t = Math.abs(gain[index]!) / standardError[index]!;
    if (Number.isNaN(t)) return NaN;
    if (t > most) most = t;
  }
  return most;
}
