import { coverageCases } from '../core/testing/coverage-cases.ts';
import type { Figure } from './figure.ts';

const count = 2000;

/** How often each kind of interval holds the truth, over all that a shop may bring. */
export function coverageRates(): Figure[] {
  return coverageCases.map(({ name, wanted, holds }): Figure => {
    let held = 0;
    for (let seed = 1; seed <= count; seed++) if (holds(seed)) held++;
    const share = held / count;
    const within = 258 * Math.sqrt((share * (1 - share)) / count);
    const told = { about: '93 to 97 wanted', least: '95 or more wanted', stated: 'stated, not met' }[wanted];
    return {
      name: `interval true: ${name}`,
      value: 100 * share,
      unit: `% ± ${within.toFixed(1)} of ${count} (${told})`,
    };
  });
}
