import type { ClearStretch } from '../comparison/clear-stretches.ts';
import type { JudgedRange } from '../comparison/comparison.ts';
import type { ComparisonFigures } from '../figures/pairs/comparison-figures.ts';
import { joined, say, type Quantity, type Sentence } from '../sentence/sentence.ts';
import { lineOf } from '../setup/difference.ts';
import { setupWords } from '../setup/setup-words.ts';
import { spokenRpm } from '../units/spoken.ts';
import { testsSentence } from '../wording/kind-words.ts';
import { withheldWords } from '../wording/judgement-words.ts';
import { askedLimit, askedWords } from './asked-limit.ts';
import { askedTests } from './asked-tests.ts';
import { testedPair } from './other-tests.ts';
import { laterName } from './reported-job.ts';
import type { Content } from './report.ts';
import type { ReportSource } from './reported-job.ts';

/** The answer to the owner's question, in one sentence, and what it is an answer to. */
export function answer(source: ReportSource): Content {
  const { job, figures } = source;
  const { comparison, noComparison, sides } = figures;
  const asked = job.question ? [say`The question was: ${asSentence(job.question)}`] : [];
  if (!comparison) {
    const pair = testedPair(source, laterName(job));
    const tested = askedTests(job.question, pair?.judged ?? []) ?? testsSentence(pair?.judged ?? []);
    const reason =
      tested ??
      (sides.testId === sides.againstId
        ? 'The car as it arrived: nothing was changed and measured yet.'
        : (noComparison ?? ''));
    return { is: 'answer', headline: reason, lead: [...asked, ...(tested && pair?.tried ? [pair.tried] : [])] };
  }
  const changes = lineOf(job.setups, sides.testId)
    .filter(({ id }) => id !== sides.againstId)
    .map((setup) => setupWords(job.setups, setup));
  const what = changes.length > 0 ? say`Changed: ${asSentence(changes.join('; '))}` : '';
  const power = headline(comparison, { test: 'what is delivered', against: 'what arrived' });
  // Asked for something else than power, it answers that first.
  const named = askedLimit(job.question, figures.headroom?.changes ?? []);
  const tested = named ? undefined : askedTests(job.question, testedPair(source, laterName(job))?.judged ?? []);
  const first = named ? askedWords(named, laterName(job)) : tested;
  return {
    is: 'answer',
    headline: first ?? power,
    lead: [...asked, what, first ? power : ''].filter((sentence) => sentence !== ''),
  };
}

/** What somebody wrote, with an end, where they wrote none. */
const asSentence = (words: string) => (/[.?!…]$/.test(words.trim()) ? words.trim() : `${words.trim()}.`);

function headline(comparison: ComparisonFigures, names: { test: string; against: string }): Sentence {
  const { power, judgement } = comparison;
  const unlike = judgement.withheld.find(({ id }) => id === 'not-alike');
  if (unlike) return say`No fair comparison: ${withheldWords(unlike, names)}.`;
  const claimed = power.ranges.filter(({ verdict }) => verdict === 'gain' || verdict === 'loss');
  const gains = claimed.filter(({ verdict }) => verdict === 'gain');
  const losses = claimed.filter(({ verdict }) => verdict === 'loss');
  const [first, ...others] = gains.length > 0 ? gains : losses;
  const [reason] = judgement.withheld;
  if (!first && reason) return say`Nothing is shown yet: ${withheldWords(reason, names)}.`;
  if (!first) {
    const stretches = joined(
      power.clearStretches.slice(0, 2).map((stretch) => ofStretch(stretch)),
      ' and ',
    );
    const partly = power.clearStretches.length > 0 ? say`; but ${stretches}` : '';
    return say`No change of power could be shown ${between(power.ranges[0])}: whatever it gave is less than ${most(power.ranges[0])} on average${partly}.`;
  }
  // The price: what is lost in a band, or runs against the claims outside of all bands.
  const beside = power.clearStretches.filter(
    ({ verdict, fromRpm, toRpm }) =>
      verdict !== first.verdict && !claimed.some((range) => range.fromRpm < toRpm && range.toRpm > fromRpm),
  );
  const price = [
    ...(gains.length > 0 ? losses.map((range) => ofRange(range, true)) : []),
    ...beside.map((stretch) => ofStretch(stretch, true)),
  ].slice(0, 2);
  const told = joined(
    [first, ...others].map((range) => ofRange(range)),
    ', ',
  );
  const cost = price.length > 0 ? say`, at the price of ${joined(price, ' and ')}` : '';
  return say`${told}${cost}.`;
}

/** The size of a difference with half of its interval; which way it goes is said in a word. */
function sized(kw: number, halfWidth: number): Sentence {
  const own = { unit: 'kW', digits: 1, interval: { difference: kw, halfWidth } };
  return say`${{ ...own, value: Math.abs(kw), unitFollows: true }} ± ${{ ...own, value: halfWidth, as: 'half-width' }}`;
}
const between = ({ fromRpm, toRpm }: { fromRpm: number; toRpm: number }) =>
  `from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm`;

/** @param asPrice named as one: less goes without saying */
function ofRange({ difference, verdict, fromRpm, toRpm }: JudgedRange, asPrice = false): Sentence {
  const way = asPrice ? '' : verdict === 'loss' ? ' less' : ' more';
  return say`${sized(difference.difference, difference.halfWidth)}${way} ${between({ fromRpm, toRpm })}`;
}

function ofStretch({ mean, halfWidth, fromRpm, toRpm }: ClearStretch, asPrice = false): Sentence {
  const way = asPrice ? '' : mean < 0 ? ' less' : ' more';
  return say`${sized(mean, halfWidth)}${way} ${between({ fromRpm, toRpm })}`;
}

/** The farther end of a difference's interval. */
function most({ difference: { difference, halfWidth } }: JudgedRange): Quantity {
  return { value: Math.abs(difference) + halfWidth, unit: 'kW', digits: 1 };
}
