import type { DynoKind } from '../dyno/dyno-profile.ts';

/** What a car is to the road: mass and what holds it back. */
export interface RoadCar {
  /** With driver and fuel, kg. */
  massKg: number;
  /** Drag coefficient × frontal area, m². */
  dragAreaM2: number;
  /** Rolling drag as a share of the weight. */
  rollingCoefficient: number;
}

/** Used where nobody wrote a figure down; the report says so. */
export const roadDefaults: RoadCar = { massKg: 1200, dragAreaM2: 0.65, rollingCoefficient: 0.012 };

/** m/s². */
export const gravity = 9.80665;
/** Share of the weight on the axle that a dyno does not turn. */
const undrivenShare = 0.5;

/**
 * Share of a car's rolling drag that a dyno's reading has not lost yet: a
 * roller's has lost that of the driven tyres, a hub's that of none.
 */
export const rollingShareLeft = (kind: DynoKind): number => (kind === 'hub' ? 1 : undrivenShare);

/**
 * What holds a car back on a level road without wind, N.
 * @param speedMs m/s
 * @param densityKgM3 of the air
 * @param rollingShare of the rolling drag that acts beside what the reading has lost
 */
export function resistanceN(
  { massKg, dragAreaM2, rollingCoefficient }: RoadCar,
  speedMs: number,
  densityKgM3: number,
  rollingShare: number,
): number {
  return massKg * gravity * rollingCoefficient * rollingShare + 0.5 * densityKgM3 * dragAreaM2 * speedMs ** 2;
}

/** Turning parts beside the mass, as shares of it: those of the wheels that a dyno does not turn, and of a gear. */
const undrivenWheels = 0.02;
const perRatioSquared = 0.0025;

/**
 * Mass that engine, driveline and driven wheels add in a gear, kg, an estimate.
 * Source: m_eff = m·(1 + 0.04 + 0.0025·N²), Gillespie, Fundamentals of Vehicle Dynamics, 1992, §2.
 * @param totalRatio engine ÷ wheel
 */
export const drivelineMassKg = (massKg: number, totalRatio: number): number =>
  massKg * (undrivenWheels + perRatioSquared * totalRatio ** 2);

/** Mass that must be moved whatever the gear: the car's and that of its undriven wheels' turning, kg. */
export const movedMassKg = (massKg: number): number => massKg * (1 + undrivenWheels);
