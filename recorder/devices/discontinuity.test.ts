import { expect, test } from '@jest/globals';
import { discontinuityRemarks } from './discontinuity.ts';

test('fifty thousand gaps are one remark, with how many, where from and where to', () => {
  const found = Array.from({ length: 56_230 }, (_, index) => ({ missing: 1 + (index % 2), atS: 3 + index / 4000 }));
  expect(discontinuityRemarks(found)).toEqual(['84345 frames are missing in 56230 places from 3.00 to 17.06 s.']);
});

test('one gap names its place; a clock that went back is told by itself', () => {
  expect(discontinuityRemarks([{ missing: 1, atS: 4.5 }])).toEqual(['1 frame is missing at 4.50 s.']);
  expect(
    discontinuityRemarks([
      { missing: 3, atS: 4.5 },
      { backFromS: 9, atS: 2 },
      { backFromS: 8, atS: 1 },
    ]),
  ).toEqual([
    '3 frames are missing at 4.50 s.',
    "The instrument's clock went back 2 times, first from 9.00 to 2.00 s.",
  ]);
  expect(discontinuityRemarks([])).toEqual([]);
});
