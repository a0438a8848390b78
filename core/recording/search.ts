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
