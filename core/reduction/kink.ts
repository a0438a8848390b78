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
  const first = Math.max(from + 3, firstNotBelow(time, guessS - searchS));
  const lines = new HingedLines(time, values, from, to, first);
  let best: { time: number; residual: number } | undefined;
  for (let at = first; at <= to - 3 && time[at]! <= guessS + searchS; at++) {
    const hinge = lines.fitAt(at);
    if (!hinge || (direction === 'rising' ? hinge.bend <= 0 : hinge.bend >= 0)) continue;
    // Every hinge is fitted to the same samples: sums of squares over different ones cannot be compared.
    if (!best || hinge.residual < best.residual) best = { time: time[at]!, residual: hinge.residual };
  }
  return best?.time;
}

/**
 * Least squares of y = p + q·x + bend·max(0, x − hinge) over the same samples,
 * for hinges that move on from sample to sample: what lies beyond the hinge
 * loses one sample at each step, so no fit goes through all of them again.
 */
class HingedLines {
  private readonly whole: Sums;
  private readonly beyond: Sums;
  private hinge: number;

  constructor(
    private readonly time: Float64Array,
    private readonly values: Float64Array,
    private readonly from: number,
    to: number,
    hinge: number,
  ) {
    this.hinge = hinge;
    this.whole = new Sums();
    this.beyond = new Sums();
    for (let index = from; index <= to; index++) {
      this.whole.take(this.x(index), this.y(index), 1);
      if (index > hinge) this.beyond.take(this.x(index), this.y(index), 1);
    }
  }

  /** Counted from the first sample, so that the sums stay exact. */
  private x(index: number): number {
    return this.time[index]! - this.time[this.from]!;
  }

  private y(index: number): number {
    return this.values[index]! - this.values[this.from]!;
  }

  /** The fit with the hinge at a sample, at or after the one before. */
  fitAt(at: number): { bend: number; residual: number } | undefined {
    while (this.hinge < at) {
      this.hinge++;
      this.beyond.take(this.x(this.hinge), this.y(this.hinge), -1);
    }
    const hinge = this.x(at);
    const { n, x, xx, y, xy, yy } = this.whole;
    const beyond = this.beyond;
    // Sums of h = max(0, x − hinge).
    const h = beyond.x - hinge * beyond.n;
    const hh = beyond.xx - 2 * hinge * beyond.x + hinge * hinge * beyond.n;
    const xh = beyond.xx - hinge * beyond.x;
    const hy = beyond.xy - hinge * beyond.y;
    // Centred sums leave a two-by-two system for the slope and the bend.
    const [cxx, chh, cxh] = [xx - (x * x) / n, hh - (h * h) / n, xh - (x * h) / n];
    const [cxy, chy, cyy] = [xy - (x * y) / n, hy - (h * y) / n, yy - (y * y) / n];
    const determinant = cxx * chh - cxh * cxh;
    if (determinant <= 0) return undefined;
    const slope = (cxy * chh - chy * cxh) / determinant;
    const bend = (chy * cxx - cxy * cxh) / determinant;
    return { bend, residual: cyy - slope * cxy - bend * chy };
  }
}

/** Sums over samples. */
class Sums {
  n = 0;
  x = 0;
  xx = 0;
  y = 0;
  xy = 0;
  yy = 0;

  /** @param times 1 to count a sample, −1 to leave it out again */
  take(x: number, y: number, times: 1 | -1): void {
    this.n += times;
    this.x += times * x;
    this.xx += times * x * x;
    this.y += times * y;
    this.xy += times * x * y;
    this.yy += times * y * y;
  }
}
