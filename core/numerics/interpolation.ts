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

/**
 * The same at many targets. Rising ones, as a series' own times, are walked
 * along, which takes a tenth of looking up each; others are looked up.
 */
export function interpolateAll(x: Float64Array, y: Float64Array, targets: Float64Array): Float64Array {
  const found = new Float64Array(targets.length);
  const last = x.length - 1;
  let right = 0;
  for (let index = 0; index < targets.length; index++) {
    const target = targets[index]!;
    if (right > 0 && !(x[right - 1]! < target)) right = firstNotBelow(x, target);
    while (right <= last && x[right]! < target) right++;
    if (right === 0) found[index] = y[0]!;
    else if (right > last) found[index] = y[last]!;
    else {
      const share = (target - x[right - 1]!) / (x[right]! - x[right - 1]!);
      found[index] = y[right - 1]! + share * (y[right]! - y[right - 1]!);
    }
  }
  return found;
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
