import { sampleAt } from '../numerics/sample-at.ts';
import type { DynoKind } from '../dyno/dyno-profile.ts';
import { slopes } from '../smoothing/moving-fit.ts';
import { listed, spokenRpm } from '../units/spoken.ts';
import { holdsAny, tens, worstOf, type Finding, type Zone } from './check.ts';
import type { SlipTrace } from './slip.ts';
import { meanOf } from '../numerics/mean.ts';
import { everyNth, pickedAt, seriesOf } from '../numerics/picked.ts';
import { quantileOf } from '../numerics/quantile.ts';

// Set by bench/checks.ts: no false alarm on healthy pulls, most hits on faulty ones.
/** Healthy tyres creep by up to this share at full torque; hubs do not creep at all. */
const healthyCreep = 0.032;
const healthyOnHubs = 0.015;
/** Slip that creep does not explain counts from this share, and for so long, s. */
const unexplained = 0.015;
const leastS = 0.12;
/** How well torque must explain the slip for it to be that of a clutch or converter: share of its variance. */
const explainedByTorque = 0.8;

/**
 * Found when the engine runs ahead of the drum over stretches of the pull by
 * more than creep, which grows with torque, explains.
 * @param hopping zones that are told as hop already
 */
export function tyreSlip(trace: SlipTrace, kind: DynoKind, hopping: readonly Zone[] = []): Finding | undefined {
  if (kind === 'hub' || followsTorque(trace) || fallsWithSpeed(trace)) return undefined;
  const apart = (zone: Zone) => !hopping.some((other) => zone.fromRpm <= other.toRpm && other.fromRpm <= zone.toRpm);
  const zones = unexplainedZones(trace, healthyCreep).filter(apart);
  if (!holdsAny(zones)) return undefined;
  const said = listed(
    zones.map(
      ({ fromRpm, toRpm, figure }) =>
        `by up to ${figure.toFixed(1)} % from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm`,
    ),
  );
  return {
    id: 'tyre-slip',
    severity: 'stop',
    ...worstOf(zones),
    zones,
    unit: '%',
    message: `The tyres slip ${said}; the figures there are not the engine's. Check straps, tyre pressure and temperature before the next run.`,
  };
}

/**
 * Found when the engine runs ahead of the drum the way a clutch, a lock-up or
 * a converter does: more with torque than tyres ever creep, or most at low speed.
 */
export function drivelineSlip(trace: SlipTrace, kind: DynoKind): Finding | undefined {
  const healthy = kind === 'hub' ? healthyOnHubs : healthyCreep;
  const most = highest(trace);
  if (most.excess < healthy) return undefined;
  const atLowSpeed = fallsWithSpeed(trace);
  if (kind !== 'hub' && !atLowSpeed && !followsTorque(trace)) return undefined;
  const percent = Math.round(1000 * most.excess) / 10;
  const at = tens(most.rpm);
  return {
    id: 'driveline-slip',
    severity: 'mind',
    fromRpm: at,
    toRpm: at,
    figure: percent,
    unit: '%',
    message: atLowSpeed
      ? `The engine runs up to ${percent.toFixed(1)} % ahead of the drum at low speed, least at the top: a converter that is not locked. Power there is less than the engine's.`
      : `The engine runs up to ${percent.toFixed(1)} % ahead of the drum at ${spokenRpm(at)} rpm, growing with torque: a clutch or lock-up slips.`,
  };
}

/** Hop swings this fast, Hz, by this share of speed at least, and for so many swings. */
const slowestHz = 3;
const fastestHz = 15;
const leastSwing = 0.008;
const leastSwings = 3;
/** What is slower than this is slip, not hop, s. */
const slowS = 0.4;

/** Found when slip swings to and fro a few times a second: the tyre hops. */
export function hop(trace: SlipTrace): Finding | undefined {
  const { time, raw, rpm } = trace;
  const slow = slopes(time, raw, slowS).value;
  const quick = slopes(time, raw, 0.035).value;
  const swing = seriesOf(
    raw.length,
    (index) =>
      (Number.isNaN(sampleAt(quick, index)) ? sampleAt(raw, index) : sampleAt(quick, index)) - sampleAt(slow, index),
  );
  // One swing after the other: each half is the highest point between two crossings of zero.
  const halves: { atS: number; rpm: number; size: number }[] = [];
  let sign = 0;
  for (let index = 0; index < swing.length; index++) {
    const value = sampleAt(swing, index);
    if (Number.isNaN(value)) continue;
    const half = halves.at(-1);
    if (!half || Math.sign(value) !== sign) {
      halves.push({ atS: sampleAt(time, index), rpm: sampleAt(rpm, index), size: Math.abs(value) });
      sign = Math.sign(value);
    } else if (Math.abs(value) > half.size)
      halves[halves.length - 1] = { atS: sampleAt(time, index), rpm: sampleAt(rpm, index), size: Math.abs(value) };
  }
  const chains: (typeof halves)[] = [];
  let chain: typeof halves = [];
  for (const half of halves) {
    const last = chain.at(-1);
    const apartS = last ? half.atS - last.atS : 0;
    const goesOn = half.size > leastSwing && (!last || (apartS > 0.4 / fastestHz && apartS < 0.7 / slowestHz));
    if (goesOn && last) chain.push(half);
    else if (half.size > leastSwing) chains.push((chain = [half]));
    else chain = [];
  }
  const found = chains.flatMap((swings) => {
    const [first, last] = [swings[0]!, swings[swings.length - 1]!];
    const hz = (swings.length - 1) / 2 / (last.atS - first.atS);
    if (swings.length < 2 * leastSwings || hz < slowestHz || hz > fastestHz) return [];
    const figure = Math.round(2000 * Math.max(...swings.map(({ size }) => size))) / 10;
    return [{ fromRpm: tens(first.rpm), toRpm: tens(last.rpm), figure, hz, swings: swings.length }];
  });
  const zones = found.map(({ fromRpm, toRpm, figure }) => ({ fromRpm, toRpm, figure }));
  if (!holdsAny(zones)) return undefined;
  const longest = found.reduce((most, one) => (one.swings > most.swings ? one : most));
  const said = listed(
    zones.map(
      ({ fromRpm, toRpm, figure }) =>
        `from ${spokenRpm(fromRpm)} to ${spokenRpm(toRpm)} rpm, slip swinging by ${figure.toFixed(1)} %`,
    ),
  );
  return {
    id: 'hop',
    severity: 'stop',
    fromRpm: longest.fromRpm,
    toRpm: longest.toRpm,
    figure: longest.figure,
    zones,
    unit: '%',
    message: `The tyre hops ${Math.round(longest.hz)} times a second ${said}. Re-check straps and pressure before the next run.`,
  };
}

/** Where slip is left after creep in proportion to torque is taken out; creep is the share that explains most samples. */
export function unexplainedZones(
  { every, time, rpm, load, excess }: SlipTrace,
  healthy: number,
  beyond = unexplained,
): Zone[] {
  const loads = everyNth(load, every);
  const shares = everyNth(excess, every).map((value, index) => value / Math.max(sampleAt(loads, index), 0.2));
  const creep = Math.min(healthy, Math.max(0, quantileOf(shares, 0.4) || 0));
  const zones: Zone[] = [];
  let from = -1;
  let most = 0;
  for (let index = 0; index <= excess.length; index++) {
    const over = index < excess.length && sampleAt(excess, index) - creep * sampleAt(load, index) > beyond;
    if (over) {
      if (from < 0) [from, most] = [index, 0];
      most = Math.max(most, sampleAt(excess, index));
      continue;
    }
    if (from >= 0 && sampleAt(time, index - 1) - sampleAt(time, from) >= leastS && most > healthy)
      zones.push({
        fromRpm: tens(sampleAt(rpm, from)),
        toRpm: tens(sampleAt(rpm, index - 1)),
        figure: Math.round(1000 * most) / 10,
      });
    from = -1;
  }
  return zones;
}

function highest({ excess, rpm }: SlipTrace) {
  let at = 0;
  for (let index = 1; index < excess.length; index++) if (sampleAt(excess, index) > (excess[at] || -1)) at = index;
  return { excess: sampleAt(excess, at), rpm: sampleAt(rpm, at) };
}

/** Whether a parabola of torque explains the slip: a clutch slips with torque, wherever it occurs. */
function followsTorque(trace: SlipTrace): boolean {
  const [load, excess] = [everyNth(trace.load, trace.every), everyNth(trace.excess, trace.every)];
  const high = excess.filter((_, index) => sampleAt(load, index) > 0.9);
  const low = excess.filter((_, index) => sampleAt(load, index) < 0.75);
  // Slip that takes torque away is not explained by torque.
  if (low.length > 5 && high.length > 5 && mean(high) < mean(low)) return false;
  return explained([load, load.map((value) => value * value)], excess) > explainedByTorque;
}

/** Whether slip is largest at the start and gone by the end: an open converter. */
function fallsWithSpeed({ time, excess }: SlipTrace): boolean {
  const part = (from: number, to: number) => {
    let sum = 0;
    let count = 0;
    for (let index = Math.floor(from * excess.length); index < Math.ceil(to * excess.length); index++) {
      if (Number.isNaN(sampleAt(excess, index))) continue;
      sum += sampleAt(excess, index);
      count++;
    }
    return sum / Math.max(1, count);
  };
  const parts = [part(0, 0.2), part(0.2, 0.4), part(0.4, 0.6), part(0.8, 1)];
  const falling = parts.every((value, index) => index === 0 || value < parts[index - 1]! + 0.002);
  return time.length > 20 && falling && parts[0]! > healthyCreep && parts[0]! - parts[3]! > 0.02;
}

/** Share of y's variance that columns and a constant explain. */
function explained(columns: readonly Float64Array[], y: Float64Array): number {
  const usable: number[] = [];
  for (let index = 0; index < y.length; index++)
    if (!Number.isNaN(sampleAt(y, index)) && columns.every((column) => !Number.isNaN(sampleAt(column, index))))
      usable.push(index);
  if (usable.length < 10) return 0;
  const centred = (values: Float64Array) => {
    const used = pickedAt(values, usable);
    const mean = meanOf(used);
    return seriesOf(used.length, (index) => sampleAt(used, index) - mean);
  };
  const target = centred(y);
  const total = dot(target, target);
  // Each column in turn is made orthogonal to the earlier ones (Gram and Schmidt).
  let left: Float64Array = target;
  const basis: Float64Array[] = [];
  for (const column of columns) {
    let vector: Float64Array = centred(column);
    for (const earlier of basis) vector = minus(vector, earlier);
    if (dot(vector, vector) < 1e-12) continue;
    basis.push(vector);
    left = minus(left, vector);
  }
  return total > 0 ? 1 - dot(left, left) / total : 0;
}

function mean(values: Float64Array): number {
  return values.reduce((sum, value) => sum + (value || 0), 0) / values.length;
}

/** a less its projection on b. */
function minus(a: Float64Array, b: Float64Array) {
  const share = dot(a, b) / dot(b, b);
  return a.map((value, index) => value - share * sampleAt(b, index));
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0;
  for (let index = 0; index < a.length; index++) sum += sampleAt(a, index) * sampleAt(b, index);
  return sum;
}
