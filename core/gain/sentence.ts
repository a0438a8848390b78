import { spokenRpm } from '../units/spoken-rpm.ts';
import { convert, type PowerUnit } from '../units/units.ts';
import type { MeanDifference } from '../statistics/mean-difference.ts';
import { verdictOn } from './verdict.ts';

/** A stretch of a sentence; gain and loss are to be set off in colour and by their sign. */
export interface Phrase {
  text: string;
  tone?: 'gain' | 'loss';
}

export interface SentenceInput {
  test: string;
  baseline: string;
  /** kW. */
  difference: MeanDifference;
  fromRpm: number;
  toRpm: number;
  unit: PowerUnit;
  /** True where the runs are not like for like: figures, no verdict. */
  withheld: boolean;
}

/** Says what a change gave over a range, with its interval, as one sentence. */
export function gainSentence(input: SentenceInput): Phrase[] {
  const { difference, unit, test, baseline } = input;
  const inUnit = (kw: number) => Math.abs(convert(kw, 'kW', unit)).toFixed(1);
  const range = `from ${spokenRpm(input.fromRpm)} to ${spokenRpm(input.toRpm)} rpm`;
  const amount = `${inUnit(difference.difference)} ± ${inUnit(difference.halfWidth)} ${unit}`;
  const signed = `${difference.difference < 0 ? '−' : '+'}${amount}`;
  if (input.withheld) {
    const figure = Number.isNaN(difference.halfWidth)
      ? `${difference.difference < 0 ? '−' : '+'}${inUnit(difference.difference)} ${unit}`
      : signed;
    return [
      { text: `${test} reads ${figure} against ${baseline} ${range}, but the runs are not like for like: no verdict.` },
    ];
  }
  switch (verdictOn(difference)) {
    case 'unknown':
      return [
        {
          text: `${test} reads ${inUnit(difference.difference)} ${unit} ${difference.difference < 0 ? 'less' : 'more'} than ${baseline} on average ${range}, one run each: another run of either shows whether that is more than noise.`,
        },
      ];
    case 'within repeatability':
      return [{ text: `${test} is within repeatability of ${baseline} ${range}: ${signed} on average.` }];
    case 'gain':
      return [
        { text: `${test} makes ` },
        { text: `${amount} more`, tone: 'gain' },
        { text: ` than ${baseline} on average ${range}.` },
      ];
    case 'loss':
      return [
        { text: `${test} makes ` },
        { text: `${amount} less`, tone: 'loss' },
        { text: ` than ${baseline} on average ${range}.` },
      ];
  }
}
