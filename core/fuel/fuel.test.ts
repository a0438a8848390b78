import { written } from '../sentence/sentence.ts';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { mixed, planForTarget, stoichiometricRatio, volumeFactor } from './blend.ts';
import { fuelAfter, fuelNow, fuelWords, type FuelEntry } from './ledger.ts';

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

  test('of what nobody wrote down nothing is known', () => {
    expect(fuelAfter([])).toEqual({ name: '', litres: null, ethanolPct: null, from: 'unknown', moving: false });
    expect(fuelNow({ fuelEntries: [] })).toBeUndefined();
    expect(fuelNow({ fuelEntries: [{ ...arrived, at: '2026-05-04T09:00:00Z' }] })).toEqual({
      name: '98 octane',
      litres: 20,
      ethanolPct: 10,
      from: 'stated',
      moving: false,
    });
  });

  test('a reading settles at one percent, begins anew with what is added, and not with what is drained', () => {
    const measured = (minute: number, ethanolPct: number | null) => entry(minute, { kind: 'measured', ethanolPct });
    const read = (...entries: FuelEntry[]) => fuelAfter([arrived, added, ...entries]);
    expect(read(measured(8, 52), measured(9, 53))).toMatchObject({ ethanolPct: 53, from: 'measured', moving: false });
    expect(read(measured(8, 52), measured(9, 53.1))).toMatchObject({ ethanolPct: 55, from: 'computed', moving: true });
    // A sensor that says nothing is no reading.
    expect(read(measured(8, 52), measured(9, null), measured(10, 52.5)).from).toBe('measured');
    const again = entry(9, { kind: 'added', litres: 5, ethanolPct: 10, name: '98 octane' });
    expect(read(measured(8, 54), again, measured(10, 54.5))).toMatchObject({ from: 'computed', moving: true });
    const drained = entry(9, { kind: 'drained', litres: 5 });
    expect(read(measured(8, 54), drained, measured(10, 54.5))).toMatchObject({ from: 'measured', ethanolPct: 54.5 });
    // As the car came, one reading is enough; what was drained meanwhile changes nothing of that.
    expect(fuelAfter([arrived, measured(1, 8)])).toMatchObject({ from: 'measured', ethanolPct: 8, moving: false });
    expect(fuelAfter([arrived, drained, measured(10, 8)])).toMatchObject({ from: 'measured', ethanolPct: 8 });
  });

  test('what is poured together keeps both names once, and of an unknown part makes an unknown whole', () => {
    const more = (fields: Partial<FuelEntry>) => entry(5, { kind: 'added', litres: 30, ethanolPct: 85, ...fields });
    expect(fuelAfter([arrived, added]).name).toBe('98 octane + E85');
    expect(fuelAfter([arrived, more({ name: '98 octane' })]).name).toBe('98 octane');
    expect(fuelAfter([arrived, more({ name: '' })]).name).toBe('98 octane');
    const unknown = { name: '98 octane + E85', ethanolPct: null, from: 'unknown' };
    expect(fuelAfter([arrived, more({ name: 'E85', litres: null })])).toMatchObject({ ...unknown, litres: null });
    expect(fuelAfter([arrived, more({ name: 'E85', ethanolPct: null })])).toMatchObject({ ...unknown, litres: 50 });
    const vague = entry(0, { kind: 'arrived', litres: 20, name: '98 octane' });
    expect(fuelAfter([vague, added])).toMatchObject({ ...unknown, litres: 50, moving: true });
    expect(fuelAfter([vague, more({ name: 'E85', ethanolPct: null })])).toMatchObject({ ...unknown, moving: false });
    const unmeasured = entry(0, { kind: 'arrived', ethanolPct: 10, name: '98 octane' });
    expect(fuelAfter([unmeasured, added])).toMatchObject({ ...unknown, litres: null });
    const empty = entry(1, { kind: 'drained' });
    expect(fuelAfter([arrived, empty, more({ name: 'race', ethanolPct: null })])).toMatchObject({
      name: 'race',
      litres: 30,
      ethanolPct: null,
      from: 'unknown',
    });
    expect(fuelAfter([arrived, empty, added])).toMatchObject({ litres: 30, ethanolPct: 85, from: 'stated' });
  });

  test('words', () => {
    expect(written(fuelWords(fuelAfter([arrived])))).toBe('98 octane, 10 % ethanol stated, 20 L');
    expect(written(fuelWords(fuelAfter([])))).toBe('not recorded');
    expect(written(fuelWords(fuelAfter([arrived, added])))).toMatch(/still moving, 50 L/);
  });
});
