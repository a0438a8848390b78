import { crankLossOfCoast, readCrankLoss, type CrankLoss } from '../../dyno/crank.ts';
import { Refusal } from '../../refusal.ts';
import type { RunRecord } from '../request/job-record.ts';
import type { Reading } from './reading.ts';

/** The coast-down that a word names as its loss; undefined where the word is a figure, or names none. */
export function coastDownNamed<Run extends RunRecord>(word: string | undefined, runs: readonly Run[]): Run | undefined {
  return word === undefined || isFigure(word)
    ? undefined
    : runs.find(({ label, kind }) => label === word && kind === 'coast-down');
}

/**
 * The loss that a crank estimate rests on.
 * @param word percent such as `15`, percent and kW such as `12+3`, or a coast-down's label
 * @throws Refusal when there is no such coast-down, it measured nothing, or the figure is more than any driveline loses
 */
export function crankLossFor(
  word: string,
  runs: readonly RunRecord[],
  readings: ReadonlyMap<number, Reading>,
): CrankLoss {
  if (isFigure(word)) return readCrankLoss(word);
  const run = coastDownNamed(word, runs);
  const reading = run && readings.get(run.id);
  if (!run || !reading) throw new Refusal(`This job has no coast-down ${word}.`);
  if (reading.kind === 'unusable') throw new Refusal(reading.unusable.why);
  if (reading.kind !== 'coast-down') throw new Refusal(`${word} is no coast-down.`);
  return crankLossOfCoast(reading.coast, run.dyno, word);
}

const isFigure = (word: string) => /^\d/.test(word);
