/** A time span of `spanS`, or as much more as holds so many samples at the trace's mean rate. */
export function atLeastSamples(time: Float64Array, spanS: number, samples: number): number {
  const step = (time[time.length - 1]! - time[0]!) / Math.max(1, time.length - 1);
  return Math.max(spanS, samples * step);
}

/**
 * Straight-line fits in a window moving over unevenly spaced samples, in
 * time proportional to the number of samples.
 *
 * @param x rising
 * @param y of the same length; NaN values are left out
 * @param width width of the window, in units of x; narrower at the ends
 * @returns the line's value and slope at each x; NaN where a window holds fewer than three usable samples
 */
export function slopes(x: Float64Array, y: Float64Array, width: number): { value: Float64Array; slope: Float64Array } {
  const count = x.length;
  const value = new Float64Array(count);
  const slope = new Float64Array(count);
  const origin = x[0] ?? 0;
  const half = width / 2;
  let n = 0;
  let sx = 0;
  let sy = 0;
  let sxx = 0;
  let sxy = 0;
  let first = 0;
  let next = 0;
  for (let index = 0; index < count; index++) {
    const here = x[index]!;
    // Written out twice: a call for every sample costs more than the sums.
    for (const until = here + half; next < count && x[next]! <= until; next++) {
      const height = y[next]!;
      if (Number.isNaN(height)) continue;
      const place = x[next]! - origin;
      n++;
      sx += place;
      sy += height;
      sxx += place * place;
      sxy += place * height;
    }
    for (const from = here - half; x[first]! < from; first++) {
      const height = y[first]!;
      if (Number.isNaN(height)) continue;
      const place = x[first]! - origin;
      n--;
      sx -= place;
      sy -= height;
      sxx -= place * place;
      sxy -= place * height;
    }
    const determinant = n * sxx - sx * sx;
    const rate = n < 3 || determinant <= 0 ? NaN : (n * sxy - sx * sy) / determinant;
    slope[index] = rate;
    value[index] = (sy - rate * sx) / n + rate * (here - origin);
  }
  return { value, slope };
}
