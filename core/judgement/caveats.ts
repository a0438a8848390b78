import { say, type Sentence } from '../sentence/sentence.ts';
import { byGravity, type Severity } from '../checks/check.ts';
import type { Unlikeness } from '../likeness/run-conditions.ts';
import { saidOnce, type Mark, type RunFinding } from './run-findings.ts';

/** Something that stands against a figure, whoever reads it. */
export interface Caveat {
  severity: Severity;
  text: Sentence;
}

/** A run of a comparison with what was found on it. */
export interface CaveatRun {
  label: string;
  found: readonly RunFinding[];
}

/**
 * What stands against a comparison, the gravest first, nothing twice: broken
 * limits of the test's runs, what is not like for like, and what was found on
 * the runs of either side. Notes are left to the full list.
 */
export function caveatsOf(
  unlike: readonly Unlikeness[],
  test: readonly CaveatRun[],
  baseline: readonly CaveatRun[],
): Caveat[] {
  const found = (runs: readonly CaveatRun[], which: (found: RunFinding) => boolean) =>
    saidOnce(runs.map(({ label, found: all }) => ({ label, found: all.filter(which) })));
  const caveats = (marks: readonly Mark[]) =>
    marks.map(({ severity, labels, message }): Caveat => ({ severity, text: say`${labels.join(', ')}: ${message}` }));
  const respects = unlike.map(({ severity, message }): Caveat => ({ severity, text: message }));
  // A limit that the baseline broke is told where the baseline is looked at.
  const ofBoth = found([...test, ...baseline], ({ limit }) => !limit);
  return [...caveats(found(test, ({ limit }) => limit)), ...respects, ...caveats(ofBoth)]
    .filter(({ severity }) => severity !== 'note')
    .sort(byGravity);
}
