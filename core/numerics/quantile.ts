type Values = readonly number[] | Float64Array;

/** The values that are there, rising. Typed arrays sort as numbers, and fast. */
function rising(values: Values): Float64Array {
  const there = new Float64Array(values.length);
  let count = 0;
  for (let index = 0; index < values.length; index++) {
    const value = values[index]!;
    if (!Number.isNaN(value)) there[count++] = value;
  }
  return there.subarray(0, count).sort();
}

/** The middle value, the mean of the two middle ones of an even count; readings that are not there (NaN) left out. NaN for none. */
export function medianOf(values: Values): number {
  return quantileOf(values, 0.5);
}

/**
 * The value that a share of all values lies at or below, between two of them
 * by a straight line (Hyndman and Fan 1996, type 7); NaN left out. NaN for none.
 * Sorted as a typed array, which is several times faster than a library's; its test holds it against one.
 * @param share 0 to 1
 */
export function quantileOf(values: Values, share: number): number {
  const sorted = rising(values);
  const place = (sorted.length - 1) * share;
  const below = Math.floor(place);
  const value = sorted[below] ?? NaN;
  return below + 1 < sorted.length ? value + (place - below) * (sorted[below + 1]! - value) : value;
}
