import { lossTorque, type DynoProfile } from '../dyno/dyno-profile.ts';

/** A point of the curve as it is being made, before smoothing. */
export interface LivePoint {
  rpm: number;
  /** Uncorrected, at the roller or hub. */
  powerKw: number;
}

/** Drum speed is fitted over the time just past, s; a point lies in the middle of it. */
const windowS = 0.36;

/**
 * Power while the pull goes on, from the samples as they come: a straight
 * line through the last third of a second of drum speed. For the eye only;
 * figures are made by `core/figures` from the whole recording.
 */
export class LivePower {
  private readonly rows: { time: number; speed: number; rpm: number; absorber: number }[] = [];

  /** @param sides 2 where a hub pair is recorded side by side: `absorber` is then the sum of both */
  constructor(
    private readonly dyno: DynoProfile,
    private readonly sides: 1 | 2 = 1,
  ) {}

  /**
   * @param time s, rising
   * @param speed drum speed, rad/s
   * @param rpm engine speed
   * @param absorber N·m, 0 where there is none
   * @returns a point while the drum gains speed, or undefined
   */
  push(time: number, speed: number, rpm: number, absorber = 0): LivePoint | undefined {
    if (time <= (this.rows.at(-1)?.time ?? -Infinity)) this.rows.length = 0;
    this.rows.push({ time, speed, rpm, absorber });
    while (time - this.rows[0]!.time > windowS) this.rows.shift();
    const count = this.rows.length;
    if (count < 4 || time - this.rows[0]!.time < 0.6 * windowS) return undefined;
    const mean = (pick: (row: (typeof this.rows)[number]) => number) =>
      this.rows.reduce((sum, row) => sum + pick(row), 0) / count;
    const middle = mean((row) => row.time);
    const square = mean((row) => (row.time - middle) ** 2);
    const drum = mean((row) => row.speed);
    const acceleration = mean((row) => (row.time - middle) * row.speed) / square;
    if (!(acceleration > 0)) return undefined;
    const zero = Object.values(this.dyno.absorberZeroNm ?? {}).reduce<number>((sum, value) => sum + (value ?? 0), 0);
    // A hub's inertia and losses are those of one of the pair.
    const left = this.dyno.inertiaKgM2 * acceleration + lossTorque(this.dyno.parasitic, drum);
    const right = this.sides === 2 ? (this.dyno.rightInertiaKgM2 ?? this.dyno.inertiaKgM2) * acceleration + lossTorque(this.dyno.parasitic, drum) : 0; // prettier-ignore
    const torque = left + right + mean((row) => row.absorber) - zero;
    return { rpm: mean((row) => row.rpm), powerKw: (torque * drum) / 1000 };
  }
}
