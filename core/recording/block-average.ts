/**
 * Averages a recording's series in blocks of equal count so that at most
 * `rateHz` remain a second. Loses nothing that a fit over tens of
 * milliseconds would have seen, and makes fast recordings cheap.
 *
 * @param time s, rising, length n
 * @param series each of length n; NaN values are left out of their block's mean
 * @returns time and series of length ⌊n / block⌋; the inputs themselves when no averaging is due
 */
export function blockAverage(
  time: Float64Array,
  series: readonly Float64Array[],
  rateHz: number,
): { time: Float64Array; series: Float64Array[] } {
  const count = time.length;
  const duration = count > 1 ? time[count - 1]! - time[0]! : 0;
  const block = duration > 0 ? Math.floor((count - 1) / duration / rateHz) : 1;
  if (block < 2) return { time, series: [...series] };
  return { time: meanOfBlocks(time, block), series: series.map((values) => meanOfBlocks(values, block)) };
}

function meanOfBlocks(values: Float64Array, block: number): Float64Array {
  const means = new Float64Array(Math.floor(values.length / block));
  for (let index = 0; index < means.length; index++) {
    let sum = 0;
    let used = 0;
    for (let at = index * block; at < (index + 1) * block; at++) {
      const value = values[at]!;
      if (Number.isNaN(value)) continue;
      sum += value;
      used++;
    }
    means[index] = used > 0 ? sum / used : NaN;
  }
  return means;
}
