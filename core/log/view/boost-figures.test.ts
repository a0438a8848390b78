import { describe, expect, test } from '@jest/globals';
import { chance, normal } from '../../testing/chance.ts';
import { loggedRun } from '../../testing/logged-run.ts';
import { boostFigures, meanBoost, type WithInterval } from './boost-figures.ts';
import type { RunLog } from '../pull/run-log.ts';

/** A pull of ten seconds at 50 Hz, 2,000 to 6,000 rpm, with boost of the engine speed and noise. */
function pull(boostAt: (rpm: number) => number, noise: number, seed = 1, target?: number): RunLog {
  const scatter = normal(chance(seed));
  const time = Float64Array.from({ length: 501 }, (_, index) => index / 50);
  const engineSpeedRpm = time.map((at) => 2000 + 400 * at);
  const boost = engineSpeedRpm.map((rpm) => boostAt(rpm) + noise * scatter());
  const channels = new Map([['boost', boost]]);
  if (target !== undefined)
    channels.set(
      'boostTarget',
      time.map(() => target),
    );
  return {
    time,
    engineSpeedRpm,
    channels,
    startS: 0,
    endS: 10,
    engine: { ignition: 'spark', boosted: true, ethanolPct: null, limits: {} },
  };
}

/** Comes up evenly from 2,000 rpm to 100 kPa at 3,000, and stays. */
const comesUp = (rpm: number) => Math.min(100, 20 + (80 * (rpm - 2000)) / 1000);

const holds = ({ value, halfWidth }: WithInterval, truth: number) => Math.abs(value - truth) <= halfWidth;

describe('boost of a pull', () => {
  test('without noise it is what it is: 90 % of the plateau, no overshoot, no taper', () => {
    const found = boostFigures(pull(comesUp, 0))!;
    expect(found.plateauKpa!.value).toBeCloseTo(100, 6);
    // 90 kPa are reached at 2,875 rpm.
    expect(Math.abs(found.ninetyPercentRpm!.value - 2875)).toBeLessThan(2);
    expect(found.overshootKpa!.value).toBeCloseTo(0, 6);
    expect(found.taperKpa!.value).toBeCloseTo(0, 6);
    expect(found.against).toBe('plateau');
  });

  test('the intervals hold the truth nineteen times of twenty', () => {
    const drawn = Array.from({ length: 300 }, (_, seed) => boostFigures(pull(comesUp, 2, seed + 1))!);
    const share = (of: (figures: (typeof drawn)[number]) => boolean) => drawn.filter(of).length / drawn.length;
    expect(share(({ plateauKpa }) => holds(plateauKpa!, 100))).toBeGreaterThan(0.9);
    expect(share(({ ninetyPercentRpm }) => holds(ninetyPercentRpm!, 2875))).toBeGreaterThan(0.9);
    // The highest of many noisy readings is no overshoot.
    expect(share(({ overshootKpa }) => holds(overshootKpa!, 0))).toBeGreaterThan(0.92);
    expect(share(({ taperKpa }) => holds(taperKpa!, 0))).toBeGreaterThan(0.92);
    // And they are not so wide that anything would hold.
    expect(Math.max(...drawn.map(({ plateauKpa }) => plateauKpa!.halfWidth))).toBeLessThan(0.6);
    expect(Math.max(...drawn.map(({ ninetyPercentRpm }) => ninetyPercentRpm!.halfWidth))).toBeLessThan(45);
  });

  test('an overshoot and a taper are found with their size, against the target where there is one', () => {
    const shape = (rpm: number) => comesUp(rpm) + (rpm > 3000 && rpm < 3400 ? 15 : 0) - Math.max(0, (rpm - 5000) / 50);
    const found = boostFigures(pull(shape, 0.5, 3, 98))!;
    expect(found.against).toBe('target');
    expect(Math.abs(found.overshootKpa!.value - 17)).toBeLessThan(1);
    // At the end is the mean of the last twentieth: 5,800 to 6,000 rpm.
    expect(Math.abs(found.taperKpa!.value - (98 - (100 - 18)))).toBeLessThan(1);
    expect(found.peakRpm).toBeGreaterThan(2990);
    expect(found.peakRpm).toBeLessThan(3410);
  });

  test('a blower’s boost climbs to the end: it has a peak, and neither plateau nor overshoot', () => {
    const found = boostFigures(pull((rpm) => 90 * (rpm / 6000) ** 2, 1))!;
    expect(found.plateauKpa).toBeUndefined();
    expect(found.ninetyPercentRpm).toBeUndefined();
    expect(found.overshootKpa).toBeUndefined();
    expect(found.peakRpm).toBeGreaterThan(5800);
  });

  test('there is nothing to say of an engine without boost, or of a sensor that was not read', () => {
    expect(boostFigures(pull(() => 3, 1))).toBeUndefined();
    expect(boostFigures(loggedRun(4, undefined, 'plain'))).toBeUndefined();
    expect(boostFigures(pull((rpm) => (rpm > 4000 && rpm < 4100 ? NaN : 90), 1))).toBeUndefined();
  });

  test('of several runs the mean stands with the interval of how they differ', () => {
    const runs = [99, 101, 103].map((level, seed) =>
      boostFigures(pull((rpm) => comesUp(rpm) + level - 100, 0.3, seed + 1))!,
    );
    const mean = meanBoost(runs)!;
    expect(Math.abs(mean.plateauKpa!.value - 101)).toBeLessThan(0.2);
    // t(0.95, 2) = 4.303, times 2 ÷ √3.
    expect(Math.abs(mean.plateauKpa!.halfWidth - 4.97)).toBeLessThan(0.3);
    expect(meanBoost([])).toBeUndefined();
    expect(meanBoost([runs[0]!])).toBe(runs[0]);
  });
});
