import { sampleAt } from '../numerics/sample-at.ts';
import { firstNotBelow, interpolate } from '../numerics/interpolation.ts';
import type { SweepDrive } from '../reduction/sweep-drive.ts';
import { lossTorque } from '../dyno/dyno-profile.ts';
import { localFit } from '../smoothing/local-polynomial.ts';
import { spokenRpm } from '../units/spoken.ts';
import { tens, type Finding } from './check.ts';

// Set by bench/checks.ts: no false alarm on healthy pulls, most hits on faulty ones.
/** Torque left during a break in the pull, as a share of that before: less is a cut of fuel or spark, more a throttle half closed. */
const cutShare = 0.25;
/** A break lasts no longer than this, s. */
const longestBreakS = 1;
/** A throttle channel counts as open at this share of its highest reading, and should read this much at least, %. */
const openShare = 0.93;
const openPercent = 90;
/** So much of a pull may be off full throttle before it counts, s. */
const toleratedS = 0.12;

/** A stretch of the pull, between a fall of torque and its return. */
interface Break {
  fromS: number;
  toS: number;
  /** Torque in it as a share of that just before. */
  share: number;
}

function breaksIn({ drive, sweep: { edges } }: SweepDrive): Break[] {
  const { time, impulse } = drive;
  const found: Break[] = [];
  for (let index = 0; index + 1 < edges.length; index++) {
    const [fall, rise] = [edges[index]!, edges[index + 1]!];
    if (fall.jumpNm > 0 || rise.jumpNm < 0) continue;
    const lastsS = sampleAt(time, rise.at) - sampleAt(time, fall.at);
    if (lastsS > longestBreakS) continue;
    const before = Math.max(0, firstNotBelow(time, sampleAt(time, fall.at) - 0.3));
    const usual =
      (sampleAt(impulse, fall.at - 1) - sampleAt(impulse, before)) /
      (sampleAt(time, fall.at - 1) - sampleAt(time, before));
    const during = (sampleAt(impulse, rise.at) - sampleAt(impulse, fall.at)) / lastsS;
    found.push({ fromS: sampleAt(time, fall.at), toS: sampleAt(time, rise.at), share: during / usual });
  }
  return found;
}

/** Found when torque goes and comes back inside the pull: fuel or spark was cut. */
export function fuelCut(run: SweepDrive): Finding | undefined {
  const cuts = breaksIn(run).filter(({ share }) => share < cutShare);
  if (cuts.length === 0) return undefined;
  const { fromS, toS } = cuts[0]!;
  const [fromRpm, toRpm] = spanOf(run, fromS, toS);
  const times = cuts.length > 1 ? `, ${cuts.length} times in this pull` : '';
  return {
    id: 'fuel-cut',
    severity: 'mind',
    fromRpm,
    toRpm,
    figure: toS - fromS,
    unit: 's',
    message: `Torque is cut for ${(toS - fromS).toFixed(2)} s at ${spokenRpm(fromRpm)} rpm${times}: fuel, spark or current was taken away. Look for the cause before the next run.`,
  };
}

/** Found when the throttle was not fully open throughout, by its channel or by a step in torque. */
export function partThrottle(run: SweepDrive): Finding | undefined {
  const { throttle } = run.drive;
  if (throttle) return byChannel(run, throttle);
  const eased = breaksIn(run).find(({ share }) => share >= cutShare);
  if (!eased) return undefined;
  const [fromRpm, toRpm] = spanOf(run, eased.fromS, eased.toS);
  const percent = Math.round(100 * eased.share);
  return {
    id: 'part-throttle',
    severity: 'mind',
    fromRpm,
    toRpm,
    figure: percent,
    unit: '%',
    message: `Torque falls to ${percent} % for ${(eased.toS - eased.fromS).toFixed(2)} s at ${spokenRpm(fromRpm)} rpm and comes back: the throttle was not held, or the engine controller took it back.`,
  };
}

function byChannel(run: SweepDrive, throttle: Float64Array): Finding | undefined {
  const { time } = run.drive;
  const highest = throttle.reduce((most, value) => (value > most ? value : most), 0);
  const inSweep = throttle.slice(run.first, run.last + 1).sort();
  const middle = sampleAt(inSweep, inSweep.length >> 1);
  if (highest >= 20 && middle < openPercent) {
    return {
      id: 'part-throttle',
      severity: 'mind',
      figure: Math.round(middle),
      unit: '%',
      message: `The throttle reads ${Math.round(middle)} % through the pull: it was not fully open, or its sensor needs calibration.`,
    };
  }
  let offS = 0;
  let least = Infinity;
  let at = [NaN, NaN] as [number, number];
  for (let index = run.first + 1; index <= run.last; index++) {
    if (sampleAt(throttle, index) >= openShare * highest) continue;
    offS += sampleAt(time, index) - sampleAt(time, index - 1);
    least = Math.min(least, sampleAt(throttle, index));
    at = [Number.isNaN(at[0]) ? sampleAt(time, index) : at[0], sampleAt(time, index)];
  }
  if (offS < toleratedS || highest < 20) return undefined;
  const [fromRpm, toRpm] = spanOf(run, ...at);
  return {
    id: 'part-throttle',
    severity: 'mind',
    fromRpm,
    toRpm,
    figure: Math.round(least),
    unit: '%',
    message: `The throttle falls to ${Math.round(least)} % between ${spokenRpm(fromRpm)} and ${spokenRpm(toRpm)} rpm; the curve there is not full throttle.`,
  };
}

/** After the end of the sweep, s: when it is looked at, and how far the drum may stray from its speed as a share. */
const afterFromS = 0.12;
const afterToS = 0.6;
const heldShare = 0.03;
/** It is not kept where it still gains speed at this share of the rate before. */
const goesOnShare = 0.6;

/**
 * Found when the pull ends without a lift: power is gone, yet the drum is
 * kept at its speed, the engine bouncing on its limiter. A coast would take
 * speed off at the rate of the machine's losses.
 */
export function limiter(run: SweepDrive): Finding | undefined {
  const { drive, dyno, sweep } = run;
  const { time, speed, impulse, throttle } = drive;
  if (!sweep.liftSeen) return undefined;
  const first = firstNotBelow(time, sweep.endS + afterFromS);
  const last = firstNotBelow(time, sweep.endS + afterToS) - 1;
  if (last - first < 6 || sampleAt(time, last) - sampleAt(time, first) < 0.6 * (afterToS - afterFromS))
    return undefined;
  const top = sampleAt(speed, run.last);
  const held = localFit(time, speed, first, last, sampleAt(time, (first + last) >> 1), 1);
  const left = localFit(time, impulse, first, last, sampleAt(time, (first + last) >> 1), 1);
  if (!held || !left || Math.abs(held.value / top - 1) > heldShare) return undefined;
  // A drum that goes on gaining speed as it did is at no limiter: torque has only become small.
  const before = [Math.max(run.first, run.last - (last - first)), run.last] as const;
  const gained = localFit(time, speed, ...before, sampleAt(time, (before[0] + before[1]) >> 1), 1);
  if (gained && held.slope > goesOnShare * gained.slope) return undefined;
  const pulled =
    (sampleAt(impulse, run.last) - sampleAt(impulse, run.first)) /
    (sampleAt(time, run.last) - sampleAt(time, run.first));
  const full = throttle?.reduce((most, value) => (value > most ? value : most), 0) ?? 0;
  const stillOpen =
    throttle !== undefined &&
    full >= 20 &&
    sampleAt(throttle, first) > openShare * full &&
    sampleAt(throttle, last) > openShare * full;
  // Torque that keeps the drum turning, beyond what the short fit's own scatter explains while the pull still goes on.
  const losses = lossTorque(dyno.parasitic, top);
  const drives =
    left.slope > Math.max(0.5 * losses, 4 * scatterOf(time, impulse, ...before)) && left.slope < 0.5 * pulled;
  if (!stillOpen && !(drives && losses > 0 && Math.abs(held.slope) < heldShare * top)) return undefined;
  const at = tens(run.endRpm);
  return {
    id: 'limiter',
    severity: 'mind',
    fromRpm: at,
    toRpm: at,
    figure: at,
    unit: 'rpm',
    message: `The pull ends on the rev limiter at ${spokenRpm(at)} rpm; nothing is known above it.`,
  };
}

/** Standard deviation of the slope of a straight line through the impulse, N·m. */
function scatterOf(time: Float64Array, impulse: Float64Array, first: number, last: number): number {
  const middle = sampleAt(time, (first + last) >> 1);
  const fit = localFit(time, impulse, first, last, middle, 1);
  if (!fit) return NaN;
  let squares = 0;
  let squaredPlaces = 0;
  for (let index = first; index <= last; index++) {
    const x = sampleAt(time, index) - middle;
    squares += (sampleAt(impulse, index) - fit.value - fit.slope * x) ** 2;
    squaredPlaces += x * x;
  }
  return Math.sqrt(squares / (last - first - 1) / squaredPlaces);
}

function spanOf({ mapTime, mapRpm }: SweepDrive, fromS: number, toS: number): [number, number] {
  return [tens(interpolate(mapTime, mapRpm, fromS)), tens(interpolate(mapTime, mapRpm, toS))];
}
