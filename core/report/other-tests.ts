import type { JudgedKind } from '../figures/kinds-of-job.ts';
import type { JudgedFigure } from '../judgement/kind-judgement.ts';
import { isAskedOfHolds } from '../run-kinds/hold-figures.ts';
import { capitalised, say, type Sentence } from '../sentence/sentence.ts';
import { differenceSentence, figureSentence, kindNames, verdictWord } from '../wording/kind-words.ts';
import type { Cell, Content } from './report.ts';
import type { ReportSource } from './reported-job.ts';

const right = (text: Sentence, tone?: Cell['tone']): Cell => ({ text, right: true, ...(tone && { tone }) });

/** Runs that are no power runs, as arrived and as delivered: what may be claimed of, and what was alike or not. */
export function otherTests({ figures: { tests } }: ReportSource, later: string): Content | undefined {
  const judged = (tests?.shown ?? []).flatMap(({ kind, judgement }) => (judgement ? [{ kind, judgement }] : []));
  if (judged.length === 0) return undefined;
  const rows = judged.flatMap(({ kind, judgement }) =>
    judgement.figures
      .filter((figure) => standsInReport(kind, figure))
      .map((figure): Cell[] => {
        const at = (value: number) => right(figureSentence({ ...figure, value, halfWidth: NaN }));
        return [{ text: say`${kindNames[kind]}: ${figure.label}` }, at(figure.before), at(figure.after), right(differenceSentence(figure), toneOf(figure)), { text: verdictWord(figure) }]; // prettier-ignore
      }),
  );
  return {
    is: 'table',
    head: [{ text: 'test' }, right('arrived'), right(later), right('difference'), { text: 'shown or not' }],
    rows,
    note: 'Each kind of test by itself; ± is a 95 % interval. Bold is what is shown, with the chance of any false claim of a kind below 5 %.', // prettier-ignore
  };
}

/** What stands against the tests: why nothing is claimed, and what was found on the runs of what is delivered. */
export function careOfTests({ figures: { tests } }: ReportSource, deliveredId: number) {
  return (tests?.shown ?? []).flatMap(({ kind, judgement, runs }) => [
    ...(judgement?.caveats ?? []).map(({ severity, text }) => ({ severity, text: say`${capitalised(kindNames[kind])}: ${text}` })), // prettier-ignore
    ...runs.filter(({ setupId }) => setupId === deliveredId).flatMap(({ label, figures }) => (figures?.found ?? []).map(({ severity, message }) => ({ severity, text: say`${label ?? ''}: ${message}` }))), // prettier-ignore
  ]);
}

/** What is claimed of the tests of a step, in a few words; empty where nothing is. */
export function claimedInStep({ figures: { tests } }: ReportSource, setupId: number): Sentence[] {
  const kinds = tests?.steps.find(({ testId }) => testId === setupId)?.kinds ?? [];
  return kinds.flatMap(
    ({ kind, judgement }) =>
    (judgement?.figures ?? []).filter((figure) => standsInReport(kind, figure) && figure.claim).map((figure) => say`${kindNames[kind]}: ${figure.label} ${differenceSentence(figure)}`), // prettier-ignore
  );
}

/** What the tests answer where power does not: what is claimed of them, else that nothing is. */
export function answerOfTests({ figures: { tests } }: ReportSource): Sentence | undefined {
  const judged = (tests?.shown ?? []).flatMap(({ kind, judgement }) => (judgement ? [{ kind, judgement }] : []));
  const [first] = judged;
  if (!first) return undefined;
  const all = judged.flatMap(({ kind, judgement }) => judgement.figures.filter(({ asked }) => asked).map((figure) => ({ kind, figure }))); // prettier-ignore
  const claimed = all.find(({ figure }) => figure.claim);
  if (claimed) return say`${capitalised(kindNames[claimed.kind])}: ${claimed.figure.label} ${differenceSentence(claimed.figure)}, ${verdictWord(claimed.figure)}.`; // prettier-ignore
  const [reason] = first.judgement.caveats.filter(({ severity }) => severity === 'stop');
  if (reason) return say`${capitalised(kindNames[first.kind])}: ${reason.text}`;
  const main = all[0] ?? { kind: first.kind, figure: first.judgement.figures[0]! };
  return say`${capitalised(kindNames[main.kind])}: ${main.figure.label} ${differenceSentence(main.figure)}, no difference is shown.`; // prettier-ignore
}

const standsInReport = (kind: JudgedKind['kind'], { id, asked }: JudgedFigure) => (kind === 'step' ? isAskedOfHolds(id) : asked); // prettier-ignore

const toneOf = ({ good }: JudgedFigure): Cell['tone'] => (good === null ? undefined : good ? 'gain' : 'loss');
