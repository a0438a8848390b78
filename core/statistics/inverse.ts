/** Inverse of a square matrix by Gauss–Jordan with pivoting; undefined when singular. */
export function inverted(matrix: readonly number[][]): number[][] | undefined {
  const size = matrix.length;
  const rows = matrix.map((row, i) => [...row, ...row.map((_, j) => Number(i === j))]);
  for (let column = 0; column < size; column++) {
    let pivot = column;
    for (let row = column + 1; row < size; row++) {
      if (Math.abs(rows[row]![column]!) > Math.abs(rows[pivot]![column]!)) pivot = row;
    }
    if (!(Math.abs(rows[pivot]![column]!) > 1e-12 * matrix[0]![0]!)) return undefined;
    [rows[column], rows[pivot]] = [rows[pivot]!, rows[column]!];
    const lead = rows[column]!.map((value) => value / rows[column]![column]!);
    rows[column] = lead;
    rows.forEach((row, at) => {
      if (at !== column) rows[at] = row.map((value, k) => value - row[column]! * lead[k]!);
    });
  }
  return rows.map((row) => row.slice(size));
}
