import type { JudgedFigure, KindJudgement } from '../judgement/kind-judgement.ts';
import type { ComparedKind } from '../run-kinds/figures-of-kind.ts';
import { isAskedOfHolds } from '../run-kinds/hold-figures.ts';
import type { RunFigure } from '../run-kinds/run-figure.ts';
import { capitalised, difference, say, withHalfWidth, type Quantity, type Sentence } from '../sentence/sentence.ts';
import { differenceUnit } from '../units/told-units.ts';

/** How the kinds that are judged by themselves are called. */
export const kindNames: Record<ComparedKind, string> = {
  step: 'steady-speed steps',
  idle: 'idle',
  'cold-start': 'cold start',
  transient: 'response',
  cruise: 'cruise',
  'road-check': 'road check',
};

/** A figure with its unit, and with its interval where it has one: `860 ± 3 rpm`. */
export function figureSentence({
  value,
  unit,
  digits,
  halfWidth,
}: Pick<RunFigure, 'value' | 'unit' | 'digits' | 'halfWidth'>): Sentence {
  if (!Number.isFinite(halfWidth)) return withHalfWidth(value, undefined, unit, digits);
  if (differenceUnit(unit) === unit) return withHalfWidth(value, halfWidth, unit, digits);
  const own: Quantity = { value, unit, digits };
  return say`${own} ± ${{ value: halfWidth, unit: differenceUnit(unit), digits, as: 'half-width' }}`;
}

/** `−0.30 ± 0.12 s` */
export function differenceSentence({ difference: value, halfWidth, digits, unit }: JudgedFigure): Sentence {
  return difference(value, Number.isFinite(halfWidth) ? halfWidth : NaN, differenceUnit(unit), digits);
}

/** What may be said of a difference. */
export function verdictWord({ claim, good, asked }: JudgedFigure): string {
  if (!asked) return '';
  if (!claim) return 'not shown';
  const way = claim === 'less' ? 'less, shown' : 'more, shown';
  return good === null ? way : `${way}: ${good ? 'better' : 'worse'}`;
}

/** What tests say of two setups, in one sentence: what is claimed of them, else why nothing is; undefined without any. */
export function testsSentence(judged: readonly KindJudgement[]): Sentence | undefined {
  const [first] = judged;
  if (!first) return undefined;
  const all = judged.flatMap(({ kind, figures }) =>
    figures.filter(({ asked }) => asked).map((figure) => ({ kind, figure })),
  );
  const named = ({ kind, figure }: { kind: ComparedKind; figure: JudgedFigure }) =>
    say`${capitalised(kindNames[kind])}: ${figure.label} ${differenceSentence(figure)}`;
  const claimed = all.find(({ figure }) => figure.claim);
  if (claimed) return say`${named(claimed)}, ${verdictWord(claimed.figure)}.`;
  const [reason] = first.caveats.filter(({ severity }) => severity === 'stop');
  if (reason) return say`${capitalised(kindNames[first.kind])}: ${reason.text}`;
  const main = all[0] ?? { kind: first.kind, figure: first.figures[0]! };
  return say`${named(main)}, no difference is shown.`;
}

/** Whether a figure is told where there is little room: of holds those that are usually asked for, of others those that a claim may be made of. */
export const isTold = (kind: ComparedKind, { id, asked }: JudgedFigure): boolean =>
  kind === 'step' ? isAskedOfHolds(id) : asked;

/** What tests came to, kind by kind, in a few words: what is claimed, or that nothing is. */
export function testsWords(judged: readonly KindJudgement[]): Sentence[] {
  return judged.flatMap(({ kind, figures }) => {
    const claimed = figures.filter((figure) => isTold(kind, figure) && figure.claim);
    if (claimed.length === 0) return [say`${kindNames[kind]}: nothing shown`];
    return claimed.map((figure) => say`${kindNames[kind]}: ${figure.label} ${differenceSentence(figure)}`);
  });
}

/** The tone of what may be said of a difference: none where nothing is claimed, or neither way is wanted. */
export const toneOfFigure = ({ good }: JudgedFigure): 'gain' | 'loss' | undefined =>
  good === null ? undefined : good ? 'gain' : 'loss';
