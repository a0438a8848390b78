import { seriesOf } from '../numerics/picked.ts';
import { medianOf } from '../numerics/quantile.ts';
import { atLeastSamples, slopes } from '../smoothing/moving-fit.ts';

// Set by bench/accuracy.ts: the error against known truths, mean and worst.
/** Torque to each side of a sample is taken over this time, s. */
const usualSideS = 0.1;
/** A jump is an edge when it exceeds this share of the pull's middle torque … */
const leastShare = 0.3;
/** … and this many times the usual size of such differences in this pull. */
const usualTimes = 6;

/** Fewer differences than this do not tell their usual size. */
const leastSamples = 20;

/** A sample at which torque jumps, and by how much. */
export interface Edge {
  at: number;
  jumpNm: number;
}

/**
 * Where torque jumps inside a pull (a fuel cut, a limiter, the driver letting
 * off): samples at which straight lines through the impulse just before and
 * just after differ by far more than torque ever changes in a tenth of a
 * second, and than noise makes them differ.
 *
 * @param impulse N·m·s; only first…last (both included) is looked at
 * @returns in order of time, each with the first sample after the jump and the jump itself, N·m
 */
export function edgesIn(time: Float64Array, impulse: Float64Array, first: number, last: number): Edge[] {
  const jump = jumps(time, impulse, first, last);
  const size = seriesOf(jump.length, (index) => Math.abs(jump[index]!));
  let seen = 0;
  for (let index = 0; index < size.length; index++) if (!Number.isNaN(size[index]!)) seen++;
  if (seen < leastSamples) return [];
  // A median of absolute values, as a standard deviation.
  const usual = medianOf(size) / 0.6745;
  const torque = (impulse[last]! - impulse[first]!) / (time[last]! - time[first]!);
  const threshold = Math.max(usualTimes * usual, leastShare * Math.abs(torque));
  const edges: Edge[] = [];
  let top = -1;
  for (let index = 0; index < size.length; index++) {
    const over = size[index]! > threshold;
    // Where the sign changes another edge begins, even if the jump stayed above the threshold between them.
    const turned = top >= 0 && jump[index]! * jump[top]! < 0;
    if (top >= 0 && (!over || turned)) {
      edges.push({ at: first + top, jumpNm: jump[top]! });
      top = -1;
    }
    if (over && (top < 0 || size[index]! > size[top]!)) top = index;
  }
  if (top >= 0) edges.push({ at: first + top, jumpNm: jump[top]! });
  return edges;
}

/** Slope of the impulse just after less just before each sample, N·m; NaN where a side holds too little. */
function jumps(time: Float64Array, impulse: Float64Array, first: number, last: number): Float64Array {
  const inPull = time.subarray(first, last + 1);
  const sideS = atLeastSamples(inPull, usualSideS, 4);
  const { slope } = slopes(inPull, impulse.subarray(first, last + 1), sideS);
  let before = 0;
  let after = 0;
  return seriesOf(inPull.length, (index) => {
    const at = inPull[index]!;
    while (inPull[before]! < at - sideS / 2 - 1e-9) before++;
    while (after < inPull.length && inPull[after]! < at + sideS / 2 - 1e-9) after++;
    const inside = at - inPull[0]! > sideS * 0.75 && inPull[inPull.length - 1]! - at > sideS * 0.75;
    // Lines over a side's time, centred half of it before and after.
    return inside ? slope[after]! - slope[before]! : NaN;
  });
}
