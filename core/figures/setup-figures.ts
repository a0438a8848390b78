import { peakOf } from '../curve/peak.ts';
import { meanTravel, type Travel } from '../curve/travel.ts';
import { standardDeviationOf, type MeanDifference } from '../statistics/mean-difference.ts';
import { bandDifference } from '../comparison/comparison.ts';
import { commonSpeeds, meanCurve, type MeanCurve, type RunCurve } from '../comparison/run-curve.ts';
import { verdictsOn, type Verdict } from '../comparison/verdict.ts';
import { meanOf } from '../numerics/mean.ts';

export interface SetupFigures {
  setupId: number;
  runs: number;
  /** Mean of the runs' own peaks, kW, and their standard deviation (NaN for one run). */
  peakKw: number;
  spreadKw: number;
  power: MeanCurve;
  torque: MeanCurve;
  /** How its runs went through the engine's speeds, on average. */
  travel?: Travel;
  /** Mean over the range shared with the baseline, kW; absent for the baseline and where no range is shared. */
  gain?: MeanDifference;
  /** The same against the setup that it was changed from: what its prediction is scored by. */
  parentGain?: MeanDifference;
  /** What may be said of the gain on the baseline, all setups taken together. */
  verdict?: Verdict;
  /** Gain in power at each of `gainRpm`, kW, for the strip. */
  gainRpm?: Float64Array;
  gainKw?: Float64Array;
}

/** One setup's counted runs. */
export interface SetupCurves {
  setupId: number;
  parentId?: number | null | undefined;
  power: readonly RunCurve[];
  torque: readonly RunCurve[];
  travel?: readonly Travel[];
}

/** Each setup's means and gain against the baseline; verdicts by Holm over all setups. Setups without a usable run are left out. */
export function setupFigures(setups: readonly SetupCurves[], baselineId: number): SetupFigures[] {
  const baseline = setups.find((setup) => setup.setupId === baselineId)?.power ?? [];
  const figures = setups.flatMap((setup) => figuresOfSetup(setup, setups, baseline, baselineId) ?? []);
  const verdicts = verdictsOn(figures.map((setup) => setup.gain));
  return figures.map((setup, index) => (setup.gain ? { ...setup, verdict: verdicts[index]! } : setup));
}

function figuresOfSetup(
  { setupId, parentId, power, torque, travel }: SetupCurves,
  setups: readonly SetupCurves[],
  baseline: readonly RunCurve[],
  baselineId: number,
): SetupFigures | undefined {
  const speeds = commonSpeeds(power);
  if (!speeds) return undefined;
  const peaks = power.map((run) => peakOf(run.engineSpeedRpm, run.values).value);
  const parent = setups.find((setup) => setup.setupId === parentId);
  const parentGain = parent && gainOn(parent, setupId, power, setups);
  const figures: SetupFigures = {
    setupId,
    runs: power.length,
    peakKw: meanOf(peaks),
    spreadKw: standardDeviationOf(peaks),
    power: meanCurve(power, speeds),
    torque: meanCurve(torque, speeds),
    ...(travel ? { travel: meanTravel(travel, speeds) } : {}),
    ...(parentGain ? { parentGain } : {}),
  };
  const shared = commonSpeeds([...power, ...baseline]);
  if (setupId === baselineId || baseline.length === 0 || !shared) return figures;
  const gain = gainOn({ setupId: baselineId, power: baseline }, setupId, power, setups);
  const base = meanCurve(baseline, shared).values;
  return {
    ...figures,
    ...(gain ? { gain } : {}),
    gainRpm: shared,
    gainKw: meanCurve(power, shared).values.map((value, index) => value - base[index]!),
  };
}

/** Mean power over the range that two setups share, one less the other; the job's further setups lend their spread. */
function gainOn(
  other: Pick<SetupCurves, 'setupId' | 'power'>,
  setupId: number,
  power: readonly RunCurve[],
  setups: readonly SetupCurves[],
): MeanDifference | undefined {
  const shared = commonSpeeds([...power, ...other.power]);
  if (other.power.length === 0 || !shared) return undefined;
  const alike = setups
    .filter((setup) => setup.setupId !== setupId && setup.setupId !== other.setupId && setup.power.length > 1)
    .map((setup) => setup.power);
  return bandDifference([power, other.power, ...alike], shared[0]!, shared[shared.length - 1]!);
}
