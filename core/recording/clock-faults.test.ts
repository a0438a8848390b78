import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { chance, normal } from '../testing/chance.ts';
import { clockFaults, withoutJumps } from './clock-faults.ts';

/** A drum that gains speed evenly, read a hundred times a second. */
function pull(seed: number, noise = 0.02): { time: Float64Array; speed: Float64Array } {
  const scatter = normal(chance(seed));
  const time = Float64Array.from({ length: 1200 }, (_, row) => row / 100);
  return { time, speed: time.map((at) => 60 + 9 * at + noise * scatter()) };
}

describe('faults of a clock', () => {
  test('an even recording has none', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const { time, speed } = pull(seed);
      expect(clockFaults(time, speed)).toEqual({ gaps: [], jumps: [] });
    }
  });

  test('a step of the clock is found where it is, and taken out', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1000 }),
        fc.integer({ min: 250, max: 950 }),
        fc.double({ min: 0.3, max: 2, noNaN: true }),
        (seed, row, byS) => {
          const { time, speed } = pull(seed);
          const stepped = time.map((at, index) => at + (index > row ? byS : 0));
          const { jumps, gaps } = clockFaults(stepped, speed);
          expect(gaps).toEqual([]);
          expect(jumps).toHaveLength(1);
          expect(jumps[0]!.atS).toBeCloseTo(time[row]!, 6);
          expect(jumps[0]!.byS).toBeCloseTo(byS, 1);
          const mended = withoutJumps(stepped, jumps);
          expect(Math.max(...mended.map((at, index) => Math.abs(at - time[index]!)))).toBeLessThan(0.06);
        },
      ),
      { numRuns: 40 },
    );
  });

  test('samples that are missing while the drum went on are a gap, and no step', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1000 }),
        fc.integer({ min: 250, max: 800 }),
        fc.integer({ min: 30, max: 150 }),
        (seed, row, lost) => {
          const { time, speed } = pull(seed);
          const kept = (values: Float64Array) => values.filter((_, index) => index <= row || index > row + lost);
          const { jumps, gaps } = clockFaults(kept(time), kept(speed));
          expect(jumps).toEqual([]);
          expect(gaps).toHaveLength(1);
          expect(gaps[0]!.atS).toBeCloseTo(time[row]!, 6);
          expect(gaps[0]!.lastsS).toBeCloseTo((lost + 1) / 100, 6);
        },
      ),
      { numRuns: 40 },
    );
  });
});

test('a clock that stepped back is told with a minus, and put forward again', () => {
  const { time, speed } = pull(7, 0.001);
  // Four tenths of a second went by that the clock did not count.
  const kept = (values: Float64Array) => values.filter((_, index) => index <= 500 || index > 540);
  const stepped = kept(time).map((at, index) => at - (index > 500 ? 0.4 : 0));
  const { jumps, gaps } = clockFaults(stepped, kept(speed));
  expect(gaps).toEqual([]);
  expect(jumps).toHaveLength(1);
  expect(jumps[0]!.byS).toBeCloseTo(-0.4, 1);
  const mended = withoutJumps(stepped, jumps);
  expect(mended[0]).toBe(0);
  expect(mended.at(-1)).toBeCloseTo(11.99, 1);
});
