import { otherRangeRpm } from '../curve/covered-range.ts';
import type { UncoveredBand } from '../comparison/coverage.ts';
import { missedBands, type PairJudgement } from '../judgement/pair-judgement.ts';
import { spokenRpm } from '../units/spoken.ts';

type Missed = Pick<UncoveredBand, 'beginsRpm' | 'endsRpm'>;

/** Where runs leave a band out: `begins at 2,275 rpm and ends at 3,900`. */
export function missedWords({ beginsRpm, endsRpm }: Missed): string {
  const begins = beginsRpm === undefined ? '' : `begins at ${spokenRpm(beginsRpm)}`;
  const ends = endsRpm === undefined ? '' : `ends at ${spokenRpm(endsRpm)}`;
  return `${[begins, ends].filter(Boolean).join(' and ')} rpm`;
}

/** What stands in a figure's place: `not covered: begins at 2,275 rpm`. */
export const notCoveredWords = (band: Missed): string => `not covered: ${missedWords(band)}`;

/** Of several runs. */
const plural = (words: string) => words.replace('begins', 'begin').replace('ends', 'end');

/** Each of several bands with where it is missed, for the end of a sentence. */
export function bandsMissedWords(bands: readonly (Missed & Pick<UncoveredBand, 'fromRpm' | 'toRpm'>)[]): string {
  return bands
    .map(
      (band) =>
        `${spokenRpm(band.fromRpm)} to ${spokenRpm(band.toRpm)} rpm is not covered: the runs ${plural(missedWords(band))}`,
    )
    .join('; ');
}

/** The range of a pair's difference where it is not that of the first band; empty where it is. */
export const otherRangeWords = (pair: Pick<PairJudgement, 'withheld' | 'uncovered' | 'fromRpm' | 'toRpm'>): string =>
  pair.uncovered.length > 0 && missedBands(pair).length === 0
    ? ` from ${spokenRpm(pair.fromRpm)} to ${spokenRpm(pair.toRpm)} rpm`
    : '';

/** Where a pair is judged, beside a figure over another range: `judged from 2,500 to 4,000 rpm`; empty where it is the same. */
export function judgedElsewhereWords(
  pair: Pick<PairJudgement, 'fromRpm' | 'toRpm'>,
  shown: { fromRpm: number; toRpm: number },
): string {
  const apart = Math.max(Math.abs(pair.fromRpm - shown.fromRpm), Math.abs(pair.toRpm - shown.toRpm));
  return apart < otherRangeRpm ? '' : `judged from ${spokenRpm(pair.fromRpm)} to ${spokenRpm(pair.toRpm)} rpm`;
}
