import { drumInertiaKgM2, wholeDrums } from '../dyno/drums.ts';
import { lossTorque, type DynoProfile, type TorqueChannel } from '../dyno/dyno-profile.ts';

/** A point of the curve as it is being made, before smoothing. */
export interface LivePoint {
  rpm: number;
  /** Uncorrected, at the roller or hub. */
  powerKw: number;
}

/** One drum at a moment: its speed, rad/s, and what its load cell reads, N·m; 0 where there is none. */
export interface LiveDrum {
  speed: number;
  absorber: number;
}

/** Drum speed is fitted over the time just past, s; a point lies in the middle of it. */
const windowS = 0.36;

interface Row {
  time: number;
  rpm: number;
  drums: readonly LiveDrum[];
}

/** Where the readings of each drum stand in sample rows, and what turns with it. */
export interface LiveDrumPlace {
  speedAt: number;
  /** −1 where there is no load cell. */
  torqueAt: number;
  inertiaKgM2: number;
  zeroNm: number;
}

/** The drums of a machine in rows with these columns; undefined where they tell of one drum only. */
export function liveDrums(columns: readonly string[], dyno: DynoProfile): LiveDrumPlace[] | undefined {
  return wholeDrums(columns, dyno.kind)?.map(({ place, speed, torque }) => ({
    speedAt: columns.indexOf(speed),
    torqueAt: columns.indexOf(torque),
    inertiaKgM2: drumInertiaKgM2(dyno, place),
    zeroNm: dyno.absorberZeroNm?.[torque as TorqueChannel] ?? 0,
  }));
}

/**
 * Power while the pull goes on, from the samples as they come: a straight
 * line through the last third of a second of each drum's speed. For the eye
 * only; figures are made by `core/figures` from the whole recording.
 */
export class LivePower {
  private readonly rows: Row[] = [];

  /** @param drums inertia and zero of each drum, in the order in which they are pushed */
  constructor(
    private readonly dyno: DynoProfile,
    private readonly drums: readonly Pick<LiveDrumPlace, 'inertiaKgM2' | 'zeroNm'>[] = [
      { inertiaKgM2: dyno.inertiaKgM2, zeroNm: dyno.absorberZeroNm?.absorberTorque ?? 0 },
    ],
  ) {}

  /**
   * @param time s, rising
   * @param rpm engine speed
   * @returns a point while the drums gain speed, or undefined
   */
  push(time: number, rpm: number, drums: readonly LiveDrum[]): LivePoint | undefined {
    if (time <= (this.rows.at(-1)?.time ?? -Infinity)) this.rows.length = 0;
    this.rows.push({ time, rpm, drums });
    while (time - this.rows[0]!.time > windowS) this.rows.shift();
    const count = this.rows.length;
    if (count < 4 || time - this.rows[0]!.time < 0.6 * windowS) return undefined;
    const mean = (pick: (row: Row) => number) => this.rows.reduce((sum, row) => sum + pick(row), 0) / count;
    const middle = mean((row) => row.time);
    const square = mean((row) => (row.time - middle) ** 2);
    let gaining = false;
    let watts = 0;
    this.drums.forEach(({ inertiaKgM2, zeroNm }, at) => {
      const speed = mean((row) => row.drums[at]!.speed);
      const acceleration = mean((row) => (row.time - middle) * row.drums[at]!.speed) / square;
      gaining ||= acceleration > 0;
      const absorber = mean((row) => row.drums[at]!.absorber) - zeroNm;
      watts += (inertiaKgM2 * acceleration + lossTorque(this.dyno.parasitic, speed) + absorber) * speed;
    });
    return gaining ? { rpm: mean((row) => row.rpm), powerKw: watts / 1000 } : undefined;
  }
}
