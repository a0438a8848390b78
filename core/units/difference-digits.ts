/** Digits that may be added before an edge is left as it is. */
const mostMore = 3;

/**
 * Digits after the point that a difference and half of its interval are written with: so many more than usual that
 * what is read says of zero what is so. `0.5 ± 0.5` of 0.50 ± 0.45 hides that the interval excludes it.
 * @param difference in the unit that is read, as is `halfWidth`, which may be NaN
 * @param digits usual ones
 */
export function differenceDigits(difference: number, halfWidth: number, digits: number): number {
  const size = Math.abs(difference);
  if (!Number.isFinite(size) || !Number.isFinite(halfWidth)) return digits;
  for (let more = digits; more < digits + mostMore; more++) {
    const readsClear = Number(size.toFixed(more)) > Number(halfWidth.toFixed(more));
    if (readsClear === size > halfWidth) return more;
  }
  return digits;
}
