import { judgedOfStep, type JudgedKind } from '../figures/runs/kinds-of-job.ts';
import type { JudgedFigure, KindJudgement } from '../judgement/kind-judgement.ts';
import { capitalised, say, type Sentence } from '../sentence/sentence.ts';
import { setupWords } from '../setup/setup-words.ts';
import {
  differenceSentence,
  figureSentence,
  isTold,
  kindNames,
  testsWords,
  toneOfFigure,
  verdictWord,
} from '../wording/kind-words.ts';
import { right, type Cell, type Content } from './report.ts';
import type { ReportSource } from './reported-job.ts';

interface TestedPair {
  before: string;
  after: string;
  judged: KindJudgement[];
  /** What was tried, where it is not what is delivered. */
  tried?: Sentence;
}

/**
 * The setups whose tests a report tells: what arrived and what is delivered; where nothing of those can be judged, such
 * as where a change was put back, the last change that was tested.
 */
export function testedPair({ job, figures: { tests } }: ReportSource, later: string): TestedPair | undefined {
  const judgedIn = (kinds: readonly JudgedKind[]) => kinds.flatMap(({ judgement }) => judgement ?? []);
  const shown = judgedIn(tests?.shown ?? []);
  if (shown.length > 0) return { before: 'arrived', after: later, judged: shown };
  const step = tests?.steps.at(-1);
  if (!step) return undefined;
  const named = (id: number) => job.setups.find((setup) => setup.id === id);
  const [before, after] = [named(step.againstId), named(step.testId)];
  if (!before || !after) return undefined;
  const tried = say`Tried against ${before.letter}: ${after.letter}, ${setupWords(job.setups, after)}.`;
  return { before: before.letter, after: after.letter, judged: judgedIn(step.kinds), tried };
}

/** Runs that are no power runs, before and after: what may be claimed of them, and what was alike or not. */
export function otherTests(source: ReportSource, later: string): Content | undefined {
  const pair = testedPair(source, later);
  if (!pair) return undefined;
  const told = pair.judged.flatMap(({ kind, figures }) =>
    figures.filter((figure) => isTold(kind, figure)).map((figure) => ({ kind, figure })),
  );
  const differing = told.filter(({ figure }) => differs(figure));
  // Where nothing differs, that is what there is to tell.
  const shown = differing.length > 0 ? differing : told;
  const rest = told.length - shown.length;
  const rows = shown.map(({ kind, figure }): Cell[] => {
    const at = (value: number) => right(figureSentence({ ...figure, value, halfWidth: NaN }));
    return [
      { text: say`${kindNames[kind]}: ${figure.label}` },
      at(figure.before),
      at(figure.after),
      right(differenceSentence(figure), toneOfFigure(figure)),
      { text: verdictWord(figure) },
    ];
  });
  return {
    is: 'table',
    head: [{ text: 'test' }, right(pair.before), right(pair.after), right('difference'), { text: 'claim' }],
    rows,
    note: rest > 0 ? say`${note} Beside them ${String(rest)} more figures do not differ beyond their intervals.` : note,
  };
}

const note =
  'Each kind of test by itself; ± is a 95 % interval. Bold is what is shown, with the chance of any false claim of a kind below 5 %.';

/** Whether a figure moved by more than its interval; one without an interval may have. */
const differs = ({ difference, halfWidth, claim }: JudgedFigure) =>
  claim !== null || (difference !== 0 && !(Math.abs(difference) <= halfWidth));

/** What stands against the tests: why nothing is claimed, and what was found on the runs of what is delivered. */
export function careOfTests(source: ReportSource, deliveredId: number) {
  const judged = testedPair(source, '')?.judged ?? [];
  return [
    ...judged.flatMap(({ kind, caveats }) =>
      caveats.map(({ severity, text }) => ({ severity, text: say`${capitalised(kindNames[kind])}: ${text}` })),
    ),
    ...(source.figures.tests?.shown ?? []).flatMap(({ runs }) =>
      runs
        .filter(({ setupId }) => setupId === deliveredId)
        .flatMap(({ label, figures }) =>
          (figures?.found ?? []).map(({ severity, message }) => ({ severity, text: say`${label ?? ''}: ${message}` })),
        ),
    ),
  ];
}

/** What the tests of a step came to, kind by kind, in a few words. */
export function testsOfStep({ figures: { tests } }: ReportSource, setupId: number): Sentence[] {
  return testsWords(judgedOfStep(tests, setupId));
}
