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

describe('what is different about it', () => {
  const others = [run(1, 100), run(2, 100.2), run(4, 99.9)];
  const differs = (over: object, rest = others) =>
    deviatingRepeat([rest[0]!, rest[1]!, run(3, 93, over), rest[2]!], spread)!.differs.map((words) => written(words));

  test('temperatures are told from four degrees on, to both sides; one that only it has is no difference', () => {
    expect(differs({ startTemperatures: { oilTemperature: 94 } })).toEqual(['oil 4 K hotter at the start']);
    expect(differs({ startTemperatures: { oilTemperature: 86 } })).toEqual(['oil 4 K colder at the start']);
    expect(differs({ startTemperatures: { oilTemperature: 93.9 } })).toEqual([]);
    expect(differs({ startTemperatures: { coolantTemperature: 20 } })).toEqual([]);
    expect(differs({ startTemperatures: undefined })).toEqual([]);
  });

  test('a gear is told where another one is known of another run, and missing air where others have some', () => {
    expect(differs({ gear: '3rd' })).toEqual([]);
    const inGear = [run(1, 100, { gear: '4th' }), run(2, 100.2), run(4, 99.9, { gear: '3rd' })];
    expect(differs({ gear: '3rd' }, inGear)).toEqual(['gear 3rd']);
    expect(differs({ gear: '4th' }, [run(1, 100, { gear: '4th' }), run(2, 100.2), run(4, 99.9)])).toEqual([]);
    expect(differs({}, inGear)).toEqual([]);
    expect(differs({ hasAir: false })).toEqual(['its air is not known']);
    const airless = others.map((one) => ({ ...one, conditions: { ...one.conditions, hasAir: false } }));
    expect(differs({ hasAir: false }, airless)).toEqual([]);
    expect(differs({ hasAir: false }, [airless[0]!, others[1]!, airless[2]!])).toEqual(['its air is not known']);
  });
});

test('three runs are enough to name one, and the bar rises with how many there are', () => {
  expect(deviatingRepeat([run(1, 100), run(2, 100.1), run(3, 90)], spread)?.label).toBe('B3');
  // The chance that counts is that of any of them lying so far out by itself.
  const usual = { share: 0.004, df: 1e6, from: 'learned' as const };
  const away = (count: number, errors: number) => {
    const rest = Array.from({ length: count - 1 }, (_, index) => run(index + 1, 100));
    const deviation = 0.4 * Math.sqrt(1 + 1 / (count - 1));
    return deviatingRepeat([...rest, run(count, 100 + errors * deviation)], usual) !== undefined;
  };
  // Of a normal value beyond 2.94 standard deviations lie 0.33 %, beyond 3.09 0.2 %, beyond 3.29 0.1 %.
  expect([away(3, 2.88), away(3, 3)]).toEqual([false, true]);
  expect([away(5, 3.03), away(5, 3.15)]).toEqual([false, true]);
  expect([away(10, 3.23), away(10, 3.35)]).toEqual([false, true]);
});
