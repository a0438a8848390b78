import type { Traces } from './rate-fit.ts';

/** The traces averaged in blocks of 1, 2, 4 … samples: a wide window needs no more than a coarse one of them. */
export type Thinned = readonly Traces[];

/** Averages traces in ever longer blocks; the last block of each may be short. */
export function thinned(traces: Traces, levels: number): Thinned {
  const result = [traces];
  for (let level = 1; level < levels; level++) {
    const finer = result[level - 1]!;
    result.push({ time: halved(finer.time), amount: halved(finer.amount), variable: halved(finer.variable) });
  }
  return result;
}

function halved(values: Float64Array): Float64Array {
  const result = new Float64Array(Math.ceil(values.length / 2));
  for (let index = 0; index < result.length; index++) {
    const right = 2 * index + 1 < values.length ? values[2 * index + 1]! : values[2 * index]!;
    result[index] = 0.5 * (values[2 * index]! + right);
  }
  return result;
}
