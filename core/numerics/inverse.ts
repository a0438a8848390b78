import { inverse, Matrix, SingularValueDecomposition } from 'ml-matrix';

/** Worse conditioned than this a matrix of normal equations says nothing. */
const worstCondition = 1e12;

/** Inverse of a square matrix; undefined when it is singular, or so nearly that its inverse means nothing. */
export function inverted(rows: readonly (readonly number[])[]): number[][] | undefined {
  const matrix = new Matrix(rows.map((row) => [...row]));
  const { condition } = new SingularValueDecomposition(matrix);
  return condition < worstCondition ? inverse(matrix).to2DArray() : undefined;
}

/** The product of two matrices that fit. */
export function product(a: readonly (readonly number[])[], b: readonly (readonly number[])[]): number[][] {
  return new Matrix(a.map((row) => [...row])).mmul(new Matrix(b.map((row) => [...row]))).to2DArray();
}
