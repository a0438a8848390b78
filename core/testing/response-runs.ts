import { gridBetween } from '../curve/grid.ts';
import type { RunCurve } from '../comparison/run-curve.ts';
import { chance, normal } from './chance.ts';

/** Runs at levels of an item with a known best: power falls by the square of the distance from it. */
export interface ResponseRuns {
  seed: number;
  levels: readonly number[];
  runsEach: number;
  optimum: number;
  /** Share of power lost one unit away from the best. */
  lossPerUnit2: number;
  /** Standard deviation of a run's scale, as a share. */
  standardDeviation: number;
}

const speeds = gridBetween(2500, 6500, 50);
const power = (rpm: number) => 20 + 70 * Math.sin(((rpm - 1500) / 6000) * (Math.PI / 2));

export function responseRuns({
  seed,
  levels,
  runsEach,
  optimum,
  lossPerUnit2,
  standardDeviation,
}: ResponseRuns): { x: number; letters: string; runs: RunCurve[] }[] {
  const scatter = normal(chance(seed * 65_537 + 3));
  return levels.map((x, index) => ({
    x,
    letters: String.fromCharCode(65 + index),
    runs: Array.from({ length: runsEach }, () => {
      const scale = (1 - lossPerUnit2 * (x - optimum) ** 2) * (1 + standardDeviation * scatter());
      return { engineSpeedRpm: speeds, values: speeds.map((rpm) => power(rpm) * scale) };
    }),
  }));
}
