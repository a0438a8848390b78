import { inverted } from '../numerics/inverse.ts';
import { studentT } from '../statistics/student-t.ts';
import type { Quadratic } from './parabola.ts';

/**
 * Ordinary least squares of a parabola.
 * @returns undefined with fewer than three levels or four observations
 */
export function quadraticFit(x: readonly number[], y: readonly number[]): Quadratic | undefined {
  const count = x.length;
  if (new Set(x).size < 3 || count < 4) return undefined;
  const middle = (Math.min(...x) + Math.max(...x)) / 2;
  const half = (Math.max(...x) - Math.min(...x)) / 2;
  // Levels between −1 and 1 keep the normal equations sound.
  const rows = x.map((value) => {
    const u = (value - middle) / half;
    return [1, u, u * u] as const;
  });
  const normal = [0, 1, 2].map((i) => [0, 1, 2].map((j) => rows.reduce((sum, row) => sum + row[i]! * row[j]!, 0)));
  const inverse = inverted(normal);
  if (!inverse) return undefined;
  const moments = [0, 1, 2].map((i) => rows.reduce((sum, row, at) => sum + row[i]! * y[at]!, 0));
  const scaled = inverse.map((row) => row.reduce((sum, value, j) => sum + value * moments[j]!, 0));
  const square = rows.reduce(
    (sum, row, at) => sum + (y[at]! - row.reduce((fit, value, j) => fit + value * scaled[j]!, 0)) ** 2,
    0,
  );
  const df = count - 3;
  const scale = [1, half, half * half];
  return {
    middle,
    coefficients: [scaled[0]!, scaled[1]! / half, scaled[2]! / (half * half)],
    inverse: inverse.map((row, i) => row.map((value, j) => value / scale[i]! / scale[j]!)),
    standardDeviation: Math.sqrt(square / df),
    df,
    t: studentT(0.95, df),
  };
}
