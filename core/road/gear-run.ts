import { sampleAt } from '../numerics/sample-at.ts';
import { interpolate } from '../numerics/interpolation.ts';
import { drivelineMassKg, movedMassKg, resistanceN, type RoadCar } from './road-car.ts';

/** Power at the wheels over engine speed as a dyno read it. */
export interface WheelPower {
  /** rpm, rising. */
  engineSpeedRpm: Float64Array;
  /** kW. */
  powerKw: Float64Array;
}

/** One gear, and the road and air that it is driven in. */
export interface GearRun {
  car: RoadCar;
  /** Engine ÷ wheel. */
  totalRatio: number;
  /** Rolling circumference of the driven tyres, m. */
  circumferenceM: number;
  densityKgM3: number;
  /** Of the rolling drag that acts beside what the reading has lost. */
  rollingShare: number;
  /** How fast the dyno let the engine rise, rpm/s; 0 for steady holds. What turned the driveline faster is missing from its reading. */
  sweepRpmPerS: number;
}

/** Road speed of an engine speed in a gear, m/s. */
export const speedMs = (
  rpm: number,
  { totalRatio, circumferenceM }: Pick<GearRun, 'totalRatio' | 'circumferenceM'>,
): number => (rpm / 60 / totalRatio) * circumferenceM;

/** Engine speed of a road speed in a gear, rpm. */
export const engineRpm = (
  metresPerSecond: number,
  { totalRatio, circumferenceM }: Pick<GearRun, 'totalRatio' | 'circumferenceM'>,
): number => ((metresPerSecond * 60) / circumferenceM) * totalRatio;

/** Force at the driven wheels as the dyno read it, N: F = P/v. NaN where the engine's speed was not measured. */
export function tractiveForceN(power: WheelPower, metresPerSecond: number, gear: GearRun): number {
  const rpm = engineRpm(metresPerSecond, gear);
  const { engineSpeedRpm, powerKw } = power;
  const slack = 1e-6 * rpm;
  if (rpm < sampleAt(engineSpeedRpm, 0) - slack || rpm > sampleAt(engineSpeedRpm, engineSpeedRpm.length - 1) + slack)
    return NaN;
  return (1000 * interpolate(engineSpeedRpm, powerKw, rpm)) / metresPerSecond;
}

/**
 * Acceleration in a gear at full throttle, m/s²: (m + m_dl)·a = F + m_dl·a_dyno − F_r, where m_dl turned with the
 * engine on the dyno as well, at the sweep's own acceleration.
 */
export function accelerationMs2(power: WheelPower, metresPerSecond: number, gear: GearRun): number {
  const { car, totalRatio, densityKgM3, rollingShare, sweepRpmPerS } = gear;
  const turned = drivelineMassKg(car.massKg, totalRatio);
  const onDyno = speedMs(sweepRpmPerS, gear);
  const force = tractiveForceN(power, metresPerSecond, gear) + turned * onDyno;
  return (force - resistanceN(car, metresPerSecond, densityKgM3, rollingShare)) / (movedMassKg(car.massKg) + turned);
}

/** Steps of the integration, even: time is known to a thousandth of a second with far fewer. */
const steps = 200;

/**
 * Time from one road speed to another in one gear at full throttle on a level
 * road, s: t = ∫ dv/a, by Simpson's rule.
 * @param fromMs m/s
 * @param toMs m/s, above it
 * @returns undefined where the engine was not measured over these speeds, or does not get there
 */
export function timeBetweenS(
  power: WheelPower,
  fromMs: number,
  toMs: number,
  gear: GearRun,
  count = steps,
): number | undefined {
  const step = (toMs - fromMs) / count;
  let sum = 0;
  for (let index = 0; index <= count; index++) {
    const acceleration = accelerationMs2(power, fromMs + index * step, gear);
    if (!(acceleration > 0)) return undefined;
    sum += (index === 0 || index === count ? 1 : index % 2 === 1 ? 4 : 2) / acceleration;
  }
  return (sum * step) / 3;
}

/**
 * The road speed at which the next gear pushes harder, m/s: where its force is
 * the greater; the end of what was measured where it never is. Undefined where
 * the gears share no speed.
 */
export function shiftSpeedMs(power: WheelPower, gear: GearRun, next: GearRun): number | undefined {
  const { engineSpeedRpm } = power;
  const [least, most] = [sampleAt(engineSpeedRpm, 0), sampleAt(engineSpeedRpm, engineSpeedRpm.length - 1)];
  const from = Math.max(speedMs(least, gear), speedMs(least, next));
  const to = Math.min(speedMs(most, gear), speedMs(most, next));
  if (!(to > from)) return undefined;
  for (let index = 0; index <= steps; index++) {
    const at = from + ((to - from) * index) / steps;
    if (tractiveForceN(power, at, next) > tractiveForceN(power, at, gear)) return at;
  }
  return to;
}
