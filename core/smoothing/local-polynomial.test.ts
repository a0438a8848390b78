import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { localFit } from './local-polynomial.ts';
import { slopes } from './moving-fit.ts';

const coefficient = fc.double({ min: -5, max: 5, noNaN: true });

test('a cubic is returned exactly, value and slope, at even and uneven spacing', () => {
  fc.assert(
    fc.property(
      fc.tuple(coefficient, coefficient, coefficient, coefficient),
      fc.infiniteStream(fc.double({ min: 0.2, max: 1.8, noNaN: true })),
      fc.double({ min: 0.1, max: 0.9, noNaN: true }),
      ([a, b, c, d], gaps, where) => {
        let at = 0;
        const x = Float64Array.from({ length: 30 }, () => (at += 0.05 * (gaps.next().value as number)));
        const y = x.map((u) => a + b * u + c * u * u + d * u ** 3);
        const point = x[0]! + where * (x[29]! - x[0]!);
        const fit = localFit(x, y, 0, 29, point, 3)!;
        expect(fit.value).toBeCloseTo(a + b * point + c * point ** 2 + d * point ** 3, 6);
        expect(fit.slope).toBeCloseTo(b + 2 * c * point + 3 * d * point ** 2, 5);
      },
    ),
  );
});

test('too few samples give no fit rather than a wild one', () => {
  expect(localFit(Float64Array.of(0, 1, 2), Float64Array.of(0, 1, 2), 0, 2, 1, 3)).toBeUndefined();
  expect(localFit(Float64Array.of(1, 1, 1, 1, 1), Float64Array.of(1, 2, 3, 4, 5), 0, 4, 1, 1)).toBeUndefined();
});

test('moving lines follow a line exactly and skip blanks', () => {
  const x = Float64Array.from({ length: 50 }, (_, index) => index * 0.1);
  const y = x.map((at, index) => (index === 20 ? NaN : 3 - 2 * at));
  const { value, slope } = slopes(x, y, 0.5);
  expect(value[20]).toBeCloseTo(3 - 2 * x[20]!, 9);
  expect(slope[35]).toBeCloseTo(-2, 9);
});
