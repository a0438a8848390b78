import { sampleAt } from '../numerics/sample-at.ts';
import type { Finding } from '../checks/check.ts';
import { firstNotBelow } from '../numerics/interpolation.ts';
import { medianOf } from '../numerics/quantile.ts';
import type { Recording } from '../recording/recording.ts';
import { Refusal } from '../refusal.ts';
import { slopes } from '../smoothing/moving-fit.ts';
import { loggedTogether, neededTogether, type KindSource, type Logged } from './kind-source.ts';
import { readingStep, usualInterval } from '../numerics/reading-step.ts';
import { figure, once, type RunFigures } from './run-figure.ts';

/** What the drum's motion tells: angular impulse, N·m·s, at times, s. */
export interface WheelTorque {
  time: Float64Array;
  impulse: Float64Array;
}

/** The throttle's step: from below the first to above the second, %. */
const closedBelow = 50;
const openAbove = 85;
/** Torque is the impulse's slope over this time, s: a step is blurred by half of it either way. */
const spanS = 0.16;
/** The steady value is that of the last so many seconds before the lift. */
const steadyS = 1.2;
const share = 0.9;
/** A pull that is held for less than this is none, s. */
const leastS = 2;
// Set by bench/run-kinds.ts.
/** Boost that takes longer than this to nine tenths is late, s. */
const lateS = 2;

/**
 * Response to full throttle at a held speed: from the step of the throttle to
 * nine tenths of the steady torque at the wheels and of the boost, and the
 * torque that was missing meanwhile, as so many seconds of the steady torque.
 *
 * @throws Refusal where no step of the throttle was logged, or it was not held open long enough
 */
export function transientFigures(source: KindSource, wheels: WheelTorque): RunFigures {
  const own = neededTogether({ own: source.own, beside: [] }, 'the pedal beside the dyno’s speed', 'throttle');
  const step = stepOf(own);
  const torque = slopes(wheels.time, wheels.impulse, spanS).slope;
  const trace = { time: wheels.time, values: torque };
  const rise = riseOf(trace, step, 'torque');
  const found: Finding[] = [];
  const figures = [
    figure('torque-90', 'To 90 % of the torque', ['s', 2], timed(rise, usualInterval(own.time)), 'less'),
    figure(
      'torque-lost',
      'Torque missing meanwhile',
      ['s', 2],
      once(missing(trace, step, rise), usualInterval(own.time)),
      'less',
    ),
  ];
  const logger = loggedTogether(source, 'boost', 'throttle');
  if (logger) {
    const boost = { time: logger.time, values: logger.boost };
    const loggedStep = stepOf(logger);
    const plateau = riseOf(boost, loggedStep, 'boost');
    figures.push(
      figure('boost-90', 'To 90 % of the boost', ['s', 2], timed(plateau, usualInterval(logger.time)), 'less'),
      figure('boost-plateau', 'Boost', ['kPa', 0], once(plateau.steady, readingStep(logger.boost))),
    );
    const s = plateau.atS - loggedStep.atS;
    if (s > lateS)
      found.push({
        id: 'late-boost',
        severity: 'mind',
        figure: s,
        unit: 's',
        message: `Boost takes ${s.toFixed(1)} s to 90 % (usual limit ${lateS} s): look for leaks, the boost control and the turbo itself.`,
      });
  }
  return { figures, found };
}

/** Speeds within a step of the throttle stay this near to their middle one, as a share: a pull's do not. */
const heldShare = 0.06;

/** Whether a recording is a step of the throttle at a held engine speed, and surely no pull. */
export function isHeldStep(own: Recording): boolean {
  const logged = loggedTogether({ own, beside: [] }, 'throttle', 'engineSpeed');
  if (!logged) return false;
  try {
    const { atS, liftS } = stepOf(logged);
    const { time, engineSpeed } = logged;
    const open = engineSpeed.subarray(firstNotBelow(time, atS - 1), firstNotBelow(time, liftS - spanS));
    const middle = medianOf(open);
    return open.every((rpm) => Math.abs(rpm / middle - 1) <= heldShare);
  } catch (error) {
    if (error instanceof Refusal) return false;
    throw error;
  }
}

interface Step {
  atS: number;
  liftS: number;
}

/** When the throttle opened, and when it was closed again; halfway of its step. */
function stepOf({ time, throttle }: Logged<'throttle'>): Step {
  const open = throttle.findIndex((value, index) => value > openAbove && index > 0);
  if (open < 0) throw new Refusal('The throttle was never opened in this recording.');
  let closed = open;
  while (closed > 0 && sampleAt(throttle, closed) > closedBelow) closed--;
  if (sampleAt(throttle, closed) > closedBelow)
    throw new Refusal('The throttle was open from the beginning: hold the speed on a light pedal first, then open it.');
  let lift = open;
  while (lift < throttle.length - 1 && sampleAt(throttle, lift) > openAbove) lift++;
  const middle = (sampleAt(throttle, closed) + sampleAt(throttle, open)) / 2;
  let half = closed;
  while (half < open && sampleAt(throttle, half) < middle) half++;
  if (sampleAt(time, lift) - sampleAt(time, half) < leastS)
    throw new Refusal(
      `Full throttle was held for ${(sampleAt(time, lift) - sampleAt(time, half)).toFixed(1)} s: hold it for ${leastS} s at least.`,
    );
  return { atS: sampleAt(time, half), liftS: sampleAt(time, lift) };
}

interface Trace {
  time: Float64Array;
  values: Float64Array;
}
interface Rise {
  /** When nine tenths of the way were reached. */
  atS: number;
  startS: number;
  before: number;
  steady: number;
  /** Standard deviation of the time, from the trace's noise and its slope there, s. */
  sdS: number;
}

function riseOf({ time, values }: Trace, { atS, liftS }: Step, what: string): Rise {
  const of = (fromS: number, toS: number) =>
    values.subarray(firstNotBelow(time, fromS), firstNotBelow(time, toS)).filter((value) => !Number.isNaN(value));
  const before = medianOf(of(atS - 1, atS - spanS));
  const later = of(liftS - steadyS, liftS - spanS);
  const steady = medianOf(later);
  const noise = medianOf(later.map((value) => Math.abs(value - steady))) / 0.6745;
  const goal = before + share * (steady - before);
  if (!(steady - before > 6 * noise))
    throw new Refusal(`No rise of ${what} can be told from its noise in this recording.`);
  let at = firstNotBelow(time, atS);
  while (at < time.length - 1 && !(sampleAt(values, at) >= goal)) at++;
  const slope =
    Math.abs(sampleAt(values, Math.min(time.length - 1, at + 2)) - sampleAt(values, Math.max(0, at - 2))) /
    Math.max(1e-6, sampleAt(time, Math.min(time.length - 1, at + 2)) - sampleAt(time, Math.max(0, at - 2)));
  const share90 =
    at > 0 ? (goal - sampleAt(values, at - 1)) / (sampleAt(values, at) - sampleAt(values, at - 1) || 1) : 1;
  const crossed =
    at > 0
      ? sampleAt(time, at - 1) + Math.max(0, Math.min(1, share90)) * (sampleAt(time, at) - sampleAt(time, at - 1))
      : sampleAt(time, at);
  return { atS: crossed, startS: atS, before, steady, sdS: slope > 0 ? noise / slope : NaN };
}

/** @param intervalS between samples: the throttle's step is known no better */
const timed = ({ atS, startS, sdS }: Rise, intervalS: number) => ({
  mean: atS - startS,
  halfWidth: 1.96 * sdS,
  resolution: intervalS,
});

/** Torque that was missing until it was steady, in seconds of the steady torque. */
function missing({ time, values }: Trace, { atS, liftS }: Step, { steady }: Rise): number {
  let sum = 0;
  for (let index = firstNotBelow(time, atS); index < time.length && sampleAt(time, index) < liftS - steadyS; index++)
    sum += (1 - sampleAt(values, index) / steady) * (sampleAt(time, index) - sampleAt(time, index - 1));
  return sum;
}
