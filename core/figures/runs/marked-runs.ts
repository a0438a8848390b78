import { sampleAt } from '../../numerics/sample-at.ts';
import { startTemperature } from '../../checks/start-temperature.ts';
import { crankKw } from '../../dyno/crank.ts';
import { startWindow, type StartWindow } from '../../heat/start-window.ts';
import { rawPoints, type RawPoints } from '../../reduction/raw-points.ts';
import { brokenLimits } from '../../limits/broken-limits.ts';
import { eventsOf } from '../../log/view/logged-pull.ts';
import { runFindings, type RunFinding } from '../../judgement/run-findings.ts';
import { curveOf, type CurveSettings } from './corrected-curve.ts';
import { drumSpeedAt } from '../../reduction/torque-fit.ts';
import { type CountedRun, type FiguredRun, type RunFigures } from './figured-run.ts';
import type { ResolvedRequest } from './resolved-request.ts';
import { reachOf } from './limits-of-runs.ts';

/** The curve of one run as it is asked for, and the limits that it broke. @throws Refusal where none can be made */
export function figuresOf(run: FiguredRun, { settings, limits = [] }: ResolvedRequest): RunFigures {
  const { id, setupId, counted, conditions } = run;
  const curve = curveOf(run.sweep, run.air, settings, run.circumstances);
  const reach = reachOf(run, curve, settings.crank !== undefined);
  const broken = brokenLimits(limits, reach, run.engine, settings.crank ? 0 : undefined);
  return { id, setupId, label: conditions.label, counted, curve, broken };
}

/** What was found on the runs of the setups that are looked at: the log of a run is only searched where it is shown. */
export function markFindings(figured: readonly CountedRun[], { testId, againstId }: ResolvedRequest): void {
  for (const { run, figures } of figured) {
    if (run.setupId !== testId && run.setupId !== againstId) continue;
    figures.found = findingsOf({ run, figures });
  }
}

/** All that was found on a run, the gravest first; its log is searched unless that was done before. */
export function findingsOf({ run, figures }: CountedRun): RunFinding[] {
  if (figures.found) return figures.found;
  return runFindings(figures.broken, run.logged ? eventsOf(run.logged, run.engine) : [], figures.curve.checks);
}

/** What a run's samples gave before smoothing, as its curve is corrected. */
export function rawOf({ sweep }: FiguredRun, { curve }: RunFigures, { gridRpm, crank }: CurveSettings): RawPoints {
  const points = rawPoints(sweep, gridRpm);
  const shown = (kw: number, index: number) => {
    const corrected = kw * curve.correction.factor;
    return crank ? crankKw(corrected, crank, drumSpeedAt(sweep, sampleAt(points.engineSpeedRpm, index))) : corrected;
  };
  return { ...points, powerKw: points.powerKw.map(shown) };
}

/** Where the baseline's runs started, by their temperatures. */
export function baselineWindow(baseline: readonly CountedRun[]): StartWindow {
  return startWindow(baseline.map(({ run }) => run.conditions.startTemperatures ?? {}));
}

/** Marks the runs of other setups that started outside the baseline's window. */
export function markStartTemperatures(figured: readonly CountedRun[], window: StartWindow, baselineId: number): void {
  for (const { run, figures } of figured) {
    const { startTemperatures } = run.conditions;
    const found = startTemperatures && run.setupId !== baselineId && startTemperature(startTemperatures, window);
    if (found) figures.curve.checks.push(found);
  }
}
