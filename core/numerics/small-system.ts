/**
 * Solves a small system of linear equations in place, by Gaussian elimination
 * with pivoting: for the hot loops of the fits, where a library's matrices
 * would cost more than the solving. Held against a library in its test.
 *
 * @param matrix rows of `stride` numbers each; destroyed
 * @param terms unknowns, at most `stride`
 * @param side right-hand side; holds the solution afterwards
 * @param least a pivot below this is none
 * @returns false when the matrix is singular
 */
export function solveInPlace(
  matrix: Float64Array,
  stride: number,
  terms: number,
  side: Float64Array,
  least: number,
): boolean {
  for (let column = 0; column < terms; column++) {
    let pivot = column;
    for (let row = column + 1; row < terms; row++) {
      if (Math.abs(matrix[row * stride + column]!) > Math.abs(matrix[pivot * stride + column]!)) pivot = row;
    }
    if (!(Math.abs(matrix[pivot * stride + column]!) > least)) return false;
    if (pivot !== column) swapRows(matrix, stride, terms, side, pivot, column);
    for (let row = column + 1; row < terms; row++) {
      const factor = matrix[row * stride + column]! / matrix[column * stride + column]!;
      for (let k = column; k < terms; k++) matrix[row * stride + k]! -= factor * matrix[column * stride + k]!;
      side[row]! -= factor * side[column]!;
    }
  }
  for (let row = terms - 1; row >= 0; row--) {
    for (let k = row + 1; k < terms; k++) side[row]! -= matrix[row * stride + k]! * side[k]!;
    side[row]! /= matrix[row * stride + row]!;
  }
  return true;
}

function swapRows(matrix: Float64Array, stride: number, terms: number, side: Float64Array, a: number, b: number): void {
  for (let k = 0; k < terms; k++) {
    const kept = matrix[a * stride + k]!;
    matrix[a * stride + k] = matrix[b * stride + k]!;
    matrix[b * stride + k] = kept;
  }
  const kept = side[a]!;
  side[a] = side[b]!;
  side[b] = kept;
}
