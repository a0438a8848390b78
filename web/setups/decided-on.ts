import type { Job, Setup } from '../../contract/job/records.ts';
import type { JobFigures } from '../../core/figures/job-figures.ts';
import type { Units } from '../../core/units/told-units.ts';
import { judgedOfStep } from '../../core/figures/runs/kinds-of-job.ts';
import { written } from '../../core/sentence/sentence.ts';
import { testsSentence } from '../../core/wording/kind-words.ts';
import { decisionRecord } from '../../core/wording/decision-record.ts';

/** What a decision on a setup would rest on now: kept with it when it is made. */
export function decidedOn(job: Job, figures: JobFigures | undefined, setup: Setup, units: Units): string {
  const own = figures?.setups.find(({ setupId }) => setupId === setup.id);
  const tested = judgedOfStep(figures?.tests, setup.id);
  // Without a power run it rests on the other tests.
  if (!own && tested.length > 0) return written(testsSentence(tested) ?? '', units);
  if (!figures || !own) return '';
  const pair = own.onParent ?? own.onBaseline;
  const letterOf = (id: number | undefined) => job.setups.find((candidate) => candidate.id === id)?.letter ?? '?';
  const { spread, setups, estimate } = figures;
  return decisionRecord(
    {
      pair,
      letters: { test: setup.letter, against: letterOf(pair?.againstId) },
      among: setups.length,
      spread,
      // What was expected is a figure at the wheels, on the very setup that it was changed from.
      predictionKw: estimate === undefined && pair?.againstId === setup.parentId ? setup.predictionKw : null,
      estimate,
    },
    units,
  );
}
