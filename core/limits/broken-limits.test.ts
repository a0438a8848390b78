import { written } from '../sentence/sentence.ts';
import { describe, expect, test } from '@jest/globals';
import { brokenLimits, worstOf } from './broken-limits.ts';
import { brokenWords } from './broken-words.ts';
import type { Limit } from './limit.ts';
import { usualLimits } from './suggestions.ts';
import { stoichiometricRatio } from '../fuel/blend.ts';
import { unitSets } from '../units/told-units.ts';

const reads =
  (values: Partial<Record<string, number>>) =>
  ({ quantity }: Limit) =>
    values[quantity] === undefined ? undefined : { reading: values[quantity], atRpm: 5912 };
const spark = { ignition: 'spark', ethanolPct: 10 } as const;
const us = { ...unitSets.find(({ name }) => name === 'US')!.units, stoichiometric: 14.7 };

describe('limits that a run went beyond', () => {
  test('are those on the dangerous side, with what was read and where', () => {
    const limits: Limit[] = [
      { quantity: 'exhaustTemperature', value: 900, scale: null },
      { quantity: 'oilPressure', value: 250, scale: null },
      { quantity: 'engineSpeed', value: 10_800, scale: null },
    ];
    const found = brokenLimits(
      limits,
      reads({ exhaustTemperature: 950, oilPressure: 300, engineSpeed: 11_000 }),
      spark,
    );
    expect(found.map(({ quantity }) => quantity)).toEqual(['exhaustTemperature', 'engineSpeed']);
    expect(found.map((broken) => written(brokenWords(broken)))).toEqual([
      'exhaust temperature reached 950 °C at 5,910 rpm (limit 900 °C)',
      'engine speed reached 11,000 rpm (limit 10,800 rpm)',
    ]);
  });

  test('knock counts by the usual limit where none was set, and says so; a diesel has none', () => {
    const knocked = reads({ knockRetard: 4.2 });
    const [usual] = brokenLimits([], knocked, spark);
    expect(written(brokenWords(usual!))).toBe(
      'it knocked, 4.2° taken back at 5,910 rpm (usual limit 3.0°, not set in this job)',
    );
    expect(brokenLimits([{ quantity: 'knockRetard', value: 5, scale: null }], knocked, spark)).toEqual([]);
    expect(brokenLimits([], knocked, { ignition: 'compression', ethanolPct: null })).toEqual([]);
    expect(usualLimits({ ignition: 'compression' })).toEqual([]);
  });

  test('nothing is said of what was not read, nor of a scale that is not shown', () => {
    const torque: Limit = { quantity: 'torque', value: 200, scale: 'crank' };
    expect(brokenLimits([torque], reads({ torque: 300 }), spark)).toEqual([]);
    expect(brokenLimits([torque], reads({ torque: 300 }), spark, 0)).toHaveLength(1);
    expect(brokenLimits([torque], () => undefined, spark)).toEqual([]);
    expect(brokenLimits([torque], () => ({ reading: NaN }), spark, 0)).toEqual([]);
  });

  test('a mixture is told by the ratio of what that run burnt, whatever is in the tank now', () => {
    const limit: Limit = { quantity: 'lambda', value: 0.88, scale: null };
    const [lean] = brokenLimits([limit], reads({ lambda: 0.95 }), { ignition: 'spark', ethanolPct: 85 });
    const ratio = stoichiometricRatio(85);
    expect(written(brokenWords(lean!), us)).toContain(
      `reached ${(0.95 * ratio).toFixed(1)} AFR at 5,910 rpm (limit ${(0.88 * ratio).toFixed(1)} AFR)`,
    );
  });

  test('of several runs the farthest is told', () => {
    const limit: Limit = { quantity: 'oilPressure', value: 250, scale: null };
    const runs = [240, 180, 220].flatMap((oilPressure) => brokenLimits([limit], reads({ oilPressure }), spark));
    expect(worstOf(runs).map(({ reading }) => reading)).toEqual([180]);
  });
});

describe('of several runs', () => {
  const broken = (quantity: 'exhaustTemperature' | 'oilPressure', reading: number, atRpm: number) => {
    const value = quantity === 'oilPressure' ? 250 : 900;
    return brokenLimits([{ quantity, value, scale: null }], () => ({ reading, atRpm }), spark).filter(
      (one) => one.quantity === quantity,
    );
  };

  test('the farthest beyond each limit is told: the hottest, the lowest pressure, the first of two alike', () => {
    const all = [
      ...broken('exhaustTemperature', 920, 5000),
      ...broken('oilPressure', 200, 3000),
      ...broken('exhaustTemperature', 960, 5500),
      ...broken('oilPressure', 150, 3500),
      ...broken('exhaustTemperature', 940, 6000),
      ...broken('oilPressure', 180, 4000),
      ...broken('exhaustTemperature', 960, 6500),
      ...broken('oilPressure', 150, 4500),
    ];
    expect(worstOf(all).map(({ quantity, reading, atRpm }) => [quantity, reading, atRpm])).toEqual([
      ['exhaustTemperature', 960, 5500],
      ['oilPressure', 150, 3500],
    ]);
    expect(worstOf([])).toEqual([]);
  });

  test('a reading on a limit breaks none, the least one beyond it does', () => {
    expect(broken('exhaustTemperature', 900, 5000)).toEqual([]);
    expect(broken('exhaustTemperature', 900.1, 5000)).toHaveLength(1);
    expect(broken('oilPressure', 250, 5000)).toEqual([]);
    expect(broken('oilPressure', 249.9, 5000)).toHaveLength(1);
  });
});
