import { crankAssumption } from '../dyno/crank.ts';
import { Refusal } from '../refusal.ts';
import { runCurve, type CountedRun, type FiguredRun, type UnusableRun } from './runs/figured-run.ts';
import { sameStates } from '../setup/difference.ts';
import { pairsOf, stepsOf as setupSteps, type PairsOf } from './pairs/compared-pair.ts';
import { comparisonFigures, comparisonOfPair } from './pairs/pair-comparison.ts';
import { bestSetup } from '../judgement/best-setup.ts';
import type { SetupCurves } from './pairs/compared-pair.ts';
import { setupFigures } from './pairs/setup-figures.ts';
import type { ResolvedRequest } from './runs/resolved-request.ts';
import { borrowedRunCurves, isPeakAlone, type BorrowedCurve } from './request/borrowed-curve.ts';
import { normSentence } from './pairs/norm-sentence.ts';
import { unusableFor } from './runs/unusable.ts';
import { headroomNow } from './runs/limits-of-runs.ts';
import { familyOf, nextOfJob } from './next-of-job.ts';
import type { JobFigures } from './job-figures.ts';
import { targetsOfJob } from './runs/targets-of-job.ts';
import { baselineWindow, figuresOf, markFindings, markStartTemperatures, rawOf } from './runs/marked-runs.ts';
import { responseOf, stepsOf } from './steps-and-response.ts';

/** A job's figures once everything is decided. Runs whose curve is refused are listed instead. */
export function resolvedFigures(runs: readonly FiguredRun[], request: ResolvedRequest): JobFigures {
  const unusable: UnusableRun[] = [];
  const states = sameStates(setupSteps(request.setups));
  const figured = runs.flatMap((stored): CountedRun[] => {
    // Runs of another job share no state of the car with this job's.
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
    next: nextOfJob(of, figuresOfSetups, figured),
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
  return { targets: targetsOfJob(targets, runs, { spread, settings: request.settings, kind }) };
}

/** A norm that is a single figure gives no curve to compare with: a sentence says how far the setup is from it. */
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
