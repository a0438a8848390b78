import { firstNotBelow } from '../numerics/interpolation.ts';

// Set by bench/accuracy.ts: the error against known truths, mean and worst.
/** How far to each side of the guess the kink is looked for, and how much trace to each side is fitted, s. */
const searchS = 0.35;
const fittedS = 0.55;

/**
 * The time at which a trace changes slope most sharply near a guess: two
 * straight lines meeting there leave the least squares.
 *
 * @param direction `rising`: the slope grows there (throttle opens); `falling`: it drops (lift)
 * @returns undefined when no such kink lies near the guess
 */
export function kinkTime(
  time: Float64Array,
  values: Float64Array,
  guessS: number,
  direction: 'rising' | 'falling',
): number | undefined {
  const from = firstNotBelow(time, guessS - fittedS);
  const to = Math.min(firstNotBelow(time, guessS + fittedS), time.length) - 1;
  let best: { time: number; residual: number } | undefined;
  for (let at = firstNotBelow(time, guessS - searchS); at <= to - 3 && time[at]! <= guessS + searchS; at++) {
    if (at - from < 3) continue;
    const hinge = hingeFit(time, values, from, to, time[at]!);
    if (!hinge || (direction === 'rising' ? hinge.bend <= 0 : hinge.bend >= 0)) continue;
    // Every hinge is fitted to the same samples: sums of squares over different ones cannot be compared.
    if (!best || hinge.residual < best.residual) best = { time: time[at]!, residual: hinge.residual };
  }
  return best?.time;
}

/** Least squares of y = p + q·x + bend·max(0, x) around a hinge. */
function hingeFit(
  time: Float64Array,
  values: Float64Array,
  from: number,
  to: number,
  hingeS: number,
): { bend: number; residual: number } | undefined {
  let n = 0,
    sx = 0,
    sxx = 0,
    sh = 0,
    shh = 0,
    sxh = 0,
    sy = 0,
    sxy = 0,
    shy = 0,
    syy = 0;
  const base = values[from]!;
  for (let index = from; index <= to; index++) {
    const x = time[index]! - hingeS;
    const h = x > 0 ? x : 0;
    const y = values[index]! - base;
    n++;
    sx += x;
    sxx += x * x;
    sh += h;
    shh += h * h;
    sxh += x * h;
    sy += y;
    sxy += x * y;
    shy += h * y;
    syy += y * y;
  }
  // Centred sums leave a two-by-two system for the slope and the bend.
  const cxx = sxx - (sx * sx) / n,
    chh = shh - (sh * sh) / n,
    cxh = sxh - (sx * sh) / n;
  const cxy = sxy - (sx * sy) / n,
    chy = shy - (sh * sy) / n,
    cyy = syy - (sy * sy) / n;
  const determinant = cxx * chh - cxh * cxh;
  if (determinant <= 0) return undefined;
  const slope = (cxy * chh - chy * cxh) / determinant;
  const bend = (chy * cxx - cxy * cxh) / determinant;
  return { bend, residual: cyy - slope * cxy - bend * chy };
}
