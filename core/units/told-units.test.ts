import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { figureIn, keptUnits, toldIn, unitChoices, unitKinds, unitSets, withUnit, type Units } from './told-units.ts';

const us = unitSets.find(({ name }) => name === 'US')!.units;
const uk = unitSets.find(({ name }) => name === 'UK')!.units;
const said = (kept: number, unit: string, units: Units, ratio?: number) => {
  const told = toldIn(unit, units, ratio);
  return withUnit(figureIn(told.of(kept), told.unit), told.unit);
};

describe('what is kept in one unit is told in another', () => {
  test.each<[number, string, Units, string]>([
    [124, 'kPa', keptUnits, '124 kPa'],
    [124, 'kPa', us, '18.0 psi'],
    [124, 'kPa', { ...keptUnits, pressure: 'bar' }, '1.24 bar'],
    [2.4, 'kPa', keptUnits, '2.4 kPa'],
    [2.4, 'kPa', { ...keptUnits, pressure: 'bar' }, '0.024 bar'],
    [2.4, 'kPa', us, '0.35 psi'],
    [160, 'MPa', keptUnits, '160.0 MPa'],
    [160, 'MPa', { ...keptUnits, pressure: 'bar' }, '1,600 bar'],
    [1013.25, 'hPa', us, '29.92 inHg'],
    [1013.25, 'hPa', uk, '1,013 hPa'],
    [87, '°C', us, '189 °F'],
    [-1, '°C', us, '30 °F'],
    [12, 'K', us, '22 °F'],
    [12, 'K', keptUnits, '12 K'],
    [45, 'L', keptUnits, '45 L'],
    [45, 'L', us, '11.9 US gal'],
    [45, 'L', uk, '9.9 imp gal'],
    [340, 'L/h', us, '90 US gal/h'],
    [180, 'km/h', uk, '112 mph'],
    [280, 'N·m', us, '207 lb·ft'],
    [0.88, '–', us, '0.88'],
    [3, '°', us, '3.0°'],
    [-0.2, 'K', keptUnits, '0 K'],
  ])('%d %s', (kept, unit, units, words) => expect(said(kept, unit, units)).toBe(words));

  test('a mixture is an air–fuel ratio only with the ratio of its fuel', () => {
    expect(said(0.88, 'λ', us, 14.7)).toBe('12.9 AFR');
    expect(said(0.88, 'λ', us)).toBe('0.88');
    expect(said(0.88, 'λ', keptUnits, 14.7)).toBe('0.88');
  });

  test('a unit that nobody chooses stays as it is', () => {
    expect(said(47, 'cm³/min', us)).toBe('47 cm³/min');
    expect(said(4.7, 'turns', us)).toBe('4.7 turns');
  });
});

test('what was typed comes back as it was told, whatever was chosen', () => {
  const choice = fc.record(
    Object.fromEntries(unitKinds.map((kind) => [kind, fc.constantFrom(...unitChoices[kind])])) as never,
  );
  const unit = fc.constantFrom('λ', 'kW', 'N·m', 'kPa', 'MPa', 'hPa', '°C', 'K', 'km/h', 'L', 'L/h', 'rpm');
  fc.assert(
    fc.property(choice, unit, fc.double({ min: -1e4, max: 1e4, noNaN: true }), (units, kept, value) => {
      const told = toldIn(kept, units as Units, 14.7);
      expect(told.kept(told.of(value))).toBeCloseTo(value, 6);
    }),
  );
});

test('as everything is kept is one of the sets offered, and changes nothing', () => {
  expect(unitSets[0]!.units).toEqual(keptUnits);
  for (const unit of ['kW', 'N·m', 'kPa', 'MPa', 'hPa', '°C', 'K', 'km/h', 'L'])
    expect(toldIn(unit, keptUnits)).toMatchObject({ unit });
});
