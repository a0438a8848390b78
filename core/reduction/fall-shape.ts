/** How torque falls to stay there: a ramp between two engine speeds whose corners are rounded, all rpm. */
export interface FallShape {
  fromRpm: number;
  toRpm: number;
  /** Scale of the rounding: a fall that is nothing but rounding takes 4.4 times as much from 10 to 90 %. */
  roundedRpm: number;
}

/** How much of the fall has come at an engine speed, 0 to 1: the ramp passed through a logistic curve's slope. */
export function fallenAt(rpm: number, { fromRpm, toRpm, roundedRpm }: FallShape): number {
  const [begun, ended] = [(rpm - fromRpm) / roundedRpm, (rpm - toRpm) / roundedRpm];
  return ((softlyAbove(begun) - softlyAbove(ended)) * roundedRpm) / (toRpm - fromRpm);
}

/** The larger of x and 0 without a corner between: log(1 + eˣ). */
const softlyAbove = (x: number) => (x > 30 ? x : Math.log1p(Math.exp(x)));
