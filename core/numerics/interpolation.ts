/** Index of the first element of a rising array that is not below `target`; its length when there is none. */
export function firstNotBelow(rising: Float64Array, target: number): number {
  let low = 0;
  let high = rising.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (rising[middle]! < target) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** y at `target` by straight lines between the points (x rising); the end values beyond the ends. */
export function interpolate(x: Float64Array, y: Float64Array, target: number): number {
  const right = firstNotBelow(x, target);
  if (right === 0) return y[0]!;
  if (right === x.length) return y[x.length - 1]!;
  const share = (target - x[right - 1]!) / (x[right]! - x[right - 1]!);
  return y[right - 1]! + share * (y[right]! - y[right - 1]!);
}

/** Index of the first greatest value; NaN is none. 0 where there is no other. */
export function greatestAt(values: Float64Array): number {
  let found = 0;
  for (let index = 1; index < values.length; index++) {
    if (values[index]! > values[found]! || (Number.isNaN(values[found]!) && !Number.isNaN(values[index]!)))
      found = index;
  }
  return found;
}
