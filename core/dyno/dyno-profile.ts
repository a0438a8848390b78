import type { KnownChannel } from '../recording/channels.ts';

/** The channels of load cells. */
export type TorqueChannel = Extract<KnownChannel, `absorberTorque${string}`>;

/** The machine's own losses as a torque over drum speed ω: a + b·ω + c·ω² (N·m, ω in rad/s). */
export interface LossCurve {
  aNm: number;
  bNmPerRadS: number;
  cNmPerRadS2: number;
}

/** What a run was made on; `road`: on no machine at all. */
export type DynoKind = MachineKind | 'road';
export type MachineKind = 'inertia-roller' | 'loaded-roller' | 'hub';

/** What a figure needs to know about the machine, where there was one. Copied into every run, so that later changes alter nothing old. */
export interface DynoProfile {
  kind: DynoKind;
  /** Drum-side inertia, kg·m²; of each drum or hub where several are recorded. */
  inertiaKgM2: number;
  /** The right hub's inertia, kg·m², where it differs from the left one's. */
  rightInertiaKgM2?: number | undefined;
  /** Those of single drums, kg·m², where they differ from the others'. */
  drumInertiaKgM2?: Partial<Record<DrumPlace, number | undefined>> | undefined;
  /** Engine ÷ drum speed of each axle at light load, as calibrated for the car that was on it. */
  axleRatios?: { front: number; rear: number } | undefined;
  /** Drum radius, m; rollers only. */
  radiusM?: number | undefined;
  parasitic: LossCurve;
  /** Absorber torque that is already in the recording while coasting; kept for the record, never added. */
  coastAbsorberNm?: number | undefined;
  /** Height of the shop above the sea, m. */
  altitudeM?: number | undefined;
  /** First-order time constant of the load cell, s. */
  loadCellLagS?: number | undefined;
  /** What each load cell reads with nothing on it, N·m, by channel; taken off before anything is made of it. */
  absorberZeroNm?: Partial<Record<TorqueChannel, number | undefined>> | undefined;
}

/** Loss torque in N·m at a drum speed in rad/s. */
export function lossTorque(losses: LossCurve, speedRadS: number): number {
  return losses.aNm + losses.bNmPerRadS * speedRadS + losses.cNmPerRadS2 * speedRadS * speedRadS;
}

/** Where a drum or hub stands under the car, where a dyno has several. */
export const drumPlaces = [
  'left',
  'right',
  'front',
  'rear',
  'frontLeft',
  'frontRight',
  'rearLeft',
  'rearRight',
] as const;
export type DrumPlace = (typeof drumPlaces)[number];

/** What stands in the place of a machine where a run was made on none: no power follows from it. */
export const onTheRoad: DynoProfile = {
  kind: 'road',
  inertiaKgM2: 0,
  parasitic: { aNm: 0, bNmPerRadS: 0, cNmPerRadS2: 0 },
};
