/**
 * Holm's step-down rule for several tests at once, so that the chance of calling
 * *any* wrongly stays below the level: the level at which each is called just so.
 * Source: Holm, Scandinavian Journal of Statistics 6 (1979) 65; with weights:
 * Benjamini and Hochberg, ibid. 24 (1997) 407.
 *
 * @param pValues NaN for a test that could not be made; it stays NaN
 * @param weights of the tests, above 0; equal when left out
 */
export function holmAdjusted(pValues: readonly number[], weights: readonly number[] = pValues.map(() => 1)): number[] {
  const adjusted = pValues.map(() => NaN);
  const open = Array.from(pValues.keys()).filter((index) => !Number.isNaN(pValues[index]!));
  let weight = open.reduce((sum, index) => sum + weights[index]!, 0);
  let most = 0;
  for (const index of open.sort((a, b) => pValues[a]! / weights[a]! - pValues[b]! / weights[b]!)) {
    most = Math.max(most, (pValues[index]! * weight) / weights[index]!);
    adjusted[index] = most;
    weight -= weights[index]!;
  }
  return adjusted;
}

/** Which tests may be called at a level, by Holm's rule; one that could not be made is never called. */
export const holm = (pValues: readonly number[], level = 0.05, weights?: readonly number[]): boolean[] =>
  holmAdjusted(pValues, weights).map((adjusted) => adjusted <= level);
