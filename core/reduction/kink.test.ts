import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Matrix, solve } from 'ml-matrix';
import { kinkTime } from './kink.ts';
import { seriesOf } from '../numerics/picked.ts';

/** A trace that turns from one slope to another at a time, and noise on it. */
function bent(count: number, stepS: number, atS: number, slopes: readonly [number, number], noise: readonly number[]) {
  const time = seriesOf(count, (index) => 100 + index * stepS);
  const values = time.map((at, index) => {
    const [before, after] = slopes;
    return before * (at - atS) + (after - before) * Math.max(0, at - atS) + (noise[index % noise.length] ?? 0);
  });
  return { time, values };
}

/** What a hinge at a time leaves, by a library's least squares over the same samples. */
function leftBy(time: readonly number[], values: readonly number[], hingeS: number): { bend: number; left: number } {
  const columns = new Matrix(time.map((at) => [1, at - hingeS, Math.max(0, at - hingeS)]));
  const wanted = Matrix.columnVector([...values]);
  const found = solve(columns, wanted);
  return { bend: found.get(2, 0), left: Matrix.sub(wanted, columns.mmul(found)).norm() ** 2 };
}

test('the kink is where two lines that meet leave the least squares, as a library finds it', () => {
  const noise = fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 37, maxLength: 37 });
  fc.assert(
    fc.property(noise, fc.double({ min: -0.2, max: 0.2, noNaN: true }), fc.boolean(), (wobble, offS, rising) => {
      const atS = 101.3;
      const { time, values } = bent(260, 0.01, atS, rising ? [10, 400] : [400, 10], wobble);
      const found = kinkTime(time, values, atS + offS, rising ? 'rising' : 'falling')!;
      // The samples it was fitted to: 0.55 s to each side of the guess.
      const used = Array.from(time.keys()).filter(
        (at) => time[at]! >= atS + offS - 0.55 && time[at]! < atS + offS + 0.55,
      );
      const [x, y] = [used.map((at) => time[at]!), used.map((at) => values[at]!)];
      const { bend, left } = leftBy(x, y, found);
      expect(Math.sign(bend)).toBe(rising ? 1 : -1);
      const others = x.filter((at) => Math.abs(at - (atS + offS)) <= 0.35).map((at) => leftBy(x, y, at).left);
      expect(left).toBeLessThanOrEqual(Math.min(...others) * (1 + 1e-6) + 1e-6);
    }),
    { numRuns: 15 },
  );
});

test('a trace that bends the other way has no kink', () => {
  const { time, values } = bent(260, 0.01, 101.3, [10, 400], [0]);
  expect(kinkTime(time, values, 101.3, 'falling')).toBeUndefined();
});
