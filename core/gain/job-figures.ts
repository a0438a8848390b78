import { startTemperature } from '../checks/start-temperature.ts';
import { crankAssumption, crankKw } from '../driveline/crank.ts';
import { startWindow, type StartWindow } from '../heat/start-window.ts';
import { rawPoints, type RawPoints } from '../reduction/raw-points.ts';
import { curveOf, type ViewSettings } from '../reduction/reduce.ts';
import { drumSpeedAt } from '../reduction/torque-fit.ts';
import { Refusal } from '../refusal.ts';
import type { Span } from '../smoothing/span.ts';
import { runCurve, type CountedRun, type FiguredRun, type RunFigures, type UnusableRun } from './figured-run.ts';
import { keyOf, variedItems } from '../response/levels.ts';
import { responseTo, type NoResponse, type Response } from '../response/response.ts';
import { attributionOf, type AttributedSetup, type Attribution } from './attribution.ts';
import { borrowedRunCurves } from './borrowed-comparison.ts';
import { comparisonFigures, type ComparisonFigures, type FiguresRequest } from './job-comparison.ts';
import type { MeanCurve } from './run-curve.ts';
import { setupFigures, type SetupCurves, type SetupFigures } from './setup-figures.ts';

export interface JobFigures {
  spanRpm: Span;
  /** Least and greatest correction factor among the runs shown; absent when there is no run. */
  factors?: [number, number];
  /** What power and torque rest on where they are estimated for the crank; absent for figures at the wheels. */
  estimate?: string;
  /** Why there is no estimate for the crank, where one was asked for: the figures are those at the wheels. */
  noEstimate?: string;
  runs: RunFigures[];
  /** Runs that no curve can be made of, and why. */
  unusable: UnusableRun[];
  setups: SetupFigures[];
  comparison?: ComparisonFigures;
  /** The borrowed curve that the setup is compared with. */
  borrowed?: Record<'power' | 'torque', MeanCurve>;
  /** Why there is no comparison, as a sentence. */
  noComparison?: string;
  /** What each step on the way to the test setup gave, where it was asked for. */
  attribution?: Attribution;
  /** Numeric items that runs were made at several levels of, and the response to one of them, where it was asked for. */
  varied?: { key: string; label: string; levels: number }[];
  response?: { key: string; label: string; unit: string; found: Response | NoResponse };
}

/** Everything that the Compare stage shows of a job at the settings given. Runs whose curve is refused are listed instead. */
export function jobFigures(runs: readonly FiguredRun[], request: FiguresRequest): JobFigures {
  const unusable: UnusableRun[] = [];
  const figured = runs.flatMap((run): CountedRun[] => {
    try {
      const figures = figuresOf(run, request.settings);
      const raw = request.raw && run.setupId === request.testId ? rawOf(run, figures, request.settings) : undefined;
      return [{ run, figures: raw ? { ...figures, raw } : figures }];
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      unusable.push({ id: run.id, label: run.conditions.label, why: error.message });
      return [];
    }
  });
  const counted = (setupId: number) => figured.filter(({ run }) => run.setupId === setupId && run.counted);
  markStartTemperatures(figured, baselineWindow(counted(request.baselineId)), request.baselineId);
  const setups = request.setups.map(({ id, parentId }): SetupCurves => {
    const own = counted(id);
    return {
      setupId: id,
      parentId,
      power: own.map((one) => runCurve(one, 'powerKw')),
      torque: own.map((one) => runCurve(one, 'torqueNm')),
      travel: own.map(({ figures: { curve } }) => curve),
    };
  });
  const factors = figured.filter(({ run }) => run.counted).map(({ figures }) => figures.curve.correction.factor);
  const result: JobFigures = {
    spanRpm: request.settings.spanRpm,
    ...(request.settings.crank ? { estimate: crankAssumption(request.settings.crank) } : {}),
    runs: figured.map(({ figures }) => figures),
    unusable,
    setups: setupFigures(setups, request.baselineId),
    ...(request.beside === 'steps' ? stepsOf(request, setups) : {}),
    ...(request.beside === 'response' ? responseOf(request, setups) : {}),
    ...(factors.length > 0 ? { factors: [Math.min(...factors), Math.max(...factors)] } : {}),
  };
  if (request.curvesOnly) return result;
  try {
    if (request.borrowed) result.borrowed = borrowedRunCurves(request.borrowed, request.settings.gridRpm);
    result.comparison = comparisonFigures(request, setups, counted);
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    result.noComparison = error.message;
  }
  return result;
}

/** The setups with their counted runs' power. */
function runSetups(request: FiguresRequest, curves: readonly SetupCurves[]): AttributedSetup[] {
  return request.setups.map((setup) => ({
    id: setup.id,
    letter: setup.letter,
    parentId: setup.parentId ?? null,
    change: setup.change ?? '',
    items: setup.items ?? [],
    runs: curves.find((one) => one.setupId === setup.id)?.power ?? [],
  }));
}

/** The ladder of steps to the test setup. */
function stepsOf(request: FiguresRequest, curves: readonly SetupCurves[]): Pick<JobFigures, 'attribution'> {
  const attribution = attributionOf(
    runSetups(request, curves),
    request.testId,
    request.bands?.[0],
    request.dyno?.within,
  );
  return attribution ? { attribution } : {};
}

/** What the numeric items around the test setup gave at their levels. */
function responseOf(request: FiguresRequest, curves: readonly SetupCurves[]): Pick<JobFigures, 'varied' | 'response'> {
  const setups = runSetups(request, curves);
  const ran = setups.filter(({ runs }) => runs.length > 0).map(({ id }) => id);
  const items = variedItems(setups, request.testId, ran);
  const varied = items.map((item) => ({ key: keyOf(item), label: item.label, levels: item.levels.length }));
  const chosen = items.find((item) => keyOf(item) === request.respondTo) ?? items[0];
  if (!chosen) return { varied };
  const levels = chosen.levels.map(({ x, setupIds }) => {
    const at = setups.filter(({ id }) => setupIds.includes(id));
    return { x, letters: at.map(({ letter }) => letter).join(' '), runs: at.flatMap(({ runs }) => runs) };
  });
  const found = responseTo(levels, request.bands?.[0], chosen);
  return { varied, response: { key: keyOf(chosen), label: chosen.label, unit: chosen.unit, found } };
}

function figuresOf(run: FiguredRun, settings: ViewSettings): RunFigures {
  const { id, setupId, counted, conditions } = run;
  return {
    id,
    setupId,
    label: conditions.label,
    counted,
    curve: curveOf(run.sweep, run.air, settings, run.circumstances),
  };
}

function rawOf({ sweep }: FiguredRun, { curve }: RunFigures, { gridRpm, crank }: ViewSettings): RawPoints {
  const points = rawPoints(sweep, gridRpm);
  const shown = (kw: number, index: number) => {
    const corrected = kw * curve.correction.factor;
    return crank ? crankKw(corrected, crank, drumSpeedAt(sweep, points.engineSpeedRpm[index]!)) : corrected;
  };
  return { ...points, powerKw: points.powerKw.map(shown) };
}

function baselineWindow(baseline: readonly CountedRun[]): StartWindow {
  return startWindow(baseline.map(({ run }) => run.conditions.startTemperatures ?? {}));
}

/** Marks the runs of other setups that started outside the baseline's window. */
function markStartTemperatures(figured: readonly CountedRun[], window: StartWindow, baselineId: number): void {
  for (const { run, figures } of figured) {
    const { startTemperatures } = run.conditions;
    const found = startTemperatures && run.setupId !== baselineId && startTemperature(startTemperatures, window);
    if (found) figures.curve.checks.push(found);
  }
}
