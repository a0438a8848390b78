import { describe, expect, test } from '@jest/globals';
import { testDyno } from '../testing/test-car.ts';
import { driveOf } from './drive.ts';
import { findSweep } from './sweep.ts';

const seconds = 16;
const time = Float64Array.from({ length: seconds * 100 }, (_, row) => row / 100);

/** A drum that gains 8 rad/s each second where it is pulled, and runs on where it is not. */
function pulled(isPulled: (at: number) => boolean, ratioAt: (at: number) => number, lostAfter = Infinity) {
  let speed = 40;
  const drum = time.map((at) => (speed += (isPulled(at) ? 8 : at > lostAfter ? -1.5 : 0) / 100));
  return findSweep(
    driveOf(
      {
        time,
        channels: [
          { name: 'rollerSpeed', unit: 'rad/s', values: drum },
          {
            name: 'engineSpeed',
            unit: 'rpm',
            values: drum.map((radS, row) => (radS * 60 * ratioAt(time[row]!)) / 2 / Math.PI),
          },
          { name: 'throttle', unit: '%', values: time.map((at) => (isPulled(at) ? 100 : 0)) },
        ],
      },
      testDyno,
    ),
  );
}

describe('a short break in the pull', () => {
  const isPulled = (at: number) => (at > 2 && at < 6) || (at > 6.85 && at < 12.3);

  test('ends it where the ratio is another one afterwards: the longer gear is the sweep', () => {
    for (const share of [1.06, 0.94, 1.4]) {
      const { startS, endS } = pulled(isPulled, (at) => (at < 6.425 ? 5 : 5 * share), 12.3);
      expect(startS).toBeGreaterThan(6.3);
      expect(endS).toBeGreaterThan(11.5);
    }
  });

  test('does not where the ratio stays the same but for the creep of tyres', () => {
    for (const share of [1, 1.03, 0.97]) {
      const { openedS, endS } = pulled(isPulled, (at) => (at < 6.425 ? 5 : 5 * share), 12.3);
      expect(openedS).toBeLessThan(6);
      expect(endS).toBeGreaterThan(6.5);
    }
  });
});

test('the sweep ends six hundredths of a second before the lift, to a sample, and says that it saw one', () => {
  for (const liftS of [9, 10.37, 12]) {
    const { endS, liftSeen } = pulled(
      (at) => at > 2 && at < liftS,
      () => 5,
      liftS,
    );
    expect(liftSeen).toBe(true);
    expect(endS).toBeLessThan(liftS - 0.04);
    expect(endS).toBeGreaterThan(liftS - 0.075);
  }
});
