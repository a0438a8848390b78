import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { chance, normal } from '../testing/chance.ts';
import { rateFit, rateWeights, type Traces } from './rate-fit.ts';
import { thinned } from './thinned.ts';

/** An amount that grows at a rate that is a polynomial of a variable moving unevenly in time. */
function traces(rate: (x: number) => number, wobble = 0, gaps: () => number = () => 1): Traces {
  const fine = 200;
  let at = 0;
  let amount = 5;
  let x = 1000;
  const rows = Array.from({ length: 300 }, () => {
    const row = [at, amount, x] as const;
    const step = (0.005 * gaps()) / fine;
    for (let k = 0; k < fine; k++) {
      const speed = 300 + wobble * Math.cos(9 * at);
      amount += rate(x + (speed * step) / 2) * step;
      x += speed * step;
      at += step;
    }
    return row;
  });
  const column = (index: 0 | 1 | 2) => Float64Array.from(rows, (row) => row[index]);
  return { time: column(0), amount: column(1), variable: column(2) };
}

test('a rate that is a parabola of the variable is returned exactly, however unevenly the variable moves', () => {
  const coefficient = fc.double({ min: -1, max: 1, noNaN: true });
  fc.assert(
    fc.property(
      coefficient,
      coefficient,
      fc.double({ min: 0, max: 250, noNaN: true }),
      fc.integer({ min: 1, max: 1000 }),
      (b, c, wobble, seed) => {
        const random = chance(seed);
        const rate = (x: number) => 200 + b * (x - 1200) + 0.002 * c * (x - 1200) ** 2;
        const found = traces(rate, wobble, () => 0.5 + random());
        expect(rateFit(found, 60, 220, 1210, 2)).toBeCloseTo(rate(1210), 1);
      },
    ),
    { numRuns: 25 },
  );
});

test('the weights are what the fit amounts to', () => {
  const noise = normal(chance(8));
  const found = traces((x) => 0.1 * x, 80);
  const noisy = { ...found, amount: found.amount.map((value) => value + 0.1 * noise()) };
  for (const degree of [0, 1, 2] as const) {
    const { first, weights } = rateWeights(noisy, 40, 200, 1150, degree)!;
    const sum = weights.reduce((total, weight, index) => total + weight * noisy.amount[first + index]!, 0);
    expect(sum).toBeCloseTo(rateFit(noisy, 40, 200, 1150, degree), 6);
  }
});

test('a wide window loses nothing by being thinned', () => {
  const levels = thinned(
    traces((x) => 300 + 40 * Math.sin(x / 150), 60),
    4,
  );
  const fine = rateFit(levels[0]!, 48, 239, 1220, 2);
  expect(rateFit(levels[2]!, 12, 59, 1220, 2) / fine).toBeCloseTo(1, 4);
});

test('too few samples give no rate rather than a wild one', () => {
  const found = traces((x) => x);
  expect(rateFit(found, 10, 12, 1020, 2)).toBeNaN();
  expect(rateWeights(found, 10, 12, 1020, 2)).toBeUndefined();
  expect(rateFit({ ...found, time: found.time.map(() => 1) }, 10, 40, 1040, 1)).toBeNaN();
});
