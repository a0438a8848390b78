import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { chance, normal } from '../../testing/chance.ts';
import { lineUp, type SpeedTrace } from './line-up.ts';

describe('lining up a logger’s clock', () => {
  const pull = (seed: number, rateHz: number, offsetS: number, noise: number, fromS = 0, toS = 16): SpeedTrace => {
    const scatter = normal(chance(seed));
    const count = Math.floor((toS - fromS) * rateHz);
    const time = Float64Array.from({ length: count }, (_, index) => fromS + index / rateHz);
    const rpm = time.map((at) => {
      const up = Math.min(1, Math.max(0, (at - 3) / 9));
      return 2000 + 4600 * up ** 0.9 - Math.max(0, at - 12) * 420 + noise * scatter();
    });
    return { time: time.map((at) => at - offsetS), rpm };
  };

  test('is right below a sample, whatever rates, noise and offset', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.double({ min: -4000, max: 4000, noNaN: true }),
        fc.integer({ min: 10, max: 100 }),
        (seed, offsetS, rateHz) => {
          const found = lineUp(pull(seed, 200, 0, 8), pull(seed + 1, rateHz, offsetS, 12, 1.5, 15));
          expect(Math.abs(found.shiftS - offsetS)).toBeLessThan(Math.min(0.02, 0.5 / rateHz));
          expect(found.correlation).toBeGreaterThan(0.99);
        },
      ),
      { numRuns: 40 },
    );
  });

  test('another run’s log, a steady one and a short one are refused with the reason', () => {
    const dyno = pull(1, 200, 0, 8);
    const other = { time: dyno.time, rpm: dyno.rpm.map((_, index) => 3000 + 900 * Math.sin(index / 300)) };
    expect(() => lineUp(dyno, other)).toThrow(/does not fit/);
    const steady = { time: dyno.time, rpm: dyno.rpm.map(() => 3000) };
    expect(() => lineUp(steady, steady)).toThrow(/does not fit|more than one place/);
    expect(() => lineUp(dyno, { time: dyno.time.subarray(0, 200), rpm: dyno.rpm.subarray(0, 200) })).toThrow(
      /too short/,
    );
  });

  test('a part of a sample is laid to the side where it belongs', () => {
    for (const part of [-0.4, -0.25, 0.25, 0.4]) {
      // Without noise, and both sampled as the comparison samples them: a fiftieth of a second.
      const { shiftS } = lineUp(pull(1, 50, 0, 0), pull(1, 50, 7 + part / 50, 0));
      expect(shiftS).toBeCloseTo(7 + part / 50, 3);
    }
    // One instrument read between the other's samples.
    const between = pull(1, 50, 0, 0, 0.008, 16);
    expect(lineUp(pull(1, 50, 0, 0), between).shiftS).toBeCloseTo(0, 2);
    expect(Math.abs(lineUp(pull(1, 50, 0, 0), between).shiftS)).toBeLessThan(0.002);
  });
});
