import { sampleAt } from './sample-at.ts';

/** Σ aᵢ·bᵢ of two arrays of one length. */
export function inner(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let index = 0; index < a.length; index++) sum += sampleAt(a, index) * sampleAt(b, index);
  return sum;
}

/** Takes so much of a vector off another, in place. */
export function subtract(from: Float64Array, vector: Float64Array, share: number): void {
  for (let index = 0; index < from.length; index++) from[index]! -= share * sampleAt(vector, index);
}

/** What is left of a column within this share of itself is rounding. */
const nothingLeft = 1e-9;

/**
 * The columns' span as orthonormal vectors (Gram–Schmidt, each taken off twice, for columns that nearly hang together).
 * @param columns of one length; one that the others before it span is left out
 */
export function orthonormal(columns: readonly Float64Array[]): Float64Array[] {
  const basis: Float64Array[] = [];
  for (const column of columns) {
    const vector = column.slice();
    for (const earlier of [...basis, ...basis]) subtract(vector, earlier, inner(vector, earlier));
    const length = Math.sqrt(inner(vector, vector));
    if (length > nothingLeft * Math.sqrt(inner(column, column))) basis.push(vector.map((value) => value / length));
  }
  return basis;
}
