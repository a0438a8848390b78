import type { SweepDrive } from '../reduction/sweep-drive.ts';
import { spokenRpm } from '../units/spoken.ts';
import { tens, type Finding } from './check.ts';

/**
 * Found when torque falls within a few hundred rpm to a lower level and stays
 * there to the end: a controller in its limp mode, or air or fuel that is
 * missing from there on. A rev limiter lets the engine go no faster.
 */
export function limp({ sweep: { fall } }: SweepDrive): Finding | undefined {
  if (!fall) return undefined;
  const [fromRpm, toRpm] = [tens(fall.fromRpm), tens(fall.toRpm)];
  const percent = Math.round(100 * fall.share);
  return {
    id: 'limp',
    severity: 'stop',
    fromRpm,
    toRpm,
    figure: percent,
    unit: '%',
    message: `Torque falls to ${percent} % between ${spokenRpm(fromRpm)} and ${spokenRpm(toRpm)} rpm and stays there to the end: a controller in limp mode, or air or fuel missing from there on. Read its fault memory before the next run; figures above ${spokenRpm(fromRpm)} rpm are not the engine's.`,
  };
}
