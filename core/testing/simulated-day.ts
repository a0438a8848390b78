import { gridBetween } from '../curve/grid.ts';
import type { RunCurve } from '../comparison/run-curve.ts';
import { chance, normal } from './chance.ts';

/**
 * A day on the dyno with known gains: runs of several setups one after
 * another. Each run scatters in level, in tilt and in shape (smooth bumps), in
 * proportion to power; a drift may move every later run.
 */
export interface SimulatedDay {
  seed: number;
  /** Setups in the order of the runs, such as A A A B B B. */
  order: readonly string[];
  /** True gain of each setup on the first, as a share of power; 0 where left out. */
  gains?: Readonly<Record<string, number>>;
  /** Standard deviation of a run's mean, as a share of power; of level and of shape in units of it. */
  spread: number;
  level?: number;
  shape?: number;
  /** Shortest wave of the shape, rpm; 900 where left out. */
  waveRpm?: number;
  /** Spread of a setup's runs in units of the day's; 1 where left out. */
  spreads?: Readonly<Record<string, number>>;
  /** Change from one run to the next, in units of the spread; or how far each run has drifted. */
  drift?: number | readonly number[];
  /** Runs from this place on are made on another day, their level moved by this share. */
  anotherDay?: { from: number; moved: number };
}

/** One run of the day. */
export interface DayRun extends RunCurve {
  setup: string;
  atMs: number;
}

// Taken out once: Jest looks a global up anew at every use.
const { PI, cos, sin, sqrt } = Math;
const speeds = gridBetween(2100, 6800, 50);
const middle = 4450;
const halfWidth = 2350;

/** Power before scatter and gain, kW. */
export const dayPower = (rpm: number) => 24 + 74 * sin(((rpm - 1500) / 6200) * (PI / 2)) ** 1.2;

/** Runs of a day in their order. */
export function simulatedDay({
  seed,
  order,
  gains = {},
  spread: ofDay,
  level: ofLevel = 0.95,
  shape = 0.5,
  waveRpm = 900,
  spreads = {},
  drift = 0,
  anotherDay,
}: SimulatedDay): DayRun[] {
  const random = chance(seed * 48271 + 11);
  const noise = normal(random);
  return order.map((setup, place) => {
    const spread = ofDay * (spreads[setup] ?? 1);
    const level = ofLevel * spread * noise();
    const tilt = 0.4 * spread * noise();
    const bumps = Array.from({ length: 4 }, () => ({
      wave: (2 * PI) / (waveRpm * (1 + (26 / 9) * random())),
      phase: 2 * PI * random(),
      height: shape * spread * sqrt(0.5) * noise(),
    }));
    const later = anotherDay !== undefined && place >= anotherDay.from;
    const drifted = typeof drift === 'number' ? drift * place : (drift[place] ?? 0);
    const moved = 1 + level + drifted * ofDay + (later ? anotherDay.moved : 0);
    return {
      setup,
      engineSpeedRpm: speeds,
      values: speeds.map((rpm) => {
        let scatter = moved + (tilt * (rpm - middle)) / halfWidth;
        for (const { wave, phase, height } of bumps) scatter += height * cos(wave * rpm + phase);
        return dayPower(rpm) * (1 + (gains[setup] ?? 0)) * scatter;
      }),
      atMs: place * 480_000 + (later ? 20 * 3600e3 : 0),
    };
  });
}

/** Mean power of the first setup over a range without scatter, kW. */
export function dayLevelKw(fromRpm: number, toRpm: number): number {
  const inside = speeds.filter((rpm) => rpm >= fromRpm && rpm <= toRpm);
  const weight = (index: number) => (index === 0 || index === inside.length - 1 ? 0.5 : 1);
  let sum = 0;
  inside.forEach((rpm, index) => (sum += weight(index) * dayPower(rpm)));
  return sum / (inside.length - 1);
}
