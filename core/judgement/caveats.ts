import type { Finding, Severity } from '../checks/check.ts';
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

const order: Record<Severity, number> = { stop: 0, mind: 1, note: 2 };

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
  const found: Caveat[] = [];
  const labelled = new Map<string, { severity: Severity; labels: string[] }>();
  const tell = (text: string, severity: Severity, label: string) => {
    const known = labelled.get(text) ?? { severity, labels: [] };
    if (!known.labels.includes(label)) known.labels.push(label);
    labelled.set(text, known);
  };
  for (const { label, broken } of test) for (const limit of broken) found.push({ severity: 'stop', text: `${label}: ${brokenWords(limit)}.` }); // prettier-ignore
  for (const { severity, message } of unlike) found.push({ severity, text: message });
  for (const { label, checks } of [...test, ...baseline]) for (const { message, severity } of checks) tell(message, severity, label); // prettier-ignore
  for (const [message, { severity, labels }] of labelled)
    found.push({ severity, text: `${labels.join(', ')}: ${message}` });
  return found.filter(({ severity }) => severity !== 'note').sort((a, b) => order[a.severity] - order[b.severity]);
}
