import { bandMean } from '../curve/band-mean.ts';
import { bandOrAll } from '../comparison/coverage.ts';
import type { RunCurve } from '../comparison/run-curve.ts';
import { rangeOf } from '../curve/covered-range.ts';
import { meanOf } from '../numerics/mean.ts';
import { bestOnPlane, type BestOnPlane, type LimitedReading } from './best-on-plane.ts';
import type { VariedPlane } from './plane.ts';
import { differenceBetween, type Observation } from './surface-fit.ts';
import { pooledStandardDeviation } from '../statistics/mean-difference.ts';

/** What two items together give, over one range of engine speed. */
export interface PlaneRange extends BestOnPlane {
  fromRpm: number;
  toRpm: number;
  /** kW at the beginning: shares are of it. */
  startKw: number;
}

export interface PlaneFigures {
  plane: VariedPlane;
  whole: PlaneRange;
  /** By engine speed, each with what its own gentlest good setting makes over the whole range on that of the whole, as a share. */
  bins: (PlaneRange & { overWhole: { value: number; halfWidth: number } })[];
  /** Which points a judgement still lacks, in words; empty where it lacks none. */
  missing: string[];
  /** Limits of the job that were not read in these runs: they hold nothing back here. */
  unread: string[];
  /** Standard deviation of a run as a share, and whether it is mostly assumed. */
  noise: number;
  noiseAssumed: boolean;
}

/** A setup of the plane with its runs and what they left to each limit. */
export interface PlaneRuns {
  setupId: number;
  runs: readonly RunCurve[];
  headroom: readonly { label: string; left: number }[];
}

// Set by bench/surfaces.ts.
/** What a run's power usually scatters by, as a share, with this weight beside the runs' own repeats. */
const usualNoise = 0.003;
const usualNoiseDf = 4;
/** Either item is looked for so many small steps from the beginning at most. */
const reach = 4;
const binRpm = 1000;

/** @returns undefined where the runs share no range, or none were made where it began */
export function planeFigures(
  plane: VariedPlane,
  of: readonly PlaneRuns[],
  band: readonly [number, number] | undefined,
  limits: readonly string[],
): PlaneFigures | undefined {
  const placed = plane.setups.flatMap((setup) => {
    const found = of.find(({ setupId }) => setupId === setup.id);
    return found && found.runs.length > 0 ? [{ ...setup, ...found }] : [];
  });
  const start = placed.find(({ u, v }) => u === 0 && v === 0);
  const all = placed.flatMap(({ runs }) => runs);
  if (!start) return undefined;
  const covered = rangeOf(all);
  const [fromRpm, toRpm] = bandOrAll(band, covered);
  if (!(toRpm > fromRpm)) return undefined;
  const readings = limits.flatMap((label): LimitedReading[] => {
    const room = start.headroom.find((row) => row.label === label)?.left;
    if (room === undefined || !(room > 0)) return [];
    const observations = placed.flatMap(({ u, v, headroom }) => {
      const left = headroom.find((row) => row.label === label)?.left;
      return left === undefined ? [] : [{ u, v, value: 1 - left / room }];
    });
    return [{ label, observations }];
  });
  const over = (from: number, to: number): PlaneRange => {
    const mean = (run: RunCurve) => bandMean(run.engineSpeedRpm, run.values, from, to);
    const startKw = meanOf(start.runs.map(mean));
    const power = placed.flatMap(({ u, v, runs }): Observation[] =>
      runs.map((run) => ({ u, v, value: mean(run) / startKw })),
    );
    const { noise, df } = noiseOf(placed.map(({ runs }) => runs.map((run) => mean(run) / startKw)));
    return {
      fromRpm: from,
      toRpm: to,
      startKw,
      ...bestOnPlane({ power, limits: readings, noise, noiseDf: df, reach }),
    };
  };
  const whole = over(fromRpm, toRpm);
  const bins: PlaneFigures['bins'] = [];
  for (let from = Math.ceil(covered[0] / binRpm) * binRpm; from + binRpm <= covered[1]; from += binRpm) {
    const bin = over(from, from + binRpm);
    const { value, sd } = differenceBetween(whole.surface, bin.gentlest, whole.gentlest);
    bins.push({ ...bin, overWhole: { value, halfWidth: whole.surface.t * sd } });
  }
  const shares = placed.map(({ runs }) => runs.map((run) => bandMean(run.engineSpeedRpm, run.values, fromRpm, toRpm)));
  const { noise, own } = noiseOf(shares.map((values) => values.map((value) => value / meanOf(values))));
  return {
    plane,
    whole,
    bins,
    missing: missingIn(plane, placed),
    unread: limits.filter((label) => !readings.some((reading) => reading.label === label)),
    noise,
    noiseAssumed: own < usualNoiseDf,
  };
}

function noiseOf(samples: readonly (readonly number[])[]): { noise: number; df: number; own: number } {
  const own = pooledStandardDeviation(samples);
  const square = usualNoiseDf * usualNoise ** 2 + (own.df > 0 ? own.df * own.standardDeviation ** 2 : 0);
  const df = usualNoiseDf + own.df;
  return { noise: Math.sqrt(square / df), df, own: own.df };
}

/** A plane is told by points beside it in both items, in both together, and by more than one step of each. */
function missingIn({ across, down }: VariedPlane, placed: readonly { u: number; v: number }[]): string[] {
  const missing: string[] = [];
  const levels = (of: 'u' | 'v') => new Set(placed.map((point) => point[of])).size;
  if (!placed.some(({ u, v }) => u !== 0 && v !== 0))
    missing.push(`a run with ${across.label} and ${down.label} changed together`);
  if (levels('u') < 3) missing.push(`a third level of ${across.label}`);
  if (levels('v') < 3) missing.push(`a third level of ${down.label}`);
  return missing;
}
