import type { Air } from '../air/air.ts';
import type { Finding } from '../checks/check.ts';
import { peakOf } from '../curve/peak.ts';
import { curveOf, type Curve, type ViewSettings } from '../reduction/reduce.ts';
import type { SweepDrive } from '../reduction/sweep-drive.ts';
import { Refusal } from '../refusal.ts';
import type { Span } from '../smoothing/span.ts';
import { meanOf, spreadOf, type MeanDifference } from '../statistics/mean-difference.ts';
import type { PowerUnit } from '../units/units.ts';
import {
  bandDifference,
  commonSpeeds,
  compareRuns,
  meanCurve,
  type Comparison,
  type MeanCurve,
  type RunCurve,
} from './comparison.ts';
import { unlikeRespects, type RunConditions } from './like-for-like.ts';
import { gainSentence, type Phrase } from './sentence.ts';
import { gainTable, type GainRow } from './table.ts';

/** A run of a job with its sweep made ready. */
export interface FiguredRun {
  id: number;
  setupId: number;
  /** In figures: a power run that is not set aside. */
  counted: boolean;
  sweep: SweepDrive;
  air: Air | undefined;
  conditions: RunConditions;
}

export interface FiguresRequest {
  setups: readonly { id: number; letter: string }[];
  /** Drawn in ink; what the setups' gains are told against. */
  baselineId: number;
  testId: number;
  /** What the test setup is compared with: its parent, unless chosen otherwise. */
  againstId: number;
  settings: ViewSettings;
  band?: readonly [number, number] | undefined;
  atRpm?: number | undefined;
  powerUnit: PowerUnit;
}

export interface RunFigures {
  id: number;
  setupId: number;
  label: string;
  counted: boolean;
  curve: Curve;
}

/** A run that is in no figure, and the sentence that says why. */
export interface UnusableRun {
  id: number;
  label: string;
  why: string;
}

export interface SetupFigures {
  setupId: number;
  runs: number;
  /** Mean of the runs' own peaks, kW, and their standard deviation (NaN for one run). */
  peakKw: number;
  spreadKw: number;
  power: MeanCurve;
  torque: MeanCurve;
  /** Mean over the range shared with the baseline, kW; absent for the baseline and where no range is shared. */
  gain?: MeanDifference;
  /** Gain in power at each of `gainRpm`, kW, for the strip. */
  gainRpm?: Float64Array;
  gainKw?: Float64Array;
}

export interface ComparisonFigures {
  power: Comparison;
  torque: Comparison;
  sentence: Phrase[];
  rows: GainRow[];
  unlike: Finding[];
}

export interface JobFigures {
  spanRpm: Span;
  /** Least and greatest correction factor among the runs shown; absent when there is no run. */
  factors?: [number, number];
  runs: RunFigures[];
  /** Runs that no curve can be made of, and why. */
  unusable: UnusableRun[];
  setups: SetupFigures[];
  comparison?: ComparisonFigures;
  /** Why there is no comparison, as a sentence. */
  noComparison?: string;
}

/** Everything that the Compare stage shows of a job at the settings given. Runs whose curve is refused are listed instead. */
export function jobFigures(runs: readonly FiguredRun[], request: FiguresRequest): JobFigures {
  const unusable: UnusableRun[] = [];
  const figured = runs.flatMap((run) => {
    try {
      return [{ run, figures: figuresOf(run, request.settings) }];
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      unusable.push({ id: run.id, label: run.conditions.label, why: error.message });
      return [];
    }
  });
  const counted = (setupId: number) => figured.filter(({ run }) => run.setupId === setupId && run.counted);
  const curves = (setupId: number, quantity: 'powerKw' | 'torqueNm'): RunCurve[] =>
    counted(setupId).map(({ figures }) => ({
      engineSpeedRpm: figures.curve.engineSpeedRpm,
      values: figures.curve[quantity],
    }));
  const factors = figured.filter(({ run }) => run.counted).map(({ figures }) => figures.curve.correction.factor);
  const result: JobFigures = {
    spanRpm: request.settings.spanRpm,
    runs: figured.map(({ figures }) => figures),
    unusable,
    setups: request.setups.flatMap((setup) => setupFigures(setup.id, request, curves) ?? []),
    ...(factors.length > 0 ? { factors: [Math.min(...factors), Math.max(...factors)] } : {}),
  };
  try {
    result.comparison = comparisonFigures(request, curves, (setupId) =>
      counted(setupId).map(({ run }) => run.conditions),
    );
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    result.noComparison = error.message;
  }
  return result;
}

type CurvesOf = (setupId: number, quantity: 'powerKw' | 'torqueNm') => RunCurve[];

function figuresOf(run: FiguredRun, settings: ViewSettings): RunFigures {
  const { id, setupId, counted, conditions } = run;
  return { id, setupId, label: conditions.label, counted, curve: curveOf(run.sweep, run.air, settings) };
}

function setupFigures(setupId: number, request: FiguresRequest, curves: CurvesOf): SetupFigures | undefined {
  const power = curves(setupId, 'powerKw');
  const speeds = commonSpeeds(power);
  if (!speeds) return undefined;
  const peaks = power.map((run) => peakOf(run.engineSpeedRpm, run.values).value);
  const figures: SetupFigures = {
    setupId,
    runs: power.length,
    peakKw: meanOf(peaks),
    spreadKw: spreadOf(peaks),
    power: meanCurve(power, speeds),
    torque: meanCurve(curves(setupId, 'torqueNm'), speeds),
  };
  if (setupId === request.baselineId) return figures;
  const baseline = curves(request.baselineId, 'powerKw');
  const shared = commonSpeeds([...power, ...baseline]);
  if (baseline.length === 0 || !shared) return figures;
  const groups = [power, baseline, ...others(request, [setupId, request.baselineId], curves, 'powerKw')];
  const gain = bandDifference(groups, shared[0]!, shared[shared.length - 1]!);
  const base = meanCurve(baseline, shared).values;
  return {
    ...figures,
    ...(gain ? { gain } : {}),
    gainRpm: shared,
    gainKw: meanCurve(power, shared).values.map((value, index) => value - base[index]!),
  };
}

/** The curves of the setups that are not compared, for the pooled spread. */
function others(
  request: FiguresRequest,
  left: readonly number[],
  curves: CurvesOf,
  quantity: 'powerKw' | 'torqueNm',
): RunCurve[][] {
  return request.setups
    .filter((setup) => !left.includes(setup.id))
    .map((setup) => curves(setup.id, quantity))
    .filter((runs) => runs.length > 1);
}

function comparisonFigures(
  request: FiguresRequest,
  curves: CurvesOf,
  conditions: (setupId: number) => RunConditions[],
): ComparisonFigures {
  const { testId, againstId, band } = request;
  if (testId === againstId) throw new Refusal('Choose two setups to compare: this is one and the same.');
  const groups = (quantity: 'powerKw' | 'torqueNm') => [
    curves(testId, quantity),
    curves(againstId, quantity),
    ...others(request, [testId, againstId], curves, quantity),
  ];
  const compared = { power: groups('powerKw'), torque: groups('torqueNm') };
  const [test, against, ...alike] = compared.power;
  const power = compareRuns(test!, against!, alike);
  const [testTorque, againstTorque, ...torqueAlike] = compared.torque;
  const torque = compareRuns(testTorque!, againstTorque!, torqueAlike);
  const unlike = unlikeRespects(conditions(testId), conditions(againstId));
  const inBand = band && bandDifference(compared.power, band[0], band[1]);
  const letter = (id: number) => request.setups.find((setup) => setup.id === id)?.letter ?? '?';
  const sentence = gainSentence({
    test: letter(testId),
    baseline: letter(againstId),
    difference: inBand ?? power.commonRange,
    fromRpm: inBand ? band[0] : power.fromRpm,
    toRpm: inBand ? band[1] : power.toRpm,
    unit: request.powerUnit,
    withheld: unlike.some((finding) => finding.severity === 'stop'),
  });
  return { power, torque, sentence, rows: gainTable(compared, power, torque, band, request.atRpm), unlike };
}
