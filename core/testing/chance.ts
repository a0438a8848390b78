// Taken out once: Jest looks a global up anew at every use, and a pull is stepped thousands of times.
const { PI, cos, exp, imul, log, sqrt } = Math;
/** A repeatable source of numbers between 0 and 1 (mulberry32). */
export function chance(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/** Normally distributed numbers, mean 0 and standard deviation 1 (Box–Muller). */
export function normal(random: () => number): () => number {
  return () => sqrt(-2 * log(1 - random())) * cos(2 * PI * random());
}

/**
 * Noise with a memory: a first-order filter on normal numbers, stepped in time.
 * @param sd its standard deviation once settled
 * @param memoryS its time constant
 */
export function wandering(random: () => number, sd: number, memoryS: number): (stepS: number) => number {
  const noise = normal(random);
  let value = 0;
  return (stepS) => {
    const kept = exp(-stepS / memoryS);
    value = kept * value + sd * sqrt(1 - kept * kept) * noise();
    return value;
  };
}
