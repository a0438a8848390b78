import type { JudgedFigure, KindJudgement } from '../judgement/kind-judgement.ts';
import type { ComparedKind } from '../run-kinds/figures-of-kind.ts';
import { joined, say, type Sentence } from '../sentence/sentence.ts';
import { differenceSentence, figureSentence, kindNames, testsSentence } from '../wording/kind-words.ts';

/** By which words an owner asks for what a test tells, and the tests that tell it, the most telling first. */
const asked: readonly (readonly [words: RegExp, kinds: readonly ComparedKind[]])[] = [
  [/\b(stumbl|hesitat|flat spot|bogs?\b|jerk|surg|tip[- ]in|lag|respon)/, ['transient', 'step']],
  [/\b(cold start|starts?\b|starting|crank)/, ['cold-start']],
  [/\b(idle|idling|hunt|stall)/, ['idle', 'cold-start']],
  [/\b(consum|econom|mileage|fuel use|thirst|litres|per gallon)/, ['cruise', 'step']],
  [/\b(overtak|on the road|km\/h|mph)/, ['road-check']],
];

/** Of holds in part load this is what a car stumbles by. */
const mixture = /\|lambda$/;

/**
 * What tests say to a question that is about no power: the sentence to answer
 * with; undefined where the question names none, or nothing of it was tested.
 */
export function askedTests(question: string, judged: readonly KindJudgement[]): Sentence | undefined {
  const words = question.toLowerCase();
  const kinds = asked.find(([named]) => named.test(words))?.[1] ?? [];
  const answering = kinds.flatMap((kind) => judged.find((one) => one.kind === kind) ?? []);
  if (answering.length === 0) return undefined;
  const claimed = answering.some(({ figures }) => figures.some(({ claim }) => claim));
  const moved = answering.find(({ kind }) => kind === 'step')?.figures.filter(isMovedMixture) ?? [];
  if (!claimed && moved.length > 0) return mixtureSentence(moved);
  const said = testsSentence(answering);
  return said && moved.length > 0 ? say`${said} ${mixtureSentence(moved)}` : said;
}

/** A mixture that moved by more than its interval. */
const isMovedMixture = ({ id, difference, halfWidth }: JudgedFigure) =>
  mixture.test(id) && Math.abs(difference) > halfWidth;

/** The holds whose mixture moved most: what was read, and no claim. */
function mixtureSentence(moved: readonly JudgedFigure[]): Sentence {
  const most = [...moved].sort((a, b) => Math.abs(b.difference) - Math.abs(a.difference)).slice(0, 2);
  const told = most.map(
    (figure) =>
      say`${figure.label} ${at(figure, figure.before)} → ${at(figure, figure.after)} (${differenceSentence(figure)})`,
  );
  return say`At ${kindNames.step}: ${joined(told, '; ')}.`;
}

const at = (figure: JudgedFigure, value: number) => figureSentence({ ...figure, value, halfWidth: NaN });
