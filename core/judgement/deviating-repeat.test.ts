import { written } from '../sentence/sentence.ts';
import { describe, expect, test } from '@jest/globals';
import { testDyno } from '../testing/test-car.ts';
import { chance, normal } from '../testing/chance.ts';
import { assumedSpread } from '../statistics/spread-prior.ts';
import { deviatingRepeat, type RepeatedMean } from './deviating-repeat.ts';

const spread = assumedSpread('inertia-roller');
const run = (id: number, meanKw: number, over: object = {}): RepeatedMean => ({
  id,
  label: `B${id}`,
  meanKw,
  conditions: { label: `B${id}`, dyno: testDyno, hasAir: true, startTemperatures: { oilTemperature: 90 }, ...over },
});

describe('a repeat that lies apart', () => {
  test('is named with by how much and what was different', () => {
    const hot = run(3, 95, { startTemperatures: { oilTemperature: 98 } });
    const found = deviatingRepeat([run(1, 100), run(2, 100.2), hot, run(4, 99.9)], spread)!;
    expect(found).toMatchObject({ id: 3, label: 'B3' });
    expect(found.differs.map((words) => written(words))).toEqual(['oil 8 K hotter at the start']);
    expect(found.awayShare).toBeCloseTo(-0.05, 2);
  });

  test('the first of a session, a slip and another gear are told, too', () => {
    const slips = [{ fromRpm: 4000, toRpm: 5000, percent: 6 }];
    const odd = run(1, 93, { slips, gear: '3rd' });
    const others = [run(2, 100, { gear: '4th' }), run(3, 100.1, { gear: '4th' }), run(4, 100.2, { gear: '4th' })];
    expect(deviatingRepeat([odd, ...others], spread)!.differs).toEqual(['it slipped', 'gear 3rd', 'it was the first']);
  });

  test('is none of two, and seldom one of healthy ones', () => {
    expect(deviatingRepeat([run(1, 90), run(2, 100)], spread)).toBeUndefined();
    const noise = normal(chance(8));
    const named = Array.from({ length: 400 }, () =>
      [1, 2, 3, 4].map((id) => run(id, 100 * (1 + 0.004 * noise()))),
    ).filter((runs) => deviatingRepeat(runs, spread));
    expect(named.length).toBeLessThan(8);
  });
});

test('how far it lies away is a share of the others, not of itself or of all', () => {
  const found = deviatingRepeat([run(1, 100), run(2, 100), run(3, 80), run(4, 100)], spread)!;
  expect(found.awayShare).toBeCloseTo(-0.2, 12);
  expect(deviatingRepeat([run(1, 100), run(2, 100), run(3, 125), run(4, 100)], spread)!.awayShare).toBeCloseTo(
    0.25,
    12,
  );
});
