import { say, type Sentence } from '../sentence/sentence.ts';
import { byGravity, type Severity } from '../checks/check.ts';
import type { Unlikeness } from '../likeness/run-conditions.ts';
import { saidOnce, type RunFinding } from './run-findings.ts';

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
  const only = (runs: readonly CaveatRun[], which: (found: RunFinding) => boolean) =>
    saidOnce(runs.map(({ label, found }) => ({ label, found: found.filter(which) }))).map(
      ({ severity, labels, message }): Caveat => ({ severity, text: say`${labels.join(', ')}: ${message}` }),
    );
  const respects = unlike.map(({ severity, message }): Caveat => ({ severity, text: message }));
  return [
    ...only(test, ({ limit }) => limit),
    ...respects,
    ...only(test, ({ limit }) => !limit),
    // What the baseline went beyond is told of it where it stands itself.
    ...only(baseline, ({ limit }) => !limit),
  ]
    .filter(({ severity }) => severity !== 'note')
    .sort(byGravity);
}
