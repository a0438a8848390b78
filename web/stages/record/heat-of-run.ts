import type { Job, Run, Setup } from '../../../contract/records.ts';
import { heatState, type HeatState } from '../../../core/heat/heat-state.ts';
import { startWindow, type StartWindow } from '../../../core/heat/start-window.ts';
import { countedRuns } from '../../../core/job/counted.ts';

/** The window of starting temperatures that a baseline's counted runs set. */
export function baselineWindow(runs: readonly Run[], baseline: Setup): StartWindow {
  return startWindow(countedRuns(runs, baseline.id).map((run) => run.startTemperatures));
}

/** A run's heat state: by the baseline's window and the rest before it. */
export function heatStateOf(job: Job, run: Run, baseline: Setup): HeatState {
  const began = Date.parse(run.startedAt);
  const before = job.runs.filter((one) => one.id !== run.id && one.endedAt && Date.parse(one.endedAt) <= began);
  const ended = Math.max(...before.map((one) => Date.parse(one.endedAt!)), 0);
  const restedMin = ended === 0 ? undefined : (began - ended) / 60_000;
  // A baseline run is not its own measure.
  const others = job.runs.filter((one) => one.id !== run.id);
  return heatState(run.startTemperatures, baselineWindow(others, baseline), restedMin);
}
