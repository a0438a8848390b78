import { meanOfSamples } from '../statistics/mean-of-samples.ts';
import { sampleAt } from '../numerics/sample-at.ts';
import { firstNotBelow } from '../numerics/interpolation.ts';
import { medianOf } from '../numerics/quantile.ts';
import type { Finding } from '../checks/check.ts';
import { Refusal } from '../refusal.ts';
import { loggedTogether, longestSteady, neededTogether, type KindSource } from './kind-source.ts';
import { readingStep } from '../numerics/reading-step.ts';
import { figure, once, type RunFigures } from './run-figure.ts';

/** A shorter idle tells nothing of hunting, s. */
const leastS = 15;
/** Slow swings of these periods are hunting, s. */
const periods = { least: 0.8, most: 8 } as const;
/** Frequencies are tried this many times closer than the idle's length can tell apart. */
const closer = 4;
// Set by bench/run-kinds.ts: hits on stand-in faults, no alarm on healthy idles.
/** It hunts where a swing explains this share of what the speed does, and is as large as this, rpm. */
const huntingShare = 0.35;
const huntingRpm = 18;
/** A dip falls this far below the speed around it, rpm and in its own noise, and lasts no longer than this, s. */
const dipRpm = 28;
const dipNoise = 5;
const dipS = 0.6;
const dipsAMinute = 6;
/** At idle means over so long, s, stay this near to the middle one, as a share; it may hunt. */
const idleSpanS = 3;
const idleShare = 0.12;
/** λ this far above its target at idle is false air or too little fuel. */
const leanShare = 0.05;

/**
 * Idle quality: mean speed and its spread, slow hunting by the sinusoid that
 * explains most of the speed, dips as a misfire makes them, and means of what
 * was logged beside it.
 *
 * @throws Refusal where engine speed was not logged, or for too short a time
 */
export function idleFigures(source: KindSource): RunFigures {
  const logged = neededTogether(source, 'engine speed', 'engineSpeed');
  const [first, end] = idlePart(logged.time, logged.engineSpeed);
  const time = logged.time.subarray(first, end);
  const rpm = logged.engineSpeed.subarray(first, end);
  const lastedS = sampleAt(time, time.length - 1) - sampleAt(time, 0);
  if (lastedS < leastS)
    throw new Refusal(`An idle of ${lastedS.toFixed(0)} s tells little: let it idle for ${leastS} s at least.`);
  const speed = meanOfSamples(rpm);
  const swing = swingOf(time, rpm);
  const dips = dipsOf(time, rpm, swing);
  const perMinute = (60 * dips) / lastedS;
  const hunts = swing.share > huntingShare && swing.amplitude > huntingRpm;
  const step = readingStep(rpm);
  const figures = [
    figure('idle-speed', 'Idle speed', ['rpm', 0], { ...speed, resolution: step }),
    figure('idle-spread', 'Spread of the speed', ['rpm', 1], once(speed.sd, stepOfSpread(speed.sd, step)), 'less'),
    figure(
      'hunting-amplitude',
      'Hunting, amplitude',
      ['rpm', 0],
      once(hunts ? swing.amplitude : 0, huntingRpm),
      'less',
    ),
    figure('hunting-period', 'Hunting, period', ['s', 1], once(hunts ? swing.periodS : NaN)),
    figure('dips', 'Dips', ['/min', 1], once(perMinute, 60 / lastedS), 'less'),
    ...meansOf(source, ['lambda', 'ignitionAdvance', 'manifoldPressure', 'batteryVoltage']),
  ].filter(({ value }) => !Number.isNaN(value));
  const found: Finding[] = [];
  if (hunts)
    found.push({
      id: 'idle-hunts',
      severity: 'mind',
      figure: swing.amplitude,
      unit: 'rpm',
      message: `The idle hunts: ±${swing.amplitude.toFixed(0)} rpm every ${swing.periodS.toFixed(1)} s. Look for false air, the mixture at idle and the idle controller.`,
    });
  if (perMinute > dipsAMinute)
    found.push({
      id: 'idle-dips',
      severity: 'mind',
      figure: perMinute,
      unit: '',
      message: `The speed dips ${perMinute.toFixed(0)} times a minute, as with a misfire: look at plugs, coils and single injectors.`,
    });
  const lean = leanAt(source);
  if (lean !== undefined && lean > leanShare)
    found.push({
      id: 'idle-lean',
      severity: 'mind',
      figure: 100 * lean,
      unit: '%',
      message: `λ lies ${(100 * lean).toFixed(0)} % above its target at idle: false air (a leak behind the air meter), or too little fuel there. A probe in the tailpipe reads lean at idle by itself.`,
    });
  return { figures, found };
}

/** First sample and the one after the last of the idle itself: what came down to it, and what pulled away from it, left out. */
function idlePart(time: Float64Array, rpm: Float64Array): readonly [number, number] {
  const { fromS, toS } = longestSteady(time, rpm, idleShare, idleSpanS);
  // The means beside a way down or up still have some of it in them.
  const [first, end] = [
    fromS > sampleAt(time, 0) ? fromS + idleSpanS : fromS,
    toS < sampleAt(time, time.length - 1) - idleSpanS ? toS - idleSpanS : toS,
  ];
  return [firstNotBelow(time, first), firstNotBelow(time, end)];
}

/** What steps of the reading do to a spread: much where it hardly leaves a step, little where it goes over many. */
function stepOfSpread(sd: number, step: number): number {
  return (step / Math.sqrt(12)) * Math.min(1, step / (2 * sd));
}

interface Swing {
  /** rpm either way. */
  amplitude: number;
  periodS: number;
  /** Of the speed's variance. */
  share: number;
}

/** The sinusoid that explains most of a trace, over frequencies spread evenly. */
function swingOf(time: Float64Array, values: Float64Array): Swing {
  const middle = values.reduce((sum, value) => sum + value, 0) / values.length;
  const total = values.reduce((sum, value) => sum + (value - middle) ** 2, 0);
  let best: Swing = { amplitude: 0, periodS: NaN, share: 0 };
  const stepHz = 1 / (closer * (sampleAt(time, time.length - 1) - sampleAt(time, 0)));
  for (let hz = 1 / periods.most; hz <= 1 / periods.least; hz += stepHz) {
    const periodS = 1 / hz;
    const turn = (2 * Math.PI) / periodS;
    let [cc, ss, cs, cv, sv] = [0, 0, 0, 0, 0];
    for (let index = 0; index < values.length; index++) {
      const [c, s, v] = [
        Math.cos(turn * sampleAt(time, index)),
        Math.sin(turn * sampleAt(time, index)),
        sampleAt(values, index) - middle,
      ];
      cc += c * c;
      ss += s * s;
      cs += c * s;
      cv += c * v;
      sv += s * v;
    }
    const determinant = cc * ss - cs * cs;
    const [a, b] = [(ss * cv - cs * sv) / determinant, (cc * sv - cs * cv) / determinant];
    const explained = (a * cv + b * sv) / total;
    if (explained > best.share) best = { amplitude: Math.hypot(a, b), periodS, share: explained };
  }
  return best;
}

/** Short falls below the speed around them. */
function dipsOf(time: Float64Array, rpm: Float64Array, swing: Swing): number {
  const count = time.length;
  const inWindow = Math.max(3, Math.round((1.6 * count) / (sampleAt(time, count - 1) - sampleAt(time, 0))));
  const half = inWindow >> 1;
  const below = new Float64Array(count);
  for (let index = 0; index < count; index++)
    below[index] =
      medianOf(rpm.subarray(Math.max(0, index - half), Math.min(count, index + half + 1))) - sampleAt(rpm, index);
  const noise = medianOf(below.map(Math.abs)) / 0.6745;
  // What the slow swing does within the window is no dip.
  const limit = Math.max(dipRpm, dipNoise * noise, swing.share > huntingShare ? 0.8 * swing.amplitude : 0);
  let dips = 0;
  let since: number | undefined;
  for (let index = 0; index < count; index++) {
    if (sampleAt(below, index) > limit) since ??= sampleAt(time, index);
    else if (since !== undefined) {
      if (sampleAt(time, index) - since <= dipS) dips++;
      since = undefined;
    }
  }
  return dips;
}

const meanNames = {
  lambda: ['λ', 'λ', 3],
  ignitionAdvance: ['Ignition', '°BTDC', 1],
  manifoldPressure: ['Manifold pressure', 'kPa', 1],
  batteryVoltage: ['Battery', 'V', 2],
} as const;

function meansOf(source: KindSource, names: readonly (keyof typeof meanNames)[]) {
  return names.flatMap((name) => {
    const logged = loggedTogether(source, 'engineSpeed', name);
    if (!logged) return [];
    const [first, end] = idlePart(logged.time, logged.engineSpeed);
    const values = logged[name].subarray(first, end).filter((value) => !Number.isNaN(value));
    const [label, unit, digits] = meanNames[name];
    return values.length > 10
      ? [figure(name, label, [unit, digits], { ...meanOfSamples(values), resolution: readingStep(values) })]
      : [];
  });
}

/** How far λ lies above its target, as a share. */
function leanAt(source: KindSource): number | undefined {
  const logged = loggedTogether(source, 'engineSpeed', 'lambda', 'lambdaTarget');
  if (!logged) return undefined;
  const [first, end] = idlePart(logged.time, logged.engineSpeed);
  const [read, target] = [logged.lambda.subarray(first, end), logged.lambdaTarget.subarray(first, end)];
  return medianOf(
    read.map((value, index) => value / sampleAt(target, index) - 1).filter((value) => !Number.isNaN(value)),
  );
}
