import { gridBetween } from '../curve/grid.ts';
import type { RunCurve } from '../comparison/run-curve.ts';
import { chance, normal } from './chance.ts';

// Taken out once: Jest looks a global up anew at every use, and a pull is stepped thousands of times.
const { PI, cos, max, sin, sqrt } = Math;

/**
 * An experiment with a known gain: curves of a baseline and of a test setup,
 * run after run. Scatter is one of scale (weather, heat, tyres move a whole
 * curve), of tilt, and of shape (smooth bumps); its size may differ between
 * the sides; a drift may move every later run.
 */
export interface SimulatedExperiment {
  seed: number;
  runs: number;
  otherRuns: number;
  /** Standard deviation of a run's mean, as a share of power. */
  standardDeviation: number;
  /** The test side's spread ÷ the baseline's. */
  spreadRatio?: number;
  /** Standard deviation of shape at one speed, in units of the spread. */
  shape?: number;
  /** Change from one run to the next, in units of the spread. */
  drift?: number;
  /** Order of the runs: all of the baseline first, one of each in turn, or back to the baseline for its last run. */
  order?: 'blocks' | 'alternating' | 'bracketed';
  /** True gain as a share of power, over engine speed. */
  gain?: (rpm: number) => number;
}

export interface Experiment {
  test: RunCurve[];
  baseline: RunCurve[];
  /** The true gain over a range, kW. */
  trueGainKw(fromRpm: number, toRpm: number): number;
}

const speeds = gridBetween(2100, 6800, 25);
const power = (rpm: number) => 24 + 74 * sin(((rpm - 1500) / 6200) * (PI / 2)) ** 1.2;

export function simulatedExperiment(options: SimulatedExperiment): Experiment {
  const { runs, otherRuns, standardDeviation, spreadRatio = 1, shape = 0.7, drift = 0, order = 'blocks' } = options;
  const random = chance(options.seed * 48271 + 11);
  const noise = normal(random);
  const gain = options.gain ?? (() => 0);
  const make = (side: 'test' | 'baseline', place: number): RunCurve => {
    const size = standardDeviation * (side === 'test' ? spreadRatio : 1);
    const scale = 0.9 * size * noise();
    const tilt = 0.5 * size * noise();
    // Bumps a few hundred rpm wide: a handful of cosines of random phase.
    const bumps = Array.from({ length: 6 }, () => ({
      wave: (2 * PI) / (900 + 2600 * random()),
      phase: 2 * PI * random(),
      height: ((shape * size) / sqrt(3)) * noise(),
    }));
    return {
      engineSpeedRpm: speeds,
      values: speeds.map((rpm) => {
        const bump = bumps.reduce((sum, { wave, phase, height }) => sum + height * cos(wave * rpm + phase), 0);
        const tilted = (tilt * (rpm - 4450)) / 2350;
        const moved = 1 + scale + tilted + bump + drift * standardDeviation * place;
        return power(rpm) * (1 + (side === 'test' ? gain(rpm) : 0)) * moved;
      }),
      atMs: place * 480_000,
    };
  };
  const test: RunCurve[] = [];
  const baseline: RunCurve[] = [];
  sidesInOrder(runs, otherRuns, order).forEach((side, place) =>
    (side === 'test' ? test : baseline).push(make(side, place)),
  );
  return {
    test,
    baseline,
    trueGainKw(fromRpm, toRpm) {
      let sum = 0;
      let count = 0;
      for (const rpm of speeds) {
        if (rpm < fromRpm || rpm > toRpm) continue;
        const weight = rpm === fromRpm || rpm === toRpm ? 0.5 : 1;
        sum += weight * power(rpm) * gain(rpm);
        count += weight;
      }
      return sum / count;
    },
  };
}

function sidesInOrder(runs: number, otherRuns: number, order: SimulatedExperiment['order']): ('test' | 'baseline')[] {
  const base = Array.from({ length: otherRuns }, () => 'baseline' as const);
  const test = Array.from({ length: runs }, () => 'test' as const);
  if (order === 'blocks') return [...base, ...test];
  if (order === 'bracketed') return [...base.slice(1), ...test, base[0]!];
  const mixed: ('test' | 'baseline')[] = [];
  for (let index = 0; index < max(runs, otherRuns); index++) {
    if (index < otherRuns) mixed.push('baseline');
    if (index < runs) mixed.push('test');
  }
  return mixed;
}
