import { baselineRuns, type FrozenBaseline } from '../job/baseline.ts';
import type { CountableRun } from '../job/counted.ts';
import { heatState, type HeatState } from './heat-state.ts';
import { startWindow, type StartWindow } from './start-window.ts';

/** A run as far as its heat tells of it. */
interface HeatRun extends CountableRun {
  id: number;
  state: string;
  startedAt: string | null;
  endedAt?: string | null;
  startTemperatures: Readonly<Record<string, number>>;
}

interface HeatJob<Run extends HeatRun> {
  runs: readonly Run[];
  baseline: FrozenBaseline | null;
}

/** The window of starting temperatures that a baseline's counted runs set. */
export function baselineWindow<Run extends HeatRun>(
  { runs, baseline: frozen }: HeatJob<Run>,
  baseline: { id: number },
): StartWindow {
  return startWindow(baselineRuns(runs, baseline.id, frozen).map((run) => run.startTemperatures));
}

/** A run's heat state: by the baseline's window and the rest before it. */
export function heatStateOf<Run extends HeatRun>(job: HeatJob<Run>, run: Run, baseline: { id: number }): HeatState {
  const began = Date.parse(run.startedAt ?? '');
  const endings = job.runs.flatMap(({ id, endedAt }) => (id !== run.id && endedAt ? [Date.parse(endedAt)] : []));
  const ended = Math.max(...endings.filter((at) => at <= began), 0);
  const restedMin = ended === 0 ? undefined : (began - ended) / 60_000;
  // A run of the baseline is not measured against itself.
  const others = job.runs.filter((other) => other.id !== run.id);
  return heatState(run.startTemperatures, baselineWindow({ ...job, runs: others }, baseline), restedMin);
}
