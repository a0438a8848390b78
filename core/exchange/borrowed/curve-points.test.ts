import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readCurvePoints } from './curve-points.ts';

describe('points of a curve as they are pasted', () => {
  test('blanks, tabs, commas and semicolons; a head; speeds in any order', () => {
    const read = [
      [2000, 28],
      [3000, 47.5],
    ];
    for (const apart of [' ', '\t', ',', ';', ', ', '   '])
      expect(readCurvePoints(`speed${apart}power\n3000${apart}47.5\n\n2000${apart}28\n`, 'kW')).toEqual(read);
  });

  test('other units become kW', () => {
    expect(readCurvePoints('2000 100\n3000 200', 'hp')[1]![1]).toBeCloseTo(149.14, 2);
  });

  test('whatever pairs are written are read again', () => {
    const pairs = fc.uniqueArray(fc.tuple(fc.integer({ min: 1, max: 30_000 }), fc.integer({ min: -50, max: 5000 })), {
      minLength: 2,
      selector: ([rpm]) => rpm,
    });
    fc.assert(
      fc.property(pairs, (points) => {
        const text = points.map((point) => point.join('\t')).join('\n');
        expect(readCurvePoints(text, 'kW')).toEqual([...points].sort(([a], [b]) => a - b));
      }),
    );
  });

  test.each([
    ['', /two points/],
    ['3000 47', /two points/],
    ['3000 47\n4000', /Line 2, “4000”/],
    ['3000 47\nabc 3', /Line 2/],
    ['3000 47\n3000 48', /3000 rpm is given twice/],
    ['3000 47\n-5 48', /no engine speed/],
    ['3000 47\n4000 1e999', /Line 2/],
    ['3000 47 9\n4000 50 9', /Line 1/],
  ])('refuses %j with the line', (text, why) => {
    expect(() => readCurvePoints(text, 'kW')).toThrow(why);
  });
});
