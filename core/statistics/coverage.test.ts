import { expect, test } from '@jest/globals';
import { coverageCases } from '../testing/coverage-cases.ts';
import { shortOrWhole } from '../testing/short-or-whole.ts';

const count = shortOrWhole(60, 1000);

test.each(coverageCases.filter(({ wanted }) => wanted !== 'stated'))(
  'the interval holds the truth: $name',
  ({ holds }) => {
    let held = 0;
    for (let seed = 1; seed <= count; seed++) if (holds(seed)) held++;
    // What 93 % would give by chance nearly always.
    expect(held / count).toBeGreaterThan(0.93 - 3 * Math.sqrt((0.93 * 0.07) / count));
  },
);
