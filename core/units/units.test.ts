import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { convert, unitFromSpelling, type UnitName } from './units.ts';

test.each<[number, UnitName, UnitName, number]>([
  [1, 'hp', 'W', 745.699872],
  [100, 'PS', 'kW', 73.549875],
  [1, 'lb·ft', 'N·m', 1.3558179483],
  [14.5, 'psi', 'kPa', 99.97398],
  [29.92, 'inHg', 'hPa', 1013.2076],
  [212, '°F', '°C', 100],
  [60, 'mph', 'km/h', 96.56064],
  [3000, 'rpm', 'rad/s', 314.159265],
])('%d %s in %s', (value, from, to, expected) => {
  expect(convert(value, from, to)).toBeCloseTo(expected, 4);
});

test('there and back is the same number', () => {
  const pairs: [UnitName, UnitName][] = [
    ['kW', 'hp'],
    ['N·m', 'lb·ft'],
    ['°C', '°F'],
    ['kPa', 'psi'],
    ['rpm', 'rad/s'],
  ];
  fc.assert(
    fc.property(fc.constantFrom(...pairs), fc.double({ min: -1e5, max: 1e5, noNaN: true }), ([a, b], value) => {
      expect(convert(convert(value, a, b), b, a)).toBeCloseTo(value, 6);
    }),
  );
});

test('units of different kinds do not mix', () => {
  expect(() => convert(1, 'kW', 'N·m')).toThrow(RangeError);
});

test.each([
  ['Nm', 'N·m'],
  ['1/min', 'rpm'],
  ['RPM', 'rpm'],
  ['KM/H', 'km/h'],
  [' kw ', 'kW'],
  ['mbar', 'hPa'],
  ['MPa', 'MPa'],
])('%s is read as %s', (text, unit) => {
  expect(unitFromSpelling(text)).toBe(unit);
});

test.each(['furlong', 'mPa', 'parsec/s'])('%s is not known', (text) => {
  expect(unitFromSpelling(text)).toBeUndefined();
});
