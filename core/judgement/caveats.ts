import { byGravity, type Finding, type Severity } from '../checks/check.ts';
import { brokenWords } from '../limits/broken-words.ts';
import type { BrokenLimit } from '../limits/broken-limits.ts';
import type { Unlikeness } from '../likeness/run-conditions.ts';

/** Something that stands against a figure, whoever reads it. */
export interface Caveat {
  severity: Severity;
  text: string;
}

/** A run of a comparison with what was found on it. */
export interface CaveatRun {
  label: string;
  checks: readonly Finding[];
  broken: readonly BrokenLimit[];
}

/** What was found on one run, or on several alike. */
export interface Mark {
  severity: Severity;
  labels: string[];
  message: string;
}

/** What several runs have in common, said once with all their labels, in the order in which it was found. */
export function saidOnce(found: readonly { label: string; severity: Severity; message: string }[]): Mark[] {
  const marks = new Map<string, Mark>();
  for (const { label, severity, message } of found) {
    const mark = marks.get(message) ?? { severity, labels: [], message };
    if (!mark.labels.includes(label)) mark.labels.push(label);
    marks.set(message, mark);
  }
  return [...marks.values()];
}

/**
 * What stands against a comparison, the gravest first, nothing twice: broken
 * limits of the test's runs, what is not like for like, and what the checks
 * found on the runs of either side. Notes are left to the full list.
 */
export function caveatsOf(
  unlike: readonly Unlikeness[],
  test: readonly CaveatRun[],
  baseline: readonly CaveatRun[],
): Caveat[] {
  const limits = test.flatMap(({ label, broken }) =>
    broken.map((limit): Caveat => ({ severity: 'stop', text: `${label}: ${brokenWords(limit)}.` })),
  );
  const respects = unlike.map(({ severity, message }): Caveat => ({ severity, text: message }));
  const checks = [...test, ...baseline].flatMap((run) => run.checks.map((check) => ({ ...check, label: run.label })));
  const marks = saidOnce(checks).map(({ severity, labels, message }): Caveat => ({ severity, text: `${labels.join(', ')}: ${message}` })); // prettier-ignore
  return [...limits, ...respects, ...marks].filter(({ severity }) => severity !== 'note').sort(byGravity);
}
