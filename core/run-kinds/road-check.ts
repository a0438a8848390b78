import { sampleAt } from '../numerics/sample-at.ts';
import { max, min } from 'd3-array';
import type { Finding } from '../checks/check.ts';
import { channelLabel, knownChannels, keptUnit, type KnownChannel } from '../recording/channels.ts';
import { valuesOf, type Recording } from '../recording/recording.ts';
import { Refusal } from '../refusal.ts';
import { meanOf } from '../numerics/mean.ts';
import { standardDeviationOf } from '../statistics/mean-difference.ts';
import { studentT } from '../statistics/student-t.ts';
import { convert } from '../units/units.ts';
import type { KindSource } from './kind-source.ts';
import { readingStep } from '../numerics/reading-step.ts';
import { atLeastSamples, slopes } from '../smoothing/moving-fit.ts';
import { figure, once, type RunFigure, type RunFigures } from './run-figure.ts';

/** Pairs of road speeds, km/h, between which times are told. */
export const roadSpans = [
  [40, 80],
  [60, 100],
  [80, 120],
] as const;
/** A passage that is not driven flat out is no acceleration: the pedal, %, and how far the speed may fall meanwhile, km/h. */
const openAbove = 80;
const mostFall = 2;
/** Every span takes less than this flat out, s. */
const longestS = 60;

/** Highest or lowest readings of a drive that are worth a figure. */
const extremesTold = [
  ['coolantTemperature', 'most', 0],
  ['oilTemperature', 'most', 0],
  ['intakeTemperature', 'most', 0],
  ['exhaustTemperature', 'most', 0],
  ['oilPressure', 'least', 0],
  ['knockRetard', 'most', 1],
] as const satisfies readonly (readonly [KnownChannel, 'most' | 'least', number])[];

/** Beyond these a drive on the road is looked at again, where the car's own limits say nothing; usual ones, °C and °. */
const usualMost = { coolantTemperature: 112, oilTemperature: 135, knockRetard: 4 } as const;

/**
 * A drive on the road: times between road speeds, each the mean of its passages
 * flat out, and the extremes of temperatures, knock and oil pressure. Slope and wind
 * are in a single passage; passages both ways cancel most of them, which the interval
 * counts.
 *
 * @throws Refusal where neither a road speed nor anything else that is told was logged
 */
export function roadCheckFigures(source: KindSource): RunFigures {
  const recordings = [...source.beside, source.own];
  const times = recordings.map(passageFigures).find((figures) => figures.length > 0) ?? [];
  const found: Finding[] = [];
  const extremes = extremesTold.flatMap(([name, which, digits]): RunFigure[] => {
    const read = recordings.map((recording) => valuesOf(recording, name)).find((values) => values !== undefined);
    const value = read && (which === 'most' ? max(read) : min(read));
    if (value === undefined) return [];
    const limit = name in usualMost ? usualMost[name as keyof typeof usualMost] : Infinity;
    const { unit } = knownChannels[name];
    if (value > limit)
      found.push({
        id: `road-${name}`,
        severity: 'mind',
        figure: value,
        unit,
        message: `${channelLabel(name)} reached ${value.toFixed(digits)} ${unit} on the road (usual limit ${limit} ${unit}): look where, in Logs, before the car is handed over.`,
      });
    return [
      figure(
        name,
        `${channelLabel(name)}, ${which === 'most' ? 'highest' : 'lowest'}`,
        [keptUnit(name, unit), digits],
        once(value, readingStep(read ?? new Float64Array(0))),
        name === 'knockRetard' ? 'less' : null,
      ),
    ];
  });
  if (times.length + extremes.length === 0)
    throw new Refusal(
      'Neither a road speed nor temperatures, oil pressure or knock were logged on this drive, so it has no figures.',
    );
  return { figures: [...times, ...extremes], found };
}

function passageFigures(recording: Recording): RunFigure[] {
  const metresPerS = valuesOf(recording, 'roadSpeed');
  if (!metresPerS) return [];
  const speed = metresPerS.map((value) => convert(value, 'm/s', 'km/h'));
  const throttle = valuesOf(recording, 'throttle');
  const stepKmh = readingStep(speed);
  const spans = roadSpans.map(([from, to]) => ({
    from,
    to,
    seconds: passages(recording.time, speed, throttle, from, to),
  }));
  const driven = spans.filter(({ seconds }) => seconds.length > 0);
  if (driven.length === 0) return [];
  const most = Math.max(...driven.map(({ seconds }) => seconds.length));
  return [
    ...driven.map(({ from, to, seconds }) =>
      figure(
        `time-${from}-${to}`,
        `${from} to ${to} km/h, flat out`,
        ['s', 2],
        { ...meanOfPassages(seconds), resolution: stepKmh * (meanOf(seconds) / (to - from)) },
        'less',
      ),
    ),
    figure('passages', 'Passages', ['×', 0], once(most)),
  ];
}

function meanOfPassages(seconds: readonly number[]): { mean: number; halfWidth: number } {
  const df = seconds.length - 1;
  if (df === 0) return once(seconds[0]!);
  return {
    mean: meanOf(seconds),
    halfWidth: (studentT(0.95, df) * standardDeviationOf(seconds)) / Math.sqrt(seconds.length),
  };
}

/** A line through so long of the drive tells when a road speed was passed, s: readings in steps, or with noise, pass it more than once. */
const passedOverS = 0.6;
/** And through so many readings at least. */
const passedOver = 4;

/** How long each passage flat out from one road speed to another took, s. */
export function passages(
  time: Float64Array,
  speedKmh: Float64Array,
  throttle: Float64Array | undefined,
  from: number,
  to: number,
): number[] {
  const found: number[] = [];
  const fitted = slopes(time, speedKmh, atLeastSamples(time, passedOverS, passedOver)).value;
  let begunS: number | undefined;
  let top = 0;
  let before: number | undefined;
  for (let index = 0; index < time.length; index++) {
    const is = sampleAt(fitted, index);
    if (Number.isNaN(is)) continue;
    const last = before;
    before = index;
    if (last === undefined) continue;
    const was = sampleAt(fitted, last);
    const crossed = (at: number) =>
      sampleAt(time, last) + ((at - was) / (is - was)) * (sampleAt(time, index) - sampleAt(time, last));
    if (was < from && is >= from) [begunS, top] = [crossed(from), is];
    if (begunS === undefined) continue;
    top = Math.max(top, is);
    // A gear change closes the throttle for a moment and is part of it; a foot that is lifted is not.
    const lifted = throttle !== undefined && sampleAt(throttle, index) < openAbove && is < top;
    if (top - is > mostFall || sampleAt(time, index) - begunS > longestS || (lifted && top - is > mostFall / 2))
      begunS = undefined;
    else if (was < to && is >= to) {
      const endS = crossed(to);
      if (flatOut(time, throttle, begunS, endS)) found.push(endS - begunS);
      begunS = undefined;
    }
  }
  return found;
}

/** Whether the pedal was down for nearly all of a passage; taken so where it was not logged. */
function flatOut(time: Float64Array, throttle: Float64Array | undefined, fromS: number, toS: number): boolean {
  if (!throttle) return true;
  const within = throttle.filter((_, index) => sampleAt(time, index) >= fromS && sampleAt(time, index) <= toS);
  return within.filter((pedal) => pedal >= openAbove).length >= 0.75 * within.length;
}
