import { compareRuns } from '../comparison/comparison.ts';
import { usualDrift } from '../comparison/drift.ts';
import { gainTable } from '../comparison/gain-table.ts';
import { gridBetween } from '../curve/grid.ts';
import { sampleAt } from '../numerics/sample-at.ts';
import { scatterOf } from '../numerics/mean.ts';
import { assumedSpread, learnedSpread, type SpreadPrior } from '../statistics/spread-prior.ts';
import { chance, normal } from './chance.ts';
import { simulatedDay, type SimulatedDay } from './simulated-day.ts';

/** Spreads of cars scatter by this, as a standard deviation of their logarithm, about 0.4 % of power. */
const carsDiffer = 0.45;
const histories = Array.from({ length: 40 }, (_, shop) => historyOf(shop + 1));

/** What twenty earlier jobs of three runs, each of a car of its own, have taught a shop. */
function historyOf(shop: number): SpreadPrior {
  const noise = normal(chance(shop * 7919 + 3));
  const jobs = Array.from({ length: 20 }, () => {
    const spread = 0.004 * Math.exp(carsDiffer * noise());
    const runs = [noise(), noise(), noise()].map((value) => spread * value);
    return { runs: 3, share: Math.sqrt(scatterOf(runs) / 2) };
  });
  return learnedSpread(jobs) ?? assumedSpread('inertia-roller');
}

/** How the two sides of a day are drawn on which nothing changes. */
export interface DrawnDay extends Partial<Pick<SimulatedDay, 'shape' | 'waveRpm'>> {
  order: string;
  /** B's spread in those of A; drawn from ½, 1 and 2 where `any`. */
  noisier?: 'any';
  /** How alike a run is to the one before it. */
  related?: number;
  history?: boolean;
  /** Without the drift that is reckoned with: the interval's own coverage, no more. */
  plain?: boolean;
}

/** Both sides, and what the shop knows. */
function drawnSides({ order, noisier, related = 0, history = false, plain = false, ...shape }: DrawnDay, seed: number) {
  const noise = normal(chance(seed * 101 + 5));
  const spread = 0.004 * Math.exp(carsDiffer * noise());
  let path = 0;
  const drift = [...order].map(() => (path = related * path + Math.sqrt(1 - related ** 2) * noise()));
  // Related runs have all of their level's scatter from the path.
  const day = simulatedDay({
    seed: seed * 13,
    order: [...order],
    spread,
    spreads: noisier ? { B: [0.5, 1, 2][seed % 3]! } : {},
    ...(related > 0 ? { drift, level: 0 } : {}),
    ...shape,
  });
  const side = (letter: string) => day.filter(({ setup }) => setup === letter);
  const around = {
    spread: history ? histories[seed % histories.length]! : assumedSpread('inertia-roller'),
    ...(plain ? {} : { drift: usualDrift }),
  };
  return { test: side('B'), baseline: side('A'), around };
}

/** Whether the interval of the mean over the range, of the peaks, or the whole band holds that nothing changed. */
export function comparisonHolds(of: 'mean' | 'peak' | 'band', drawn: DrawnDay) {
  return (seed: number): boolean => {
    const { test, baseline, around } = drawnSides(drawn, seed);
    const { commonRange, peaks, gain, gainHalfWidth } = compareRuns(test, baseline, around);
    if (of === 'band') return gain.every((kw, index) => Math.abs(kw) <= gainHalfWidth[index]!);
    const { difference, halfWidth } = of === 'mean' ? commonRange : peaks.difference;
    return Math.abs(difference) <= halfWidth;
  };
}

const speeds = gridBetween(2100, 6800, 50);
/** Time to each engine speed, s, of a run that a fixed inertia holds back: ∫ I·ω dω ÷ P, about 5 s in all. */
function sweepTimes(powerKw: Float64Array): Float64Array {
  let sum = 0;
  return powerKw.map((kw, index) => {
    if (index > 0) sum += (1.25e-5 * (sampleAt(speeds, index) ** 2 - sampleAt(speeds, index - 1) ** 2)) / kw;
    return sum;
  });
}

/** Whether the interval of the time to sweep a band holds. */
export function sweepTimeHolds(drawn: DrawnDay) {
  return (seed: number): boolean => {
    const { test, baseline, around } = drawnSides(drawn, seed);
    const timed = (runs: typeof test) => runs.map((run) => ({ ...run, values: sweepTimes(run.values) }));
    const power = compareRuns(test, baseline, { ...around, bands: [[3000, 3600]] });
    const groups = [test, baseline] as const;
    const table = gainTable(
      { power: groups, torque: groups, time: [timed(test), timed(baseline)] },
      power,
      power,
      undefined,
      false,
      around,
    );
    const swept = table.find(({ id }) => id === 'swept');
    return swept !== undefined && Math.abs(swept.difference) <= swept.halfWidth;
  };
}
