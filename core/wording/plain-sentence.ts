import { spokenRpm } from '../units/spoken.ts';
import { bandsMissedWords } from './coverage-words.ts';
import { convert, type PowerUnit } from '../units/units.ts';
import type { Comparison } from '../comparison/comparison.ts';

/**
 * What a change gave, for somebody who does not read intervals:
 * `between 2.2 and 3.6 kW more`, from the ends of the 95 % interval.
 *
 * @param withheld true where the runs are not like for like
 */
export function plainSentence(
  test: string,
  baseline: string,
  { ranges, uncovered, clearStretches }: Pick<Comparison, 'ranges' | 'uncovered' | 'clearStretches'>,
  withheld: boolean,
  unit: PowerUnit,
): string {
  const [range] = ranges;
  const { difference, verdict, fromRpm, toRpm } = range;
  const where = `on average from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm`;
  const size = (kw: number) => Math.abs(convert(kw, 'kW', unit)).toFixed(1);
  const [low, high] = [difference.difference - difference.halfWidth, difference.difference + difference.halfWidth];
  const partly = clearStretches
    .slice(0, 2)
    .map(({ mean, halfWidth, fromRpm: from, toRpm: to }, index) => {
      const ends = [Math.abs(mean) - halfWidth, Math.abs(mean) + halfWidth].map(size);
      return `${index === 0 ? '; but it makes' : ' and'} between ${ends[0]} and ${ends[1]} ${unit} ${mean < 0 ? 'less' : 'more'} from ${spokenRpm(from)} to ${spokenRpm(to)} rpm`;
    })
    .join('');
  if (withheld) return `${test} and ${baseline} were not measured under like conditions: no fair comparison.`;
  switch (verdict) {
    case 'gain':
      return `${test} makes between ${size(low)} and ${size(high)} ${unit} more than ${baseline}, ${where}.`;
    case 'loss':
      return `${test} makes between ${size(high)} and ${size(low)} ${unit} less than ${baseline}, ${where}.`;
    case 'within repeatability':
      return `${test} and ${baseline} cannot be told apart, ${where}: whatever the change gave, it is less than ${size(Math.max(Math.abs(low), Math.abs(high)))} ${unit}${partly}.`;
    case 'drift suspected':
      return `The car changed from run to run, so what ${test} gave cannot be told yet.`;
    case 'band not covered':
      return `What ${test} gave on ${baseline} cannot be told: ${bandsMissedWords(uncovered)}.`;
    case 'plan not full':
    case 'spread assumed':
    case 'clear alone':
    case 'unknown':
      return `${test} reads ${size(difference.difference)} ${unit} ${difference.difference < 0 ? 'less' : 'more'} than ${baseline}, ${where}; more runs are needed to be sure.`;
  }
}
