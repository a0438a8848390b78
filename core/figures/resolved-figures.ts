import { sampleAt } from '../numerics/sample-at.ts';
import { startTemperature } from '../checks/start-temperature.ts';
import { crankAssumption, crankKw } from '../dyno/crank.ts';
import { startWindow, type StartWindow } from '../heat/start-window.ts';
import { rawPoints, type RawPoints } from '../reduction/raw-points.ts';
import { brokenLimits, worstOf } from '../limits/broken-limits.ts';
import { eventsOf } from '../log/view/logged-pull.ts';
import { runFindings } from '../judgement/run-findings.ts';
import { curveOf, type CurveSettings } from './runs/corrected-curve.ts';
import { drumSpeedAt } from '../reduction/torque-fit.ts';
import { Refusal } from '../refusal.ts';
import { runCurve, type CountedRun, type FiguredRun, type RunFigures, type UnusableRun } from './runs/figured-run.ts';
import { limitQuantities } from '../limits/limit.ts';
import { variedItems } from '../response/levels.ts';
import { variedPlanes } from '../response/plane.ts';
import { planeFigures } from '../response/plane-figures.ts';
import { responseTo, type Level, type StepBetween } from '../response/response.ts';
import { attributionOf, type AttributedSetup, type DifferenceBetween } from '../comparison/attribution.ts';
import { sameStates } from '../setup/difference.ts';
import { pairDifference, pairsOf, stepsOf as setupSteps, type PairsOf } from './pairs/compared-pair.ts';
import { comparisonFigures, comparisonOfPair } from './pairs/pair-comparison.ts';
import { bestSetup } from '../judgement/best-setup.ts';
import { paceOf } from '../judgement/pace.ts';
import { nextRun, type NextRun } from '../judgement/next-run.ts';
import type { FamilyPair } from '../judgement/job-claims.ts';
import type { SetupCurves } from './pairs/compared-pair.ts';
import { setupFigures, type SetupFigures } from './pairs/setup-figures.ts';
import type { ResolvedRequest } from './runs/resolved-request.ts';
import { borrowedRunCurves, isPeakAlone, type BorrowedCurve } from './request/borrowed-curve.ts';
import { normSentence } from './pairs/norm-sentence.ts';
import { unusableFor } from './runs/unusable.ts';
import { headroomNow, headroomOf, reachOf } from './runs/limits-of-runs.ts';
import type { JobFigures } from './job-figures.ts';
import { targetsOfJob } from './runs/targets-of-job.ts';

/** A job's figures once everything is decided. Runs whose curve is refused are listed instead. */
export function resolvedFigures(runs: readonly FiguredRun[], request: ResolvedRequest): JobFigures {
  const unusable: UnusableRun[] = [];
  const states = sameStates(setupSteps(request.setups));
  const figured = runs.flatMap((stored): CountedRun[] => {
    // What comes from another job is in no state of this one's.
    const run = stored.conditions.origin === undefined ? { ...stored, state: states.get(stored.setupId) } : stored;
    try {
      const figures = figuresOf(run, request);
      const raw = request.raw && run.setupId === request.testId ? rawOf(run, figures, request.settings) : undefined;
      return [{ run, figures: raw ? { ...figures, raw } : figures }];
    } catch (error) {
      unusable.push({ id: run.id, label: run.conditions.label, ...unusableFor(error) });
      return [];
    }
  });
  const counted = (setupId: number) => figured.filter(({ run }) => run.setupId === setupId && run.counted);
  markStartTemperatures(figured, baselineWindow(counted(request.baselineId)), request.baselineId);
  if (!request.curvesOnly) markFindings(figured, request);
  const setups = request.setups.map(({ id, parentId }): SetupCurves => {
    const runsOfSetup = counted(id);
    return {
      setupId: id,
      parentId,
      power: runsOfSetup.map((run) => runCurve(run, 'powerKw')),
      torque: runsOfSetup.map((run) => runCurve(run, 'torqueNm')),
      travel: runsOfSetup.map(({ figures: { curve } }) => curve),
      boost: runsOfSetup.flatMap(({ run }) => run.logged?.means.get('boost') ?? []),
    };
  });
  const factors = figured.filter(({ run }) => run.counted).map(({ figures }) => figures.curve.correction.factor);
  const { baselineId, testId, againstId } = request;
  const of = pairsOf(request, setups, counted);
  const figuresOfSetups = setupFigures(of);
  const best = bestSetup(
    figuresOfSetups.map(({ setupId, onBaseline }) => ({
      setupId,
      onBaseline,
      decision: request.setups.find(({ id }) => id === setupId)?.decision,
      unsafe: counted(setupId).some(({ figures }) => figures.broken.length > 0),
    })),
  );
  const headroomFound = headroomNow(
    request.limits ?? [],
    counted(testId),
    testId === againstId ? [] : counted(againstId),
    request.settings.crank !== undefined,
  );
  const result: JobFigures = {
    sides: { baselineId, testId, againstId },
    spanRpm: request.settings.spanRpm,
    ...(request.settings.crank ? { estimate: crankAssumption(request.settings.crank) } : {}),
    runs: figured.map(({ figures }) => figures),
    unusable,
    setups: figuresOfSetups,
    spread: of.spread,
    next: nextOf(of, figuresOfSetups, figured),
    ...(best === undefined ? {} : { bestId: best }),
    ...(headroomFound && { headroom: headroomFound }),
    ...targetsOf(of, request),
    ...(request.beside === 'steps' ? stepsOf(of) : {}),
    ...(request.beside === 'response' ? responseOf(of, figured) : {}),
    ...(factors.length > 0 ? { factors: [Math.min(...factors), Math.max(...factors)] } : {}),
  };
  if (request.curvesOnly) return result;
  if (request.everyPair)
    result.pairs = familyOf(figuresOfSetups).map((pair) => comparisonOfPair(of, pair.testId, pair.againstId));
  if (request.borrowed && isPeakAlone(request.borrowed)) {
    const { name, peakKw, scale } = request.borrowed;
    if (scale === shownScale(request)) result.norm = { name, kw: peakKw };
    result.noComparison = normOf(request, request.borrowed, counted(testId));
    return result;
  }
  try {
    if (request.borrowed) {
      result.borrowed = borrowedRunCurves(request.borrowed, request.settings.gridRpm);
      if (typeof request.borrowed.errorKw === 'number') result.borrowedErrorKw = request.borrowed.errorKw;
    }
    result.comparison = comparisonFigures(of);
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    result.noComparison = error.message;
  }
  return result;
}

/** Where the setups stand against what the owner wants; absent where no target was set. */
function targetsOf({ setups, counted, spread }: PairsOf, request: ResolvedRequest): Pick<JobFigures, 'targets'> {
  const { targets = [] } = request;
  if (targets.length === 0) return {};
  const runs = setups.map(({ setupId }) => ({ setupId, runs: counted(setupId) }));
  const kind = runs.flatMap((setup) => setup.runs)[0]?.run.conditions.dyno.kind;
  return { targets: targetsOfJob(targets, runs, { spread, shown: shownScale(request), kind }) };
}

/** A norm of one figure makes no comparison of curves: how far the setup is from it is said instead. */
function normOf(
  request: ResolvedRequest,
  norm: BorrowedCurve & { peakKw: number },
  runs: readonly CountedRun[],
): string {
  return normSentence(norm, {
    letter: request.setups.find(({ id }) => id === request.testId)?.letter ?? '?',
    peaksKw: runs.map(({ figures }) => figures.curve.peakPower.value),
    shown: shownScale(request),
    unit: request.powerUnit,
  });
}

const shownScale = ({ settings }: ResolvedRequest) => (settings.crank ? 'crank' : 'wheels');

/** The pairs that are judged, each once. */
function familyOf(setups: readonly SetupFigures[]): FamilyPair[] {
  return setups.flatMap(({ onParent, onBaseline }) =>
    [...new Set([onParent, onBaseline])].filter((pair) => pair !== undefined),
  );
}

/** What to run next: a setup without a run, else what the newest pair still wants. */
function nextOf(
  { request, counted }: PairsOf,
  setups: readonly SetupFigures[],
  figured: readonly CountedRun[],
): NextRun {
  const { baselineId, plan, wantedShare } = request;
  const paceS = paceOf(figured.flatMap(({ run }) => run.conditions.startedAt?.getTime() ?? []));
  const newest = request.setups[request.setups.length - 1];
  const unrun = newest && counted(newest.id).length === 0 ? newest.id : undefined;
  const runs = (id: number) => counted(id).length;
  const pairs = familyOf(setups).map((pair) => ({
    pair,
    runs: { test: runs(pair.testId), baseline: runs(pair.againstId) },
  }));
  const missing = { setupId: baselineId, runs: (plan?.runs ?? usualBaselineRuns) - runs(baselineId) };
  return nextRun(pairs, { unrun, missing, wantedShare, paceS });
}

/** Runs that a baseline usually has. */
const usualBaselineRuns = 3;

/** The setups with their counted runs' power. */
function runSetups(request: ResolvedRequest, curves: readonly SetupCurves[]): AttributedSetup[] {
  return request.setups.map((setup) => ({
    id: setup.id,
    letter: setup.letter,
    parentId: setup.parentId ?? null,
    change: setup.change ?? '',
    items: setup.items ?? [],
    runs: curves.find((candidate) => candidate.setupId === setup.id)?.power ?? [],
  }));
}

/** The ladder of steps to the test setup. */
function stepsOf(of: PairsOf): Pick<JobFigures, 'attribution'> {
  const { request, setups } = of;
  const between: DifferenceBetween = (...asked) => pairDifference(of, ...asked);
  const attribution = attributionOf(runSetups(request, setups), request.testId, between, request.bands?.[0]);
  return attribution ? { attribution } : {};
}

/** What the numeric items around the test setup gave at their levels. */
function responseOf(
  of: PairsOf,
  figured: readonly CountedRun[],
): Pick<JobFigures, 'varied' | 'response' | 'planes' | 'plane'> {
  const { request } = of;
  const setups = runSetups(request, of.setups);
  const ran = setups.filter(({ runs }) => runs.length > 0).map(({ id }) => id);
  const items = variedItems(setups, request.testId, ran);
  const varied = items.map((item) => ({ key: item.key, label: item.label, levels: item.levels.length }));
  const chosen = items.find((item) => item.key === request.respondTo) ?? items[0];
  const planes = planesOf(request, setups, ran, figured);
  if (!chosen) return { varied, ...planes };
  const levels = chosen.levels.map(({ x, setupIds }): Level => {
    const at = setups.filter(({ id }) => setupIds.includes(id));
    const runs = figured.filter(({ run }) => setupIds.includes(run.setupId) && run.counted);
    return {
      x,
      letters: at.map(({ letter }) => letter).join(' '),
      runs: at.flatMap((setup) => setup.runs),
      runsOf: at.flatMap((setup) => setup.runs.map(() => setup.letter)),
      // Setups are made in the order in which they are tried.
      order: Math.max(...setupIds.map((id) => setups.findIndex((setup) => setup.id === id))),
      broken: worstOf(runs.flatMap(({ figures }) => figures.broken)),
      headroom: headroomOf(request.limits ?? [], runs),
    };
  });
  // A step between two setups has the interval of their judgement, as everywhere else.
  const only = (x: number) => chosen.levels.find((level) => level.x === x)?.setupIds;
  const between: StepBetween = (fromX, toX, ...range) => {
    const [test, against] = [only(toX) ?? [], only(fromX) ?? []];
    return test.length === 1 && against.length === 1 ? pairDifference(of, test[0]!, against[0]!, ...range) : undefined;
  };
  const found = responseTo(levels, request.bands?.[0], chosen, between);
  const unknown = setups.filter(({ id }) => chosen.unknownIds.includes(id)).map(({ letter }) => letter);
  return {
    varied,
    ...planes,
    response: { key: chosen.key, label: chosen.label, unit: chosen.unit, found, unknown, item: chosen.item },
  };
}

/** Two items at once, where setups differ in them alone or together. */
function planesOf(
  request: ResolvedRequest,
  setups: readonly AttributedSetup[],
  ran: readonly number[],
  figured: readonly CountedRun[],
): Pick<JobFigures, 'planes' | 'plane'> {
  const found = variedPlanes(setups, request.testId, ran);
  const planes = found.map(({ key, across, down, setups: on }) => ({
    key,
    label: `${across.label} × ${down.label}`,
    points: on.length,
  }));
  const chosen = found.find(({ key }) => key === request.respondTo) ?? found[0];
  if (!chosen) return { planes };
  const limits = request.limits ?? [];
  const runs = chosen.setups.map(({ id }) => ({
    setupId: id,
    runs: setups.find((setup) => setup.id === id)?.runs ?? [],
    headroom: headroomOf(
      limits,
      figured.filter(({ run }) => run.setupId === id && run.counted),
    ),
  }));
  const labels = limits.map(({ quantity }) => limitQuantities[quantity].label);
  const plane = planeFigures(chosen, runs, request.bands?.[0], labels);
  return { planes, ...(plane && { plane }) };
}

function figuresOf(run: FiguredRun, { settings, limits = [] }: ResolvedRequest): RunFigures {
  const { id, setupId, counted, conditions } = run;
  const curve = curveOf(run.sweep, run.air, settings, run.circumstances);
  const reach = reachOf(run, curve, settings.crank !== undefined);
  const broken = brokenLimits(limits, reach, run.engine, settings.crank ? 0 : undefined);
  return { id, setupId, label: conditions.label, counted, curve, broken };
}

/** What was found on the runs of the setups that are looked at: the log of a run is only searched where it is shown. */
function markFindings(figured: readonly CountedRun[], { testId, againstId }: ResolvedRequest): void {
  for (const { run, figures } of figured) {
    if (run.setupId !== testId && run.setupId !== againstId) continue;
    const events = run.logged ? eventsOf(run.logged, run.engine) : [];
    figures.found = runFindings(figures.broken, events, figures.curve.checks);
  }
}

function rawOf({ sweep }: FiguredRun, { curve }: RunFigures, { gridRpm, crank }: CurveSettings): RawPoints {
  const points = rawPoints(sweep, gridRpm);
  const shown = (kw: number, index: number) => {
    const corrected = kw * curve.correction.factor;
    return crank ? crankKw(corrected, crank, drumSpeedAt(sweep, sampleAt(points.engineSpeedRpm, index))) : corrected;
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
