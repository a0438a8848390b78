/** A repeatable source of numbers between 0 and 1 (mulberry32). */
export function chance(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/** Normally distributed numbers, mean 0 and standard deviation 1 (Box–Muller). */
export function normal(random: () => number): () => number {
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
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
    const kept = Math.exp(-stepS / memoryS);
    value = kept * value + sd * Math.sqrt(1 - kept * kept) * noise();
    return value;
  };
}
