import { firstNotBelow } from '../numerics/interpolation.ts';
import { engineRpmOf } from '../reduction/drive.ts';
import type { SweepDrive } from '../reduction/sweep-drive.ts';
import { slopes } from '../smoothing/moving-fit.ts';
import { spokenRpm } from '../units/spoken.ts';
import { tens, type Finding } from './check.ts';

/** Engine speed is smoothed over this time, s; it goes on rising until it has fallen by this share. */
const smoothedS = 0.3;
const fallenShare = 0.03;
/** A rise beyond the figures counts from this share of what they cover. */
const leastShare = 0.1;
/** … and this time, s: where the absorber lets go at the lift, a light drum jumps up. */
const leastS = 0.5;
/** After the figures the engine must drive on with this share of its torque … */
const goesOnShare = 0.1;
/** … and before them it must have pulled with this one: a throttle that opens slowly is no pull. */
const pulledShare = 0.7;

/**
 * Found when engine speed rose over more than the figures cover, at full
 * torque before them or after them: they are of a part of the pull.
 */
export function partOfTheRise({ drive, sweep, startRpm, endRpm }: SweepDrive): Finding | undefined {
  const { time, impulse } = drive;
  const rpm = slopes(time, engineRpmOf(drive), smoothedS).value;
  const [opened, start, end] = [sweep.openedS, sweep.startS, sweep.endS].map((at) =>
    Math.min(time.length - 1, firstNotBelow(time, at)),
  ) as [number, number, number];
  const torque = (from: number, to: number) =>
    (impulse[to]! - impulse[from]!) / Math.max(1e-9, time[to]! - time[from]!);
  const covered = endRpm - startRpm;
  let top = end;
  for (let at = end; at < rpm.length && rpm[at]! > (1 - fallenShare) * rpm[top]!; at++)
    if (rpm[at]! > rpm[top]!) top = at;
  let bottom = opened;
  for (let at = opened; at >= 0 && rpm[at]! < (1 + fallenShare) * rpm[bottom]!; at--)
    if (rpm[at]! < rpm[bottom]!) bottom = at;
  const pulledBelow =
    rpm[opened]! - rpm[bottom]! > leastShare * covered && torque(bottom, opened) > pulledShare * torque(start, end);
  const goesOn =
    rpm[top]! - endRpm > leastShare * covered &&
    time[top]! - time[end]! > leastS &&
    torque(end, top) > goesOnShare * torque(start, end);
  if (!pulledBelow && !goesOn) return undefined;
  const [fromRpm, toRpm] = [tens(pulledBelow ? rpm[bottom]! : startRpm), tens(goesOn ? rpm[top]! : endRpm)];
  return {
    id: 'part-of-the-rise',
    severity: 'mind',
    fromRpm,
    toRpm,
    figure: Math.round((100 * covered) / (toRpm - fromRpm)),
    unit: '%',
    message: `The figures cover ${spokenRpm(tens(startRpm))} to ${spokenRpm(tens(endRpm))} rpm, but engine speed rose from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm: nothing is said of the rest, where torque was too small or unsteady to be taken as part of the pull.`,
  };
}
