import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readSpan, spanAt, spanLimits, writeSpan } from './span.ts';

const along = { fromRpm: 2000, toRpm: 6000, spansRpm: [300, 100, 200] };

test('a span that varies goes from knot to knot and stays beyond the last', () => {
  expect([1500, 2000, 3000, 4000, 5000, 6000, 9000].map((rpm) => spanAt(along, rpm))).toEqual([
    300, 300, 200, 100, 150, 200, 200,
  ]);
  expect(spanAt(250, 3000)).toBe(250);
  expect(spanLimits(along)).toEqual([100, 300]);
  expect(spanLimits(0)).toEqual([0, 0]);
});

test('what is written for an address is read back the same', () => {
  const whole = fc.integer({ min: 0, max: 2000 });
  fc.assert(
    fc.property(
      whole,
      whole,
      fc.integer({ min: 1, max: 9000 }),
      fc.array(whole, { minLength: 2, maxLength: 20 }),
      (drawnValue, fromRpm, width, spansRpm) => {
        expect(readSpan(writeSpan(drawnValue))).toBe(drawnValue);
        const span = { fromRpm, toRpm: fromRpm + width, spansRpm };
        expect(readSpan(writeSpan(span))).toEqual(span);
      },
    ),
  );
});

test.each(['', 'auto', '-5', '12.5', '2000-6000', '6000-2000-100.200', '2000-6000-100', '2000-6000-a.b'])(
  '%j is no span',
  (word) => expect(readSpan(word)).toBeUndefined(),
);
