import { phrasesText } from '../../wording/gain-sentence.ts';
import { written } from '../../sentence/sentence.ts';
import type { ComparisonFigures } from '../../figures/pairs/comparison-figures.ts';
import type { JobFigures } from '../../figures/job-figures.ts';
import type { Claim, PairJudgement, Withheld } from '../../judgement/pair-judgement.ts';
import type { FamilyPair } from '../../judgement/job-claims.ts';
import { nextRunWords, withheldSentence } from '../../wording/judgement-words.ts';
import { kw, round } from './curve-json.ts';

const claims = { gain: 'gain', loss: 'loss', 'within repeatability': 'within-repeatability' } as const satisfies Record<
  Claim,
  string
>;

/**
 * A job's judgements as plain JSON; kW to 0.1 W. The form is the contract's
 * `judgementJson`: `pairs` carry the pair's own claim, `cards` and `steps` what
 * may be said among all pairs of the job.
 *
 * @param figures made with `everyPair`
 * @param letterOf the label of a setup
 */
export function judgementToJson(figures: JobFigures, letterOf: (setupId: number) => string) {
  const { pairs = [], setups, next, spread } = figures;
  const [rests] = setups.flatMap(({ onBaseline }) => onBaseline ?? []).reverse();
  const difference = rests?.difference;
  const letters = ({ testId, againstId }: PairJudgement) => ({ test: letterOf(testId), against: letterOf(againstId) });
  return {
    spread: difference
      ? {
          percent: round((100 * difference.standardDeviation) / Math.abs(difference.baseline), 4),
          degreesOfFreedom: round(difference.df, 2),
          from: difference.from,
        }
      : { percent: round(100 * spread.share, 4), degreesOfFreedom: round(spread.df, 2), from: spread.from },
    pairs: pairs.map((comparison) => pairJson(comparison, letters(comparison.judgement))),
    cards: setups.flatMap(({ onBaseline }) => (onBaseline ? [jobJson(onBaseline, letterOf)] : [])),
    steps: setups.flatMap(({ onParent }) => (onParent ? [jobJson(onParent, letterOf)] : [])),
    next: {
      setup: next.setupId === null ? null : letterOf(next.setupId),
      why: nextRunWords(next, letterOf),
      runs: next.runs,
    },
  };
}

function pairJson({ judgement, sentence }: ComparisonFigures, letters: { test: string; against: string }) {
  const { claim, withheld, judging, fromRpm, toRpm } = judgement;
  return {
    setup: letters.test,
    against: letters.against,
    fromRpm: round(fromRpm, 1),
    toRpm: round(toRpm, 1),
    ...intervalJson(judgement),
    claim: claim && claims[claim],
    withheld: withheld.map((reason) => ({ id: idOf(reason), sentence: written(withheldSentence(reason, letters)) })),
    rule: judging.kind,
    sentence: phrasesText(sentence),
  };
}

function jobJson(pair: FamilyPair, letterOf: (setupId: number) => string) {
  return {
    setup: letterOf(pair.testId),
    ...intervalJson(pair),
    claim: pair.jobClaim && claims[pair.jobClaim],
  };
}

function intervalJson({ difference: { difference, halfWidth } }: Pick<PairJudgement, 'difference'>) {
  return { meanKw: kw(difference), lowKw: kw(difference - halfWidth), highKw: kw(difference + halfWidth) };
}

/** The respect's id says more than that something is not alike. */
function idOf(reason: Withheld): string {
  return reason.id === 'not-alike' ? reason.respect.id : reason.id;
}
