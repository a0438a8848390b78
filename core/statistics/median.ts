/** The middle one of some values in order, the upper of two; readings that are not there (NaN) left out. NaN for none. */
export function medianOf(values: ArrayLike<number>): number {
  const sorted = Float64Array.from(values)
    .filter((value) => !Number.isNaN(value))
    .sort();
  return sorted[sorted.length >> 1] ?? NaN;
}
