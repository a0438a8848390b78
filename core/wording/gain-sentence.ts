import { powerDifference } from './figures.ts';
import { joined, say, written, type Reader, type Sentence } from '../sentence/sentence.ts';
import { spokenRpm } from '../units/spoken.ts';
import type { PowerUnit } from '../units/units.ts';
import type { JudgedRange, JudgedRanges } from '../comparison/comparison.ts';
import { brokenWords } from '../limits/broken-words.ts';
import type { BrokenLimit } from '../limits/broken-limits.ts';
import type { Withheld } from '../judgement/pair-judgement.ts';
import { withheldWords } from './judgement-words.ts';
import type { UncoveredBand } from '../comparison/coverage.ts';
import { bandsMissedWords } from './coverage-words.ts';
import type { ClearStretch } from '../comparison/clear-stretches.ts';

/** A stretch of a sentence; gain and loss are to be set off in colour and by their sign. */
export interface Phrase {
  text: Sentence;
  tone?: 'gain' | 'loss' | 'warning';
}

/** Phrases as one text, in the units of whoever reads it. */
export const phrasesText = (phrases: readonly Phrase[], reader?: Reader): string =>
  phrases.map(({ text }) => written(text, reader)).join('');

export interface SentenceInput {
  test: string;
  baseline: string;
  /** Ranges chosen beforehand, with their verdicts; at least one. In kW. */
  ranges: JudgedRanges;
  /** Bands asked for that some run does not cover. */
  uncovered?: readonly UncoveredBand[] | undefined;
  /** Spans found in the data. */
  clearStretches: readonly ClearStretch[];
  unit: PowerUnit;
  /** Why nothing is claimed over the first range; empty where something is. */
  withheld: readonly Withheld[];
  /** Limits that the test's runs went beyond. */
  broken?: readonly BrokenLimit[] | undefined;
  /** What figures estimated for the crank rest on; left out where they are those at the wheels. */
  estimate?: string | undefined;
}

/** A stretch that covers this much of a range is the range. */
const wholeShare = 0.9;

/** Says what a change gave over the chosen ranges, where in them it lies, with intervals: to be read aloud. */
export function gainSentence(input: SentenceInput): Phrase[] {
  const { ranges, test, baseline } = input;
  const [first, ...more] = ranges;
  const broken = input.broken ?? [];
  const limits: Phrase[] =
    broken.length > 0
      ? [{ text: say` But ${test} is beyond a limit: ${joined(broken.map(brokenWords), '; ')}.`, tone: 'warning' }]
      : [];
  const estimate = input.estimate ? [{ text: ` Estimated for the crank: ${input.estimate}.` }] : [];
  const unlike = input.withheld.find(({ id }) => id === 'not-alike');
  if (unlike) {
    return [
      {
        text: `${test} reads ${signedAmount(first, input.unit)} against ${baseline} ${between(first)}, but ${withheldWords(unlike, { test, against: baseline })}: no verdict.`,
      },
      ...limits,
      ...estimate,
    ];
  }
  const phrases = rangePhrases(first, input, true);
  for (const range of more) phrases.push({ text: '; ' }, ...rangePhrases(range, input, false));
  const missed = first.verdict === 'band not covered' ? [] : (input.uncovered ?? []);
  const left = missed.length > 0 ? [{ text: `; ${bandsMissedWords(missed)}` }] : [];
  return [...phrases, ...clearPhrases(input), ...left, { text: '.' }, ...limits, ...estimate];
}

function rangePhrases(range: JudgedRange, input: SentenceInput, named: boolean): Phrase[] {
  const { test, baseline, unit } = input;
  const { difference, verdict } = range;
  const average = `on average ${between(range)}`;
  switch (verdict) {
    case 'unknown':
    case 'drift suspected':
    case 'spread assumed':
    case 'clear alone':
    case 'plan not full':
    case 'band not covered': {
      const [reason] = input.withheld;
      const why = named && reason ? `; ${withheldWords(reason, { test, against: baseline }, unit)}` : '';
      return [
        {
          text: named
            ? `${test} reads ${signedAmount(range, unit)} against ${baseline} ${average}${why}`
            : `${signedAmount(range, unit)} ${between(range)}, no verdict`,
        },
      ];
    }
    case 'within repeatability':
      return [
        {
          text: named
            ? `${test} is within repeatability of ${baseline} ${between(range)}: ${signedAmount(range, unit)} on average`
            : `within repeatability ${between(range)} (${signedAmount(range, unit)})`,
        },
      ];
    case 'gain':
    case 'loss':
      return [
        { text: named ? `${test} makes ` : '' },
        { text: `${amount(range, unit)} ${verdict === 'gain' ? 'more' : 'less'}`, tone: verdict },
        {
          text: `${named ? ` than ${baseline} ${average}` : ` ${between(range)}`}${tooSmall(difference) ? ', too small to matter' : ''}`,
        },
      ];
  }
}

/** A difference that is no larger than this share of power is told as one that does not matter. */
const matteringShare = 0.002;

/** Whether even the farther end of the interval is nothing that anybody would notice. */
function tooSmall({ difference, halfWidth, baseline }: JudgedRange['difference']): boolean {
  return Math.abs(difference) + halfWidth < matteringShare * Math.abs(baseline);
}

/** Where in the range the gain lies, and whatever runs against it. */
function clearPhrases({ ranges, clearStretches, unit }: SentenceInput): Phrase[] {
  const main = ranges[0];
  const called = main.verdict === 'gain' || main.verdict === 'loss';
  if (clearStretches.length === 0) return [];
  const same = clearStretches.filter((stretch) => stretch.verdict === main.verdict);
  const [only] = clearStretches;
  const width = main.toRpm - main.fromRpm;
  if (
    called &&
    only &&
    clearStretches.length === 1 &&
    same.length === 1 &&
    only.toRpm - only.fromRpm > wholeShare * width
  )
    return [];
  const phrases: Phrase[] = [];
  clearStretches.slice(0, 3).forEach((stretch, index) => {
    const first = called ? (stretch.verdict === main.verdict ? ', clearest ' : ', but ') : ', but ';
    const lead = index === 0 ? first : index === Math.min(clearStretches.length, 3) - 1 ? ' and ' : ', ';
    phrases.push(
      { text: lead },
      {
        text: `${stretchAmount(stretch, unit)} ${stretch.verdict === 'gain' ? 'more' : 'less'}`,
        tone: stretch.verdict,
      },
      { text: ` from ${spokenRpm(stretch.fromRpm)} to ${spokenRpm(stretch.toRpm)} rpm` },
    );
  });
  const last = clearStretches[clearStretches.length - 1]!;
  if (called && same.length === clearStretches.length) {
    const above = main.toRpm - last.toRpm > 0.1 * width;
    const below = clearStretches[0]!.fromRpm - main.fromRpm > 0.1 * width;
    if (above || below) {
      phrases.push({
        text: `; not shown ${above && below ? 'below or above that' : above ? 'above that' : 'below that'}`,
      });
    }
  }
  return phrases;
}

function between({ fromRpm, toRpm }: { fromRpm: number; toRpm: number }): string {
  return `from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm`;
}

/** Which way it goes is said in a word. */
const unsigned = (figure: string) => figure.replace(/^[+−]/, '');

function amount({ difference: { difference, halfWidth } }: JudgedRange, unit: PowerUnit): string {
  return `${unsigned(powerDifference(difference, halfWidth, unit).whole)} ${unit}`;
}

/** With its interval where there is one. */
function signedAmount({ difference: { difference, halfWidth } }: JudgedRange, unit: PowerUnit): string {
  return `${powerDifference(difference, halfWidth, unit).whole} ${unit}`;
}

function stretchAmount(stretch: ClearStretch, unit: PowerUnit): string {
  return `${unsigned(powerDifference(stretch.mean, stretch.halfWidth, unit).whole)} ${unit}`;
}
