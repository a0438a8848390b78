import { expect, test } from '@jest/globals';
import { chance, normal } from '../testing/chance.ts';
import { repeatSpread, type RepeatedRun } from './repeat-spread.ts';

const run = (minute: number, factor: number, from = 2000, to = 6000): RepeatedRun => {
  const engineSpeedRpm = Float64Array.from({ length: (to - from) / 50 + 1 }, (_, index) => from + 50 * index);
  return { atMs: minute * 60_000, engineSpeedRpm, powerKw: engineSpeedRpm.map((rpm) => (factor * rpm) / 60) };
};

test('the spread of repeats comes back as a share of power, whatever the power', () => {
  const noise = normal(chance(4));
  const shares = Array.from(
    { length: 300 },
    () => repeatSpread([0, 10, 20].map((minute) => run(minute, 3 * (1 + 0.004 * noise())))!)!.share,
  );
  const mean = Math.sqrt(shares.reduce((sum, share) => sum + share ** 2, 0) / shares.length);
  expect(mean).toBeGreaterThan(0.0036);
  expect(mean).toBeLessThan(0.0044);
});

test('only runs of one strapping are repeats, over the range that all cover', () => {
  const day = 24 * 60;
  const found = repeatSpread([run(0, 1), run(10, 1.01), run(day, 1.2, 2500), run(day + 10, 1.21, 2500, 5500)])!;
  expect(found.runs).toBe(3);
  expect(found.share).toBeLessThan(0.01);
  expect(repeatSpread([run(0, 1), run(day, 1.2)])).toBeUndefined();
  expect(repeatSpread([run(0, 1)])).toBeUndefined();
  expect(repeatSpread([run(0, 1, 2000, 3000), run(10, 1, 4000, 5000)])).toBeUndefined();
});

test('how repeats changed from run to run follows from their places; without places nothing is said', () => {
  const placed = [
    [0, 1],
    [1, 1.002],
    [6, 1.012],
  ].map(([place, factor]) => ({ ...run(8 * place!, factor!), place }));
  const { slope } = repeatSpread(placed)!;
  expect(slope!.perRun).toBeCloseTo(0.002, 4);
  expect(slope!.placeScatter).toBeCloseTo(62 / 3, 9);
  expect(repeatSpread([run(0, 1), run(8, 1.002)])).not.toHaveProperty('slope');
});
