import { written } from '../sentence/sentence.ts';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { mixed, planForTarget, stoichiometricRatio, volumeFactor } from './blend.ts';
import { fuelAfter, fuelWords, type FuelEntry } from './ledger.ts';

const litres = fc.double({ min: 0.5, max: 80, noNaN: true });
const percent = fc.double({ min: 0, max: 100, noNaN: true });

describe('blends', () => {
  test('known figures', () => {
    expect(stoichiometricRatio(0)).toBeCloseTo(14.7, 6);
    expect(stoichiometricRatio(10)).toBeCloseTo(14.1, 1);
    expect(stoichiometricRatio(85)).toBeCloseTo(9.8, 1);
    expect(stoichiometricRatio(100)).toBeCloseTo(9, 6);
    expect(volumeFactor(85)).toBeCloseTo(1.43, 2);
    expect(volumeFactor(70)).toBeCloseTo(1.33, 2);
  });

  test('ethanol is neither made nor lost, in any order', () => {
    fc.assert(
      fc.property(litres, percent, litres, percent, (a, p, b, q) => {
        const both = mixed({ litres: a, ethanolPct: p }, { litres: b, ethanolPct: q });
        expect(both.litres * both.ethanolPct).toBeCloseTo(a * p + b * q, 6);
        expect(both.ethanolPct).toBeGreaterThanOrEqual(Math.min(p, q) - 1e-9);
        expect(mixed({ litres: b, ethanolPct: q }, { litres: a, ethanolPct: p }).ethanolPct).toBeCloseTo(
          both.ethanolPct,
          9,
        );
      }),
    );
  });

  test('a plan reaches its target within the tank', () => {
    fc.assert(
      fc.property(litres, percent, percent, fc.integer({ min: 1, max: 99 }), (inTank, has, adding, share) => {
        fc.pre(Math.abs(adding - has) > 1);
        const target = has + ((adding - has) * share) / 100;
        const plan = planForTarget({ litres: inTank, ethanolPct: has }, 80, adding, target);
        // A twentieth of a percent is nothing that anybody measures: then nothing is added.
        expect(Math.abs(plan.result.ethanolPct - target)).toBeLessThan(0.051);
        expect(plan.result.litres).toBeLessThanOrEqual(80 + 1e-9);
        expect(plan.drainLitres).toBeGreaterThanOrEqual(0);
      }),
    );
  });

  test.each([
    [85, 85, /drain it first/],
    [5, 50, /other side/],
  ])('from 10 %% with %d %% to %d %% is refused', (adding, target, sentence) => {
    expect(() => planForTarget({ litres: 20, ethanolPct: 10 }, 50, adding, target)).toThrow(sentence);
  });
});

describe('the ledger', () => {
  const entry = (minute: number, fields: Partial<FuelEntry> & Pick<FuelEntry, 'kind'>): FuelEntry => ({
    at: new Date(minute * 60e3),
    litres: null,
    ethanolPct: null,
    name: '',
    ...fields,
  });
  const arrived = entry(0, { kind: 'arrived', litres: 20, ethanolPct: 10, name: '98 octane' });
  const added = entry(5, { kind: 'added', litres: 30, ethanolPct: 85, name: 'E85' });

  test('content is computed with the residue until readings settle', () => {
    const filled = fuelAfter([arrived, added]);
    expect(filled).toMatchObject({ litres: 50, ethanolPct: 55, from: 'computed', moving: true });
    const first = [arrived, added, entry(8, { kind: 'measured', ethanolPct: 22 })];
    expect(fuelAfter(first)).toMatchObject({ ethanolPct: 55, moving: true });
    const moving = [...first, entry(12, { kind: 'measured', ethanolPct: 46 })];
    expect(fuelAfter(moving).moving).toBe(true);
    const settled = [
      ...moving,
      entry(15, { kind: 'measured', ethanolPct: 53.6 }),
      entry(17, { kind: 'measured', ethanolPct: 54 }),
    ];
    expect(fuelAfter(settled)).toMatchObject({ ethanolPct: 54, from: 'measured', moving: false });
    // Entered late, taken in order of time all the same.
    expect(fuelAfter([...settled].reverse())).toEqual(fuelAfter(settled));
  });

  test('what is not known stays unknown, and is not made up', () => {
    expect(fuelAfter([])).toMatchObject({ ethanolPct: null, from: 'unknown', litres: null });
    expect(fuelAfter([entry(0, { kind: 'arrived', name: '95 octane' }), added]).ethanolPct).toBeNull();
    const drained = [arrived, entry(1, { kind: 'drained' }), added];
    expect(fuelAfter(drained)).toMatchObject({ litres: 30, ethanolPct: 85, name: 'E85' });
    expect(fuelAfter([arrived, entry(1, { kind: 'drained', litres: 15 }), added])).toMatchObject({ litres: 35 });
  });

  test('what is drained is less of the same fuel, never less than none, and of an unknown volume unknown', () => {
    expect(fuelAfter([arrived, entry(1, { kind: 'drained', litres: 15 })])).toMatchObject({
      litres: 5,
      ethanolPct: 10,
      name: '98 octane',
      from: 'stated',
    });
    expect(fuelAfter([arrived, entry(1, { kind: 'drained', litres: 25 })]).litres).toBe(0);
    const unmeasured = entry(0, { kind: 'arrived', ethanolPct: 10, name: '98 octane' });
    expect(fuelAfter([unmeasured, entry(1, { kind: 'drained', litres: 5 })]).litres).toBeNull();
    // Draining alone does not unsettle a reading.
    const read = [arrived, entry(1, { kind: 'measured', ethanolPct: 9 }), entry(2, { kind: 'drained', litres: 4 })];
    expect(fuelAfter(read)).toMatchObject({ litres: 16, ethanolPct: 9, from: 'measured', moving: false });
  });

  test('words', () => {
    expect(written(fuelWords(fuelAfter([arrived])))).toBe('98 octane, 10 % ethanol stated, 20 L');
    expect(written(fuelWords(fuelAfter([])))).toBe('not recorded');
    expect(written(fuelWords(fuelAfter([arrived, added])))).toMatch(/still moving, 50 L/);
  });
});
