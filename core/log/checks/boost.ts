import { sampleAt } from '../../numerics/sample-at.ts';
import { quantity, say } from '../../sentence/sentence.ts';
import { spokenRpm } from '../../units/spoken.ts';
import { medianOf } from '../../numerics/quantile.ts';
import { eventAt, highest, pullOf, stretches, type LogEvent, type RunLog } from '../pull/run-log.ts';

// Set by bench/logs.ts: no false alarm on healthy logs, most hits on faulty ones.
/** Boost may exceed what it settles at by this much, kPa, and this share of it. */
const overKpa = 8;
const overShare = 0.07;
/** Boost may fall towards the top by this share of its plateau. */
const taperShare = 0.12;
/** A cut takes this share away within so long, s. */
const cutShare = 0.4;
const cutWithinS = 0.2;
/** Less boost than this, kPa, is none. */
const leastBoostKpa = 25;
const shown = ['boost', 'boostTarget', 'boostDuty', 'knockRetard'];

/** Over its target or plateau after it has come up, falling away at the top, or taken away at once. */
export function boostEvents(log: RunLog): LogEvent[] {
  const boost = log.channels.get('boost');
  if (!boost) return [];
  const [first, last] = pullOf(log);
  const count = last - first;
  const plateau = medianOf(boost.subarray(first + Math.floor(0.35 * count), first + Math.floor(0.75 * count) + 1));
  // Where a cut takes most of the boost away, the highest reading tells what there was.
  const top = highest(boost, { from: first, to: last });
  if (!(top > leastBoostKpa)) return [];
  const cuts = boostCut(log, boost, Math.max(plateau, 0.85 * top));
  // A cut is no taper, and after it there is no plateau that could be overshot.
  if (cuts.length > 0) return cuts;
  const target = log.channels.get('boostTarget');
  // A centrifugal blower's boost climbs to the end: without a target there is nothing that it could overshoot or fall from.
  if (!target && climbsToTheEnd(log, boost, plateau)) return [];
  return [...boostOvershoot(log, boost, plateau), ...boostTaper(log, boost, plateau)];
}

/** Whether boost has no plateau: it is at its highest at the end, well above what it was in the middle. */
function climbsToTheEnd(log: RunLog, boost: Float64Array, plateau: number): boolean {
  const [first, last] = pullOf(log);
  const end = medianOf(boost.subarray(last - Math.floor(0.07 * (last - first)), last + 1));
  return end > (1 + overShare) * plateau && end > 0.93 * highest(boost, { from: first, to: last });
}

function boostOvershoot(log: RunLog, boost: Float64Array, plateau: number): LogEvent[] {
  const target = log.channels.get('boostTarget');
  const wanted = (index: number) =>
    target && !Number.isNaN(sampleAt(target, index)) ? sampleAt(target, index) : plateau;
  return stretches(
    log,
    (index) => sampleAt(boost, index) > wanted(index) + Math.max(overKpa, overShare * wanted(index)),
    0.06,
    0.3,
  ).map((stretch) => {
    let over = 0;
    for (let index = stretch.from; index <= stretch.to; index++)
      over = Math.max(over, sampleAt(boost, index) - wanted(index));
    return eventAt(log, stretch, {
      id: 'boost-overshoot',
      name: 'boost overshoots',
      severity: 'mind',
      figure: over,
      unit: 'kPa',
      message: ({ fromRpm }) =>
        say`Boost overshoots ${target ? 'its target' : 'its plateau'} by ${quantity(over, 'kPa')} at ${spokenRpm(fromRpm)} rpm.`,
      channels: shown,
    });
  });
}

function boostTaper(log: RunLog, boost: Float64Array, plateau: number): LogEvent[] {
  const [first, last] = pullOf(log);
  const target = log.channels.get('boostTarget');
  const tail = first + Math.floor(0.93 * (last - first));
  const end = medianOf(boost.subarray(tail, last + 1));
  const wanted = target ? medianOf(target.subarray(tail, last + 1)) : plateau;
  const lost = wanted - end;
  if (!(lost >= taperShare * wanted && lost >= overKpa)) return [];
  let from = last;
  while (from > first && sampleAt(boost, from) < (target ? sampleAt(target, from) : plateau) * (1 - taperShare / 2))
    from--;
  return [
    eventAt(
      log,
      { from, to: last },
      {
        id: 'boost-taper',
        name: 'boost tapers',
        severity: 'note',
        figure: lost,
        unit: 'kPa',
        message: ({ fromRpm }) =>
          target
            ? say`Boost tapers by ${quantity(lost, 'kPa')} below its target from ${spokenRpm(fromRpm)} rpm to the top: the turbo or its control has reached its end.`
            : say`Boost tapers by ${quantity(lost, 'kPa')} from ${spokenRpm(fromRpm)} rpm to the top. Its target was not logged: whether the controller wanted that, or the turbo has reached its end, cannot be told.`,
        channels: shown,
      },
    ),
  ];
}

function boostCut(log: RunLog, boost: Float64Array, plateau: number): LogEvent[] {
  const { time } = log;
  const [first, last] = pullOf(log);
  let before = first;
  for (let index = first; index <= last; index++) {
    while (sampleAt(time, index) - sampleAt(time, before) > cutWithinS) before++;
    const gone = sampleAt(boost, before) - sampleAt(boost, index);
    // Whatever was not read is no cut.
    if (!(sampleAt(boost, before) >= 0.7 * plateau && gone >= cutShare * plateau)) continue;
    return [
      eventAt(
        log,
        { from: before, to: index },
        {
          id: 'boost-cut',
          name: 'boost cut',
          severity: 'stop',
          figure: gone,
          unit: 'kPa',
          message: ({ fromRpm }) =>
            say`Boost is cut at ${spokenRpm(fromRpm)} rpm: ${quantity(gone, 'kPa')} gone in ${(sampleAt(time, index) - sampleAt(time, before)).toFixed(2)} s. The controller took it away, or a hose came off.`,
          channels: [...shown, 'lambda'],
        },
      ),
    ];
  }
  return [];
}
