import { spokenRpm } from '../units/spoken-rpm.ts';
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
  { ranges }: Pick<Comparison, 'ranges'>,
  withheld: boolean,
  unit: PowerUnit,
): string {
  const [range] = ranges;
  const { difference, verdict, fromRpm, toRpm } = range;
  const where = `on average from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm`;
  const size = (kw: number) => Math.abs(convert(kw, 'kW', unit)).toFixed(1);
  const [low, high] = [difference.difference - difference.halfWidth, difference.difference + difference.halfWidth];
  if (withheld) return `${test} and ${baseline} were not measured under like conditions: no fair comparison.`;
  switch (verdict) {
    case 'gain':
      return `${test} makes between ${size(low)} and ${size(high)} ${unit} more than ${baseline}, ${where}.`;
    case 'loss':
      return `${test} makes between ${size(high)} and ${size(low)} ${unit} less than ${baseline}, ${where}.`;
    case 'within repeatability':
      return `${test} and ${baseline} cannot be told apart, ${where}: whatever the change gave, it is less than ${size(Math.max(Math.abs(low), Math.abs(high)))} ${unit}.`;
    case 'drift suspected':
      return `The car changed from run to run, so what ${test} gave cannot be told yet.`;
    case 'plan not full':
    case 'spread assumed':
    case 'unknown':
      return `${test} reads ${size(difference.difference)} ${unit} ${difference.difference < 0 ? 'less' : 'more'} than ${baseline}, ${where}; more runs are needed to be sure.`;
  }
}
