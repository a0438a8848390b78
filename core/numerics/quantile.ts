type Values = readonly number[] | Float64Array;

/** The values that are there. */
function present(values: Values): Float64Array {
  const there = new Float64Array(values.length);
  let count = 0;
  for (let index = 0; index < values.length; index++) {
    const value = values[index]!;
    if (!Number.isNaN(value)) there[count++] = value;
  }
  return there.subarray(0, count);
}

/**
 * Partly sorts values so that the one at `place` stands where it would stand
 * among all, none before it greater and none after it less.
 * Source: Hoare, Algorithm 65: Find (1961), with the middle of three as pivot.
 */
function putInPlace(values: Float64Array, place: number): void {
  let low = 0;
  let high = values.length - 1;
  while (low < high) {
    const [a, b, c] = [values[low]!, values[(low + high) >> 1]!, values[high]!];
    const pivot = Math.max(Math.min(a, b), Math.min(Math.max(a, b), c));
    let left = low;
    let right = high;
    while (left <= right) {
      while (values[left]! < pivot) left++;
      while (values[right]! > pivot) right--;
      if (left > right) break;
      const swapped = values[left]!;
      values[left++] = values[right]!;
      values[right--] = swapped;
    }
    if (place <= right) high = right;
    else if (place >= left) low = left;
    else return;
  }
}

/** The middle value, the mean of the two middle ones of an even count; readings that are not there (NaN) left out. NaN for none. */
export function medianOf(values: Values): number {
  return quantileOf(values, 0.5);
}

/**
 * The value that a share of all values lies at or below, between two of them
 * by a straight line (Hyndman and Fan 1996, type 7); NaN left out. NaN for none.
 * A comparison takes thousands of these: its test holds it against a library's, which sorts.
 * @param share 0 to 1
 */
export function quantileOf(values: Values, share: number): number {
  const found = present(values);
  const place = (found.length - 1) * share;
  const below = Math.floor(place);
  putInPlace(found, below);
  const value = found[below] ?? NaN;
  if (below + 1 >= found.length) return value;
  let next = Infinity;
  for (let index = below + 1; index < found.length; index++) if (found[index]! < next) next = found[index]!;
  return value + (place - below) * (next - value);
}
