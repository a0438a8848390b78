import { sampleAt } from '../numerics/sample-at.ts';
import { extent } from 'd3-array';
import type { Finding } from '../checks/check.ts';
import { medianOf } from '../numerics/quantile.ts';
import { Refusal } from '../refusal.ts';
import { between, loggedTogether, neededTogether, type KindSource } from './kind-source.ts';
import { readingStep, usualInterval } from '../numerics/reading-step.ts';
import { meanOf } from '../numerics/mean.ts';
import { figure, once, type ReadOnce, type RunFigures } from './run-figure.ts';

/** The starter turns the engine above the first, rpm; it runs by itself above the second once it stays there for so long, s. */
const turnsRpm = 60;
const runsRpm = 450;
const runsForS = 0.4;
/** Below this after it ran it has stalled; a stop that nobody starts it from again only within so long of its start, s. */
const stalledRpm = 120;
const stallsWithinS = 10;
/** Flare and undershoot are looked for so long after the start, s. */
const flareS = 4;
const undershootS = 10;
/** Steady: a second's mean stays this near to that of the next five, rpm. */
const steadyRpm = 45;
const steadyForS = 5;
/** Its beginning is looked for in steps of so long, s. */
const searchS = 0.25;
// Set by bench/run-kinds.ts.
/** A battery that falls lower while cranking is weak or cold, V; cranking longer than this is long, s. */
const weakV = 9.6;
const longS = 2.5;

/**
 * A start from cold: temperature, lowest voltage and time of cranking from the
 * first turn to where the engine runs by itself, flare and undershoot about the
 * steady idle, stalls, and the time to a steady idle.
 *
 * @throws Refusal where engine speed was not logged from before the start, or it never ran
 */
export function coldStartFigures(source: KindSource): RunFigures {
  const { time, engineSpeed: rpm } = neededTogether(source, 'engine speed', 'engineSpeed');
  const { turnsS, startS, runs } = startIn(time, rpm);
  const steady = steadyFrom(time, rpm, startS);
  const idle = medianOf(between(time, rpm, steady ?? sampleAt(time, time.length - 1) - steadyForS, Infinity));
  const [, top = NaN] = extent(between(time, rpm, startS, startS + flareS));
  const [bottom = NaN] = extent(between(time, rpm, startS + 1, startS + undershootS));
  const crankingS = startS - turnsS;
  const intervalS = usualInterval(time);
  const volts = lowestVoltage(source);
  const stalls = stallsOf(time, rpm, runs);
  const figures = [
    ...startTemperature(source),
    figure('lowest-voltage', 'Lowest voltage', ['V', 2], volts ?? once(NaN), 'more'),
    figure('cranking-time', 'Cranking', ['s', 2], once(crankingS, intervalS), 'less'),
    figure('flare', 'Flare above the idle', ['rpm', 0], once(Math.max(0, top - idle), besideReading(rpm, top))),
    figure(
      'undershoot',
      'Undershoot below the idle',
      ['rpm', 0],
      once(Math.max(0, idle - bottom), besideReading(rpm, bottom)),
      'less',
    ),
    figure('stalls', 'Stalls', ['×', 0], once(stalls, 1), 'less'),
    figure(
      'steady-after',
      'Steady idle after',
      ['s', 1],
      once(steady === undefined ? NaN : steady - startS, Math.max(searchS, intervalS)),
      'less',
    ),
    figure('idle-speed', 'Idle speed', ['rpm', 0], once(idle)),
  ].filter(({ value }) => !Number.isNaN(value));
  const found: Finding[] = [];
  const lowest = volts?.mean;
  if (lowest !== undefined && lowest < weakV)
    found.push({
      id: 'weak-battery',
      severity: 'mind',
      figure: lowest,
      unit: 'V',
      message: `The battery fell to ${lowest.toFixed(1)} V while cranking (usual limit ${weakV} V): charge and test it, and look at its cables.`,
    });
  if (crankingS > longS)
    found.push({
      id: 'long-cranking',
      severity: 'mind',
      figure: crankingS,
      unit: 's',
      message: `Cranking took ${crankingS.toFixed(1)} s: look at fuel pressure at rest, the mixture for starting and the battery.`,
    });
  if (stalls > 0)
    found.push({
      id: 'stalled',
      severity: 'mind',
      figure: stalls,
      unit: '',
      message: `It stalled ${stalls === 1 ? 'once' : `${stalls} times`} after it had started.`,
    });
  if (steady === undefined)
    found.push({
      id: 'not-steady',
      severity: 'note',
      message: 'No steady idle was reached before the recording ended.',
    });
  return { figures, found };
}

/** When the starter first turned the engine, and when it ran by itself. @throws Refusal where it did not */
function startIn(time: Float64Array, rpm: Float64Array): { turnsS: number; startS: number; runs: number } {
  const off = rpm.findIndex((value) => value <= turnsRpm);
  if (off < 0)
    throw new Refusal('The engine was turning already when the recording began: begin it before the starter turns.');
  const turns = rpm.findIndex((value, index) => index > off && value > turnsRpm);
  if (turns < 0) throw new Refusal('The engine never turned in this recording.');
  const runs = runningFrom(time, rpm, turns);
  if (runs < 0) throw new Refusal('The engine was cranked, and never ran by itself in this recording.');
  return { turnsS: sampleAt(time, turns), startS: sampleAt(time, runs), runs };
}

function runningFrom(time: Float64Array, rpm: Float64Array, from: number): number {
  let since = -1;
  for (let index = from; index < rpm.length; index++) {
    if (!(sampleAt(rpm, index) > runsRpm)) since = -1;
    else if (since < 0) since = index;
    else if (sampleAt(time, index) - sampleAt(time, since) >= runsForS) return since;
  }
  return -1;
}

/** Times that it stopped. A last stop that it is not started from again is the key's where it had run for a while. */
function stallsOf(time: Float64Array, rpm: Float64Array, from: number): number {
  let stalls = 0;
  let [startedS, ranS] = [sampleAt(time, from), 0];
  let running = true;
  for (let index = from; index < rpm.length; index++) {
    if (running && sampleAt(rpm, index) < stalledRpm) {
      stalls++;
      running = false;
      ranS = sampleAt(time, index) - startedS;
    } else if (!running && sampleAt(rpm, index) > runsRpm) {
      running = true;
      startedS = sampleAt(time, index);
    }
  }
  return running || ranS < stallsWithinS ? stalls : stalls - 1;
}

/** Since when the speed has stayed at its idle, s. */
function steadyFrom(time: Float64Array, rpm: Float64Array, startS: number): number | undefined {
  const endS = sampleAt(time, time.length - 1);
  for (let at = startS; at + 1 + steadyForS <= endS; at += searchS) {
    const now = medianOf(between(time, rpm, at, at + 1));
    const later = between(time, rpm, at + 1, at + 1 + steadyForS);
    const [least = NaN, most = NaN] = extent(later);
    if (Math.abs(now - medianOf(later)) < steadyRpm && most - least < 4 * steadyRpm) return at;
  }
  return undefined;
}

/** While the starter turned. */
function lowestVoltage(source: KindSource): ReadOnce | undefined {
  const logged = loggedTogether(source, 'engineSpeed', 'batteryVoltage');
  if (!logged) return undefined;
  const { turnsS, startS } = startIn(logged.time, logged.engineSpeed);
  const volts = between(logged.time, logged.batteryVoltage, turnsS - 0.3, startS + 0.1);
  const [least] = extent(volts);
  return least === undefined
    ? undefined
    : once(least, Math.max(besideReading(volts, least), readingStep(logged.batteryVoltage)));
}

/** How far the readings beside an extreme one lie from it: so much of it may have been missed between samples. */
function besideReading(values: Float64Array, extreme: number): number {
  const at = values.indexOf(extreme);
  const apart = [at - 1, at + 1].flatMap((beside) => values[beside] ?? []).map((value) => Math.abs(value - extreme));
  return apart.length === 0 ? 0 : meanOf(apart);
}

function startTemperature(source: KindSource) {
  const logged = loggedTogether(source, 'engineSpeed', 'coolantTemperature');
  if (!logged) return [];
  const { turnsS } = startIn(logged.time, logged.engineSpeed);
  const at = medianOf(between(logged.time, logged.coolantTemperature, turnsS - 1, turnsS + 0.05));
  return [figure('start-coolant', 'Coolant at the start', ['°C', 0], once(at))];
}
