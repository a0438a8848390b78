import type { Sentence } from '../../../../core/sentence/sentence.ts';
import type { Job, Run, Setup } from '../../../../contract/job/records.ts';
import { byGravity, type Severity } from '../../../../core/checks/check.ts';
import { heatWords } from '../../../../core/heat/heat-state.ts';
import type { RunFinding } from '../../../../core/judgement/run-findings.ts';
import { heatStateOf } from '../../../../core/heat/heat-of-run.ts';

/** So much of what the log shows is told beside the figures; the gravest come first, and a broken limit always. */
const mostOfLog = 3;

interface Found {
  job: Job;
  run: Run;
  baseline: Setup;
  found: readonly RunFinding[];
  unusable: string | undefined;
}

/** All that is to be said of a run right after the lift, the gravest first, nothing twice. */
export function findingsOf({ job, run, baseline, found, unusable }: Found): { severity: Severity; text: Sentence }[] {
  const state = heatStateOf(job, run, baseline);
  const started = found.find(({ id }) => id === 'start-temperature');
  // The state by its word where that is news, by how many kelvin otherwise; never both.
  const heat =
    state === 'cold peak' || (!started && state !== 'ready' && state !== 'unknown')
      ? heatWords[state]
      : started?.message;
  const told = new Set(found.filter(({ from, limit }) => from === 'log' && !limit).slice(0, mostOfLog));
  const mind = (text: Sentence) => ({ severity: 'mind' as const, text });
  return [
    ...(unusable ? [mind(`No curve can be made of this run: ${unusable}`)] : []),
    ...(run.state === 'interrupted' ? [mind('It was interrupted; everything that had arrived was kept.')] : []),
    ...(heat ? [mind(heat)] : []),
    ...found
      .filter((finding) => finding !== started && (finding.limit || finding.from !== 'log' || told.has(finding)))
      .map(({ severity, message }) => ({ severity, text: message })),
    ...run.remarks.map(mind),
  ].sort(byGravity);
}
