import type { Job, Run, Setup } from '../../../../contract/records.ts';
import { byGravity, type Finding, type Severity } from '../../../../core/checks/check.ts';
import { heatWords } from '../../../../core/heat/heat-state.ts';
import type { LogEvent } from '../../../../core/log/run-log.ts';
import { heatStateOf } from '../before/heat-of-run.ts';

/** So many events of the log are told beside the figures; the gravest come first. */
const mostEvents = 3;

interface Found {
  job: Job;
  run: Run;
  baseline: Setup;
  checks: readonly Finding[];
  unusable: string | undefined;
  events: readonly LogEvent[];
}

/** All that is to be said of a run right after the lift, the gravest first, nothing twice. */
export function findingsOf({
  job,
  run,
  baseline,
  checks,
  unusable,
  events,
}: Found): { severity: Severity; text: string }[] {
  const state = heatStateOf(job, run, baseline);
  const started = checks.find(({ id }) => id === 'start-temperature');
  // The state by its word where that is news, by how many kelvin otherwise; never both.
  const heat = state === 'cold peak' || (!started && state !== 'ready' && state !== 'unknown') ? heatWords[state] : started?.message; // prettier-ignore
  const mind = (text: string) => ({ severity: 'mind' as const, text });
  return [
    ...(unusable ? [mind(`No curve can be made of this run: ${unusable}`)] : []),
    ...(run.state === 'interrupted' ? [mind('It was interrupted; everything that had arrived was kept.')] : []),
    ...(heat ? [mind(heat)] : []),
    ...checks.filter((check) => check !== started).map(({ severity, message }) => ({ severity, text: message })),
    ...events.slice(0, mostEvents).map(({ severity, message }) => ({ severity, text: message })),
    ...run.remarks.map(mind),
  ].sort(byGravity);
}
