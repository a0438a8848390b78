/**
 * Where a falling function passes through zero, by false position with the
 * Illinois rule: a bracket that closes fast from both sides.
 * Source: Dowell and Jarratt, BIT 11 (1971) 168.
 *
 * @param low a place where the function is not below zero
 * @param high one where it is not above zero; moved outward until it is so
 * @returns the place to about 1e-12 of itself
 */
export function fallingRoot(of: (x: number) => number, low: number, high: number): number {
  let [left, right] = [low, high];
  let [atLeft, atRight] = [of(left), of(right)];
  while (atRight > 0 && right < 1e9) {
    [left, atLeft] = [right, atRight];
    right *= 2;
    atRight = of(right);
  }
  let side = 0;
  for (let step = 0; step < 200; step++) {
    const x = atLeft === atRight ? (left + right) / 2 : (left * atRight - right * atLeft) / (atRight - atLeft);
    const value = of(x);
    if (value === 0 || Math.abs(right - left) < 1e-12 * (1 + Math.abs(x))) return x;
    if (value > 0) {
      if (Math.abs(x - left) < 1e-13 * (1 + Math.abs(x))) return x;
      [left, atLeft] = [x, value];
      if (side === 1) atRight /= 2;
      side = 1;
    } else {
      if (Math.abs(right - x) < 1e-13 * (1 + Math.abs(x))) return x;
      [right, atRight] = [x, value];
      if (side === -1) atLeft /= 2;
      side = -1;
    }
  }
  return (left + right) / 2;
}
