/**
 * Holm's step-down rule for several tests at once: which may be called, so
 * that the chance of calling *any* wrongly stays below the level.
 * Source: Holm, Scandinavian Journal of Statistics 6 (1979) 65; with weights:
 * Benjamini and Hochberg, ibid. 24 (1997) 407.
 *
 * @param pValues NaN for a test that could not be made; it is never called
 * @param weights of the tests, above 0; equal when left out
 */
export function holm(
  pValues: readonly number[],
  level = 0.05,
  weights: readonly number[] = pValues.map(() => 1),
): boolean[] {
  const called = pValues.map(() => false);
  const open = Array.from(pValues.keys()).filter((index) => !Number.isNaN(pValues[index]!));
  let weight = open.reduce((sum, index) => sum + weights[index]!, 0);
  const order = [...open].sort((a, b) => pValues[a]! / weights[a]! - pValues[b]! / weights[b]!);
  for (const index of order) {
    if (pValues[index]! > (level * weights[index]!) / weight) break;
    called[index] = true;
    weight -= weights[index]!;
  }
  return called;
}
