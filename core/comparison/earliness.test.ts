import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { gridBetween } from '../curve/grid.ts';
import { earlinessOf, firstReach } from './earliness.ts';

const rpm = gridBetween(2000, 6000, 25);
/** A curve that peaks at a speed. */
const hill = (peak: number, at: number) => rpm.map((speed) => peak - ((speed - at) / 400) ** 2);

test('the test reaches the baseline’s peak where its own curve passes it, and stays to where it falls below', () => {
  const found = earlinessOf(rpm, hill(104, 4800), hill(100, 5000));
  expect(found).toMatchObject({ baselinePeak: 100, baselineRpm: 5000 });
  // 104 − ((rpm − 4,800)/400)² = 100 at 4,800 ± 800.
  expect(found.reachesRpm).toBeCloseTo(4000, 0);
  expect(found.staysToRpm).toBeCloseTo(5600, 0);
});

test('a curve that never gets there reaches nothing', () => {
  const found = earlinessOf(rpm, hill(99, 5000), hill(100, 5000));
  expect(found.reachesRpm).toBeUndefined();
  expect(found.staysToRpm).toBeUndefined();
});

test('one that is above from its first speed on reaches it there, and to its end if it never falls', () => {
  const found = earlinessOf(
    rpm,
    rpm.map(() => 120),
    hill(100, 5000),
  );
  expect([found.reachesRpm, found.staysToRpm]).toEqual([2000, 6000]);
});

test('the more a curve makes, the earlier it reaches a value', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 80, max: 119, noNaN: true }),
      fc.double({ min: 0.1, max: 5, noNaN: true }),
      (value, more) => {
        const [plain, better] = [
          firstReach(rpm, hill(120, 5500), value),
          firstReach(rpm, hill(120 + more, 5500), value),
        ];
        expect(better!).toBeLessThanOrEqual(plain! + 1e-9);
      },
    ),
  );
});

test('the greatest value at an end of the range is no peak that anything could reach', () => {
  const climbing = rpm.map((at) => at / 100);
  expect(
    earlinessOf(
      rpm,
      rpm.map((at) => at / 100 + 5),
      climbing,
    ).reachesRpm,
  ).toBeUndefined();
});
