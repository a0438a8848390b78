import { difference, joined, say, type Sentence } from '../sentence/sentence.ts';
import { capital, formatShare, spokenRpm } from '../units/spoken.ts';
import type { DeviatingRepeat } from '../judgement/deviating-repeat.ts';
import type { NextRun } from '../judgement/next-run.ts';
import type { JudgingRule } from '../comparison/judging-rule.ts';
import type { FamilyPair } from '../judgement/job-claims.ts';
import type { Judged, Withheld } from '../judgement/pair-judgement.ts';
import { bandsMissedWords, missedWords, notCoveredWords } from './coverage-words.ts';
import { convert, type PowerUnit } from '../units/units.ts';
import type { MeanDifference } from '../statistics/mean-difference.ts';
import type { SpreadPrior } from '../statistics/spread-prior.ts';

/** Letters of the setups that a judgement is about. */
export interface Letters {
  test: string;
  against: string;
}

/** What is not alike, in as few words as a sentence has room for. */
const notAlike: Readonly<Record<string, string>> = {
  'other-gear': 'another gear',
  'other-dyno': 'another dyno or dyno setting',
  'other-kind': 'another kind of dyno',
  'other-ratio': 'another gear, other tyres, or slip',
  'other-load-mode': 'another load mode',
  'other-vehicle': 'another vehicle',
  'other-job': 'another job',
  'other-correction': 'corrected differently',
  'other-engine-factor': 'the fuel of some runs was not logged',
  'air-missing': 'the air of some runs is not known',
  remount: 'runs more than 12 h apart',
  slip: 'the tyres slip',
  borrowed: 'a borrowed curve, for orientation only',
  'other-scale': 'one side at the wheels, the other at the crank',
};

const runs = (count: number, letter: string) => `${count} more ${count === 1 ? 'run' : 'runs'} of ${letter}`;

/** Why nothing is claimed, as the end of a sentence. */
export function withheldWords(reason: Withheld, { test, against }: Letters, unit: PowerUnit = 'kW'): string {
  switch (reason.id) {
    case 'not-alike':
      return `not like for like, ${notAlike[reason.respect.id] ?? reason.respect.id.replaceAll('-', ' ')}`;
    case 'band-not-covered':
      return bandsMissedWords(reason.bands);
    case 'plan-not-full': {
      const { missing } = reason;
      const lacking = [
        missing.test > 0 ? runs(missing.test, test) : '',
        missing.baseline > 0 ? runs(missing.baseline, against) : '',
      ];
      return `the plan is not full: ${lacking.filter(Boolean).join(' and ')}`;
    }
    case 'drift':
      return `${driftWords(reason.perRunKw, unit)} can look the same: return to ${against} for a run`;
    case 'spread-assumed':
      return `the spread of this car is only assumed: another run of ${test} or ${against}`;
    case 'clear-alone':
      return `clear on its own, but may be chance among all that was looked at: another run of ${test} or ${against}`;
    case 'no-spread':
      return 'nothing can be said yet: too few runs to tell their spread, or they scatter by more than a fifth of the reading';
  }
}

/** A drift as far as the runs tell of it. */
function driftWords(perRunKw: number | undefined, unit: PowerUnit): string {
  const told = perRunKw === undefined ? '' : Math.abs(convert(perRunKw, 'kW', unit)).toFixed(1);
  return Number(told) === 0
    ? 'a drift from run to run'
    : `a drift of ${(perRunKw ?? 0) < 0 ? '−' : '+'}${told} ${unit} from run to run`;
}

/** How the interval of a difference of power allows for a drift from run to run; undefined where it need not. */
export function allowanceWords({
  withoutDrift,
  asMeasured,
  moved,
  standardError,
}: MeanDifference): Sentence | undefined {
  if (withoutDrift)
    return say`The drift from run to run is taken out: as measured the difference is ${difference(asMeasured, NaN, 'kW', 1)}.`;
  const most = moved * standardError;
  if (!(most > 0)) return undefined;
  return say`The ± allows for a drift of up to ${{ value: most, unit: 'kW', digits: 1 }} between the two; a run of either again, after the other, makes it smaller.`;
}

/** The same for a card, in a few words. */
function withheldBriefly(reason: Withheld, letters: Letters): string {
  if (reason.id === 'not-alike') return notAlike[reason.respect.id] ?? withheldWords(reason, letters);
  if (reason.id === 'band-not-covered') return reason.bands.slice(0, 1).map(notCoveredWords).join('');
  const brief = {
    'plan-not-full': 'plan not full',
    drift: `drift possible, return to ${letters.against}`,
    'spread-assumed': 'spread only assumed',
    'clear-alone': 'clear only on its own',
    'no-spread': 'nothing can be said yet',
  } as const;
  return brief[reason.id];
}

/** The same as a sentence of its own. */
export function withheldSentence(reason: Withheld, letters: Letters): Sentence {
  if (reason.id === 'not-alike') return reason.respect.message;
  const words = withheldWords(reason, letters);
  return `${capital(words)}.`;
}

/** Which interval it is, in six words. */
export function ruleWords(judging: JudgingRule): string {
  if (judging.kind === 'every-look') return 'holds however often you look';
  if (judging.missing.test + judging.missing.baseline > 0) return 'plan not full: nothing claimed yet';
  return judging.further > 0 ? 'planned; later runs claim almost nothing' : 'holds for the plan carried out';
}

/** What a pair may be said to be among all of a job's: for cards, steps and rankings. */
export function jobClaimWords(
  pair: Pick<FamilyPair, 'claim' | 'jobClaim' | 'withheld'>,
  setups: number,
  letters: Letters,
): string {
  const [reason] = pair.withheld;
  if (pair.claim === null) return reason ? `no verdict: ${withheldBriefly(reason, letters)}` : 'no verdict';
  if (pair.jobClaim === pair.claim) return pair.claim === 'within repeatability' ? 'within repeatability' : '';
  return `shown for this pair, not among ${setups} setups`;
}

/** Whether a claim is a gain or a loss, for its colour. */
export function toneOf(claim: Judged['claim']): 'gain' | 'loss' | undefined {
  return claim === 'gain' || claim === 'loss' ? claim : undefined;
}

/** Where the spread comes from, and what it is worth. */
export function spreadWords({ share, df, from, repeats, ofVehicle, upperShare }: SpreadPrior): string {
  if (from === 'learned') {
    const own = ofVehicle === undefined ? '' : `, ${ofVehicle} of them of this car`;
    return `from ${repeats ?? Math.round(df) + 1} repeats${own}: ${formatShare(share)}, worth ${Math.round(df) + 1} runs`;
  }
  return `assumed: ${formatShare(share)}${upperShare === undefined ? '' : `, up to ${formatShare(upperShare)}`}`;
}

/** Repeats of the shop that were too unlike all others to be learned from; empty where there are none. */
export function leftOutWords({ leftOut = [] }: SpreadPrior): string {
  if (leftOut.length === 0) return '';
  const [first, ...more] = leftOut;
  const named = leftOut.length <= 3 ? leftOut.join('; ') : `${first} and ${more.length} more`;
  return `Not learned from, as their runs scatter unlike all others: ${named}. Look at them and set aside what was no good run.`;
}

/** What to run next and why, as a sentence. @param letterOf the letter of a setup */
export function nextRunWords(next: NextRun, letterOf: (id: number) => string): string {
  const { expectedS } = next;
  const minutes =
    expectedS === undefined ? '' : ` About ${Math.max(1, Math.round(expectedS / 60))} min at the pace so far.`;
  return `${whyWords(next, letterOf)}${minutes}`;
}

function whyWords(
  { setupId, againstId, why, runs: count, wantedShare, repair, labels = [], band }: NextRun,
  letterOf: (id: number) => string,
): string {
  const letter = setupId === null ? '' : letterOf(setupId);
  const other = againstId === null ? '' : letterOf(againstId);
  switch (why) {
    case 'repair':
      return `See to what was found on ${repair} before another run: it is a reason to stop.`;
    case 'first-run':
      return `Run ${letter}: it has no counted run yet.`;
    case 'baseline':
      return `${capital(runs(count, letter))}: a baseline of so few runs says little of its own spread.`;
    case 'plan':
      return `${capital(runs(count, letter))}: the plan is not full.`;
    case 'return':
      return `Return to ${letter} for a run: without it drift and change cannot be told apart.`;
    case 'air':
      return `Enter the air of ${labels.join(', ')}: without it corrected and uncorrected runs cannot be compared.`;
    case 'band':
      return band
        ? `Run ${letter} again over all of ${spokenRpm(band.fromRpm)} to ${spokenRpm(band.toRpm)} rpm: it ${missedWords(band)}.`
        : '';
    case 'not-alike':
      return other
        ? `Run ${letter} again, like ${other}: the runs are not like for like.`
        : `Run ${letter} again, like the others: the runs are not like for like.`;
    case 'shows-more':
      return `${capital(runs(count, letter))}: then a change of ${formatShare(wantedShare ?? 0)} would show.`;
    case 'beyond-reach':
      return `Nothing more: a change of ${formatShare(wantedShare ?? 0)} is too small to be shown by a reasonable number of runs.`;
    case 'enough':
      return 'Enough: what is said holds, and no further run is needed for it.';
  }
}

/** A repeat that lies apart, and what is known to be different about it. */
export function deviatingWords({ label, awayShare, differs }: DeviatingRepeat): Sentence {
  const why = differs.length > 0 ? say`: ${joined(differs, ', ')}` : '';
  return say`${label} reads ${formatShare(Math.abs(awayShare))} ${awayShare < 0 ? 'less' : 'more'} than its setup’s other runs${why}. Set it aside if that explains it.`;
}
