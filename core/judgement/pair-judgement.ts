import type { JudgedRange } from '../comparison/comparison.ts';
import type { UncoveredBand } from '../comparison/coverage.ts';
import type { JudgingRule } from '../comparison/judging-rule.ts';
import type { Verdict } from '../comparison/verdict.ts';
import type { Unlikeness } from '../likeness/run-conditions.ts';

/** What is said of a difference: nothing else is ever claimed, and nothing beyond it. */
export type Claim = 'gain' | 'loss' | 'within repeatability';

/** Why nothing is claimed; ids and values only, words are made of them in core/wording. */
export type Withheld =
  | { id: 'not-alike'; respect: Unlikeness }
  | { id: 'band-not-covered'; bands: UncoveredBand[] }
  | { id: 'plan-not-full'; missing: { test: number; baseline: number } }
  | { id: 'drift'; perRunKw: number | undefined }
  | { id: 'spread-assumed' }
  | { id: 'clear-alone' }
  | { id: 'no-spread' };

/** A claim, or the reasons why none is made. */
export interface Judged {
  claim: Claim | null;
  /** Empty exactly where something is claimed. */
  withheld: Withheld[];
}

/** What may be said of one setup against another over one range. */
export interface PairJudgement extends Judged, Pick<JudgedRange, 'fromRpm' | 'toRpm' | 'difference' | 'drift'> {
  testId: number;
  againstId: number;
  judging: JudgingRule;
  /** Bands that matter and that some of the runs do not cover. */
  uncovered: UncoveredBand[];
}

/** The bands whose missing withholds a claim: none of those that matter is covered then, and no figure stands for them. */
export const missedBands = ({ withheld }: Pick<Judged, 'withheld'>): UncoveredBand[] =>
  withheld.flatMap((reason) => (reason.id === 'band-not-covered' ? reason.bands : []));

/** The claim that a verdict amounts to once the circumstances are known. */
export function judged(
  { verdict, drift }: Pick<JudgedRange, 'verdict' | 'drift'>,
  judging: JudgingRule,
  unlike: readonly Unlikeness[],
  uncovered: readonly UncoveredBand[] = [],
): Judged {
  const withheld: Withheld[] = unlike
    .filter(({ severity }) => severity === 'stop')
    .map((respect) => ({ id: 'not-alike', respect }));
  const reason = reasonOf(verdict, judging, drift?.perRun, uncovered);
  if (reason) withheld.push(reason);
  const claims: Partial<Record<Verdict, Claim>> = {
    gain: 'gain',
    loss: 'loss',
    'within repeatability': 'within repeatability',
  };
  return { claim: withheld.length > 0 ? null : (claims[verdict] ?? null), withheld };
}

function reasonOf(
  verdict: Verdict,
  judging: JudgingRule,
  perRunKw: number | undefined,
  uncovered: readonly UncoveredBand[],
): Withheld | undefined {
  switch (verdict) {
    case 'band not covered':
      return { id: 'band-not-covered', bands: [...uncovered] };
    case 'plan not full':
      return { id: 'plan-not-full', missing: judging.kind === 'planned' ? judging.missing : { test: 0, baseline: 0 } };
    case 'drift suspected':
      return { id: 'drift', perRunKw };
    case 'spread assumed':
      return { id: 'spread-assumed' };
    case 'clear alone':
      return { id: 'clear-alone' };
    case 'unknown':
      return { id: 'no-spread' };
    default:
      return undefined;
  }
}
