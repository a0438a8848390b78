import type { Job, Run, Setup } from '../../contract/records.ts';
import { heatState, type HeatState } from '../../core/heat/heat-state.ts';
import { startWindow, type StartWindow } from '../../core/heat/start-window.ts';
import { baselineRuns } from '../../core/job/baseline.ts';

/** The window of starting temperatures that a baseline's counted runs set. */
export function baselineWindow(
  { runs, baseline: frozen }: Pick<Job, 'runs' | 'baseline'>,
  baseline: Setup,
): StartWindow {
  return startWindow(baselineRuns(runs, baseline.id, frozen).map((run) => run.startTemperatures));
}

/** A run's heat state: by the baseline's window and the rest before it. */
export function heatStateOf(job: Job, run: Run, baseline: Setup): HeatState {
  const began = Date.parse(run.startedAt);
  const endings = job.runs.flatMap(({ id, endedAt }) => (id !== run.id && endedAt ? [Date.parse(endedAt)] : []));
  const ended = Math.max(...endings.filter((at) => at <= began), 0);
  const restedMin = ended === 0 ? undefined : (began - ended) / 60_000;
  // A baseline run is not its own measure.
  const others = job.runs.filter((other) => other.id !== run.id);
  return heatState(run.startTemperatures, baselineWindow({ ...job, runs: others }, baseline), restedMin);
}
