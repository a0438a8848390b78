import { interpolate } from '../core/numerics/interpolation.ts';
import { curveOf } from '../core/figures/runs/corrected-curve.ts';
import { preparedSweep } from '../core/reduction/prepared-sweep.ts';
import { resolvedSpan } from '../core/reduction/auto-span.ts';
import type { SweepDrive } from '../core/reduction/sweep-drive.ts';
import { families, healthyRun, type Family } from '../core/testing/families.ts';
import { generatedTruth, type GeneratedTruth } from '../core/testing/generated-run.ts';
import { otherEngine } from '../core/testing/other-engines.ts';
import type { GeneratedRun } from '../core/testing/pull-options.ts';
import { rpmPerRadS } from '../core/units/units.ts';
import { halfWidthOfMean } from '../core/statistics/mean-interval.ts';
import { assumedSpread } from '../core/statistics/spread-prior.ts';
import type { Figure } from './figure.ts';

const view = { standard: 'none', share: 1, gridRpm: 25 } as const;
const seeds = Array.from({ length: 16 }, (_, index) => 201 + index);

/**
 * Errors of auto smoothing over drawn recordings of every family, and their
 * ratio to the best that one Savitzky–Golay window could do, window and order
 * chosen knowing the truth, over the middle four fifths of the range.
 */
export function familyErrors(): Figure[] {
  return [
    ...families.flatMap((family) => errorFigures(family, (seed) => healthyRun(family, seed))),
    ...Object.entries(hardToRead).flatMap(([name, spec]) => errorFigures(name, spec)),
  ];
}

const calm = (family: Family, seed: number) => ({
  ...healthyRun(family, seed),
  feather: undefined,
  stab: undefined,
  jitterS: 0,
  lostShare: 0,
});
/** Through its speeds in two seconds, as the absorber lets it. */
function quick(family: Family, seed: number): GeneratedRun {
  const spec: GeneratedRun = calm(family, seed);
  return { ...spec, rampRpmPerS: (spec.toRpm! - spec.fromRpm!) / 2 };
}
/** The same machines with little to read from: short pulls, few samples a second, a cell whose noise is slow. */
const hardToRead: Record<string, (seed: number) => GeneratedRun> = {
  'inertia roller, pulls of 2 s': (seed) => {
    const spec = calm('petrol-inertia', seed);
    return { ...spec, rateHz: 200, dyno: { ...spec.dyno!, inertiaKgM2: spec.dyno!.inertiaKgM2 / 8 } };
  },
  'hub diesel, pulls of 2 s': (seed) => quick('diesel-hub', seed),
  'loaded turbo, pulls of 2 s': (seed) => quick('turbo-loaded', seed),
  'inertia roller at 10 Hz': (seed) => ({ ...calm('petrol-inertia', seed), rateHz: 10, speedNoise: 0.005 }),
  'loaded turbo at 10 Hz': (seed) => ({ ...calm('turbo-loaded', seed), rateHz: 10, speedNoise: 0.005 }),
  'hub diesel at 10 Hz': (seed) => ({ ...calm('diesel-hub', seed), rateHz: 10, speedNoise: 0.005 }),
  'pink load cell': (seed) => otherEngine('pink load cell', seed, 60),
};

function errorFigures(kind: string, specOf: (seed: number) => GeneratedRun): Figure[] {
  const found = seeds.map((seed) => {
    const spec = specOf(seed);
    const truth = generatedTruth(spec);
    const sweep = preparedSweep(truth.recording, spec.dyno!, spec.ratio ?? 3.4);
    const curve = curveOf(sweep, undefined, { ...view, spanRpm: resolvedSpan('auto', [sweep]) });
    const places = curve.engineSpeedRpm.filter((rpm) => !Number.isNaN(truth.powerKw(rpm)));
    const top = Math.max(...Array.from(places, truth.powerKw));
    const errorAt = (at: Float64Array) => (power: (rpm: number) => number) =>
      Math.sqrt(at.reduce((sum, rpm) => sum + (power(rpm) - truth.powerKw(rpm)) ** 2, 0) / at.length);
    const drawn = (rpm: number) => interpolate(curve.engineSpeedRpm, curve.uncorrectedPowerKw, rpm);
    const error = errorAt(places)(drawn);
    // Against one window the ends are left out: there it would have to look beyond the sweep.
    const middle = places.subarray(Math.ceil(0.1 * places.length), Math.floor(0.9 * places.length));
    const errorOf = errorAt(middle);
    const even = !spec.jitterS && !spec.lostShare;
    const endOff = (rpm: number) => Math.abs(drawn(rpm) - truth.powerKw(rpm));
    return {
      rms: (100 * error) / top,
      peak: Math.abs(100 * (curve.peakPower.value / top - 1)),
      ratio: even ? errorOf(drawn) / bestWindowError(sweep, errorOf) : NaN,
      held: Number(
        Math.abs(curve.peakPower.value - top) <=
          (halfWidthOfMean(alone(curve.peakPower.value), assumedSpread(spec.dyno!.kind)) ?? 0),
      ),
      end: (100 * Math.max(endOff(places[0]!), endOff(places.at(-1)!))) / top,
    };
  });
  const of = (pick: (figures: (typeof found)[number]) => number) =>
    found.map(pick).filter((value) => !Number.isNaN(value));
  const mean = (values: number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const name = `${kind}, ${seeds.length} drawn recordings`;
  return [
    { name: `${name}: RMS error, mean`, value: mean(of(({ rms }) => rms)), unit: '% of peak', budget: 0.25 },
    { name: `${name}: RMS error, worst`, value: Math.max(...of(({ rms }) => rms)), unit: '% of peak', budget: 0.25 },
    { name: `${name}: peak error, mean`, value: mean(of(({ peak }) => peak)), unit: '%', budget: 0.4 },
    { name: `${name}: peak error, worst`, value: Math.max(...of(({ peak }) => peak)), unit: '%' },
    {
      name: `${name}: peaks that the ± of a lone run holds, assumed spread`,
      value: 100 * mean(of(({ held }) => held)),
      unit: '%',
    },
    { name: `${name}: error of an end, worst`, value: Math.max(...of(({ end }) => end)), unit: '% of peak' },
    { name: `${name}: ratio to the best window, mean`, value: mean(of(({ ratio }) => ratio)), unit: '×', budget: 1 },
    {
      name: `${name}: ratio to the best window, worst`,
      value: Math.max(...of(({ ratio }) => ratio)),
      unit: '×',
      budget: 1.3,
    },
  ];
}

/** One run's figure as repeats of it would stand. */
const alone = (mean: number) => ({ runs: 1, mean, standardDeviation: NaN });

/** Half windows in samples, and orders of the polynomial; odd orders give the same slope as the even ones below. */
const halfWindows = [5, 8, 12, 18, 27, 40, 60, 90, 135, 200, 300];
const orders = [2, 4] as const;

/** The least error of a derivative by one Savitzky–Golay window over the whole sweep; at the ends the window shrinks. */
function bestWindowError(sweep: SweepDrive, errorOf: (power: (rpm: number) => number) => number): number {
  const { time, impulse, speed, ratio } = sweep.drive;
  const step = (time[time.length - 1]! - time[0]!) / (time.length - 1);
  const inSweep = (values: Float64Array) => values.subarray(sweep.first, sweep.last + 1);
  const rpm = inSweep(speed).map((value, index) => value * inSweep(ratio)[index]! * rpmPerRadS);
  let best = Infinity;
  for (const order of orders) {
    for (const half of halfWindows) {
      const power = new Float64Array(rpm.length);
      for (let index = 0; index < power.length; index++) {
        const at = sweep.first + index;
        const reach = Math.min(half, at - sweep.first + 3, sweep.last - at + 3);
        power[index] = (derivative(impulse, at, Math.max(reach, order), order, step) * speed[at]!) / 1000;
      }
      const [speeds, powers] = rising(rpm, power);
      best = Math.min(
        best,
        errorOf((at) => interpolate(speeds, powers, at)),
      );
    }
  }
  return best;
}

/** Slope in the middle of a symmetric window by a polynomial of order 2 or 4, all samples alike. */
function derivative(values: Float64Array, at: number, half: number, order: 2 | 4, step: number): number {
  let s2 = 0;
  let s4 = 0;
  let s6 = 0;
  let m1 = 0;
  let m3 = 0;
  for (let away = 1; away <= half; away++) {
    const square = away * away;
    const odd = values[at + away]! - values[at - away]!;
    s2 += 2 * square;
    s4 += 2 * square * square;
    s6 += 2 * square * square * square;
    m1 += away * odd;
    m3 += away * square * odd;
  }
  return (order === 2 ? m1 / s2 : (s6 * m1 - s4 * m3) / (s2 * s6 - s4 * s4)) / step;
}

function rising(rpm: Float64Array, power: Float64Array): [Float64Array, Float64Array] {
  const kept: number[] = [];
  for (let index = 0; index < rpm.length; index++) {
    if (kept.length === 0 || rpm[index]! > rpm[kept.at(-1)!]!) kept.push(index);
  }
  return [Float64Array.from(kept, (index) => rpm[index]!), Float64Array.from(kept, (index) => power[index]!)];
}

const bell = (rpm: number, at: number, width: number) => Math.exp(-4 * Math.LN2 * ((rpm - at) / width) ** 2);

/** How much of a dip's depth auto smoothing keeps. */
export function dipDepths(): Figure[] {
  const depth = 0.06;
  return (
    [
      [230, 90],
      [140, 85],
    ] as const
  ).flatMap(([width, least]) =>
    (['petrol-inertia', 'turbo-loaded', 'diesel-hub'] as const).map((family): Figure => {
      const kept = seeds.map((seed) => {
        const spec = { ...healthyRun(family, seed), feather: undefined, stab: undefined };
        const at = family === 'diesel-hub' ? 3000 : 4800;
        const dipped = (rpm: number) => spec.drumTorque!(rpm) * (1 - depth * bell(rpm, at, width));
        const truth: GeneratedTruth = generatedTruth({ ...spec, drumTorque: dipped });
        const sweep = preparedSweep(truth.recording, spec.dyno!, spec.ratio ?? 3.4);
        const curve = curveOf(sweep, undefined, { ...view, spanRpm: resolvedSpan('auto', [sweep]) });
        const read = interpolate(curve.engineSpeedRpm, curve.uncorrectedPowerKw, at);
        return (1 - (read * (1 - depth)) / truth.powerKw(at)) / depth;
      });
      return {
        name: `${family}: dip of 6 %, ${width} rpm wide, depth kept, mean of ${seeds.length}`,
        value: (100 * kept.reduce((sum, share) => sum + share, 0)) / kept.length,
        unit: `% (at least ${least})`,
      };
    }),
  );
}
