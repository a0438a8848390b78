import { coastDown, lossAt } from '../run-kinds/coast-down.ts';
import { meanDifference } from '../statistics/mean-difference.ts';
import { meanOfSamples } from '../statistics/mean-of-samples.ts';
import { remountDeviation } from '../statistics/remount.ts';
import { chance, normal, wandering } from './chance.ts';
import { comparisonHolds, sweepTimeHolds, type DrawnDay } from './drawn-comparisons.ts';
import { testDyno } from './test-car.ts';

/** A kind of interval, drawn again and again: whether it holds the truth. */
export interface CoverageCase {
  name: string;
  /** `about` 95 %: 93 to 97; `least` 95: a bound; `stated`: what no arithmetic tells from the truth, not met. */
  wanted: 'about' | 'least' | 'stated';
  holds: (seed: number) => boolean;
}

/** Comparison across a mounting of a shop that has mounted so many cars so often, three runs each time. */
function remountHolds(cars: number, mountings: number) {
  return (seed: number): boolean => {
    const noise = normal(chance(seed * 17 + 1));
    const [within, between] = [0.4, [0.2, 0.5, 1][seed % 3]!];
    const mounted = () => {
      const level = 100 + between * noise();
      return [0, 1, 2].map(() => level + within * noise());
    };
    const setups = Array.from({ length: cars }, () => Array.from({ length: mountings }, mounted));
    const { difference, halfWidth } = meanDifference(mounted(), mounted(), {
      prior: { standardDeviation: within, df: 6, from: 'learned' },
      remount: remountDeviation(setups),
    });
    return Math.abs(difference) <= halfWidth;
  };
}

const drag = { ...testDyno, inertiaKgM2: 8, parasitic: { aNm: 6, bNmPerRadS: 0.05, cNmPerRadS2: 0.0006 } };
const dragNm = (radS: number) => 6 + 0.05 * radS + 0.0006 * radS ** 2;

/** The loss torque of a coast whose speed reading wanders for so long. @param wandersS 0 for white noise */
function coastHolds(wandersS: number) {
  return (seed: number): boolean => {
    const random = chance(seed * 77 + 3);
    const noise = normal(random);
    const wander = wandering(random, wandersS > 0 ? 0.02 : 0, Math.max(0.01, wandersS));
    const time: number[] = [];
    const speed: number[] = [];
    const stepS = 1 / 200;
    for (let at = 0, radS = 20, up = true; at < 8000 && (up || radS > 12); at++) {
      if (at % 4 === 0) {
        time.push(at * stepS);
        speed.push(radS + (wandersS > 0 ? 0.01 : 0.02) * noise() + wander(4 * stepS));
      }
      // Halfway through the step the drag is nearly its mean over it.
      const half = radS - (stepS / 2) * (dragNm(radS) / 8);
      radS += up ? 50 * stepS : -stepS * (dragNm(half) / 8);
      if (radS >= 190) up = false;
    }
    const recording = {
      time: Float64Array.from(time),
      channels: [{ name: 'rollerSpeed', unit: 'rad/s', values: Float64Array.from(speed) }],
    };
    const radS = 60 + 100 * random();
    const { low, high } = lossAt(coastDown(recording, drag), radS);
    return low <= dragNm(radS) && dragNm(radS) <= high;
  };
}

/** The mean of a stretch whose reading wanders. */
function stretchHolds(lastsS: number, rateHz: number, wandersS: number) {
  return (seed: number): boolean => {
    const random = chance(seed * 31 + 7);
    const noise = normal(random);
    const wander = wandering(random, 1, wandersS);
    for (let before = 0; before < 10; before++) wander(wandersS);
    const values = Float64Array.from({ length: lastsS * rateHz }, () => 0.93 + wander(1 / rateHz) + 0.5 * noise());
    const { mean, halfWidth } = meanOfSamples(values);
    return Math.abs(mean - 0.93) <= halfWidth;
  };
}

const days: readonly [name: string, DrawnDay][] = [
  ['A A A B B B', { order: 'AAABBB' }],
  ['A B A B A B', { order: 'ABABAB' }],
  ['A A A B', { order: 'AAAB' }],
  ['A B', { order: 'AB' }],
];
const shops = [
  ['no history', false],
  ['history of 20 jobs', true],
] as const;

/** Every kind of interval that is shown, with the histories, machines and noise that it may meet. */
export const coverageCases: readonly CoverageCase[] = [
  ...shops.flatMap(([shop, history]): CoverageCase[] => [
    ...days.flatMap(([name, day]): CoverageCase[] =>
      (['mean', 'peak', 'band'] as const).map((of) => ({
        name: `${of}, ${name}, ${shop}`,
        wanted: of === 'band' ? 'least' : 'about',
        holds: comparisonHolds(of, { ...day, history, plain: true }),
      })),
    ),
    ...(['mean', 'peak', 'band'] as const).map((of): CoverageCase => ({
      name: `${of}, A A A B, B half, as much or twice as noisy, ${shop}`,
      wanted: of === 'band' ? 'least' : 'about',
      holds: comparisonHolds(of, { order: 'AAAB', noisier: 'any', history, plain: true }),
    })),
    ...(
      [
        ['narrow waves of 120 rpm', { waveRpm: 120 }],
        ['waves of 250 rpm as large as the level', { waveRpm: 250, shape: 1 }],
      ] as const
    ).map(([name, shape]): CoverageCase => ({
      name: `band, A A A B B B, scatter in ${name}, ${shop}`,
      wanted: 'least',
      holds: comparisonHolds('band', { order: 'AAABBB', history, plain: true, ...shape }),
    })),
    {
      name: `time to sweep a band, A A A B B B, ${shop}`,
      wanted: 'about',
      holds: sweepTimeHolds({ order: 'AAABBB', history, plain: true }),
    },
    {
      name: `mean, A A A B B B, runs related by 0.6, ${shop}`,
      wanted: 'stated',
      holds: comparisonHolds('mean', { order: 'AAABBB', related: 0.6, history, plain: true }),
    },
    {
      name: `the same with the drift that is reckoned with, ${shop}`,
      wanted: 'stated',
      holds: comparisonHolds('mean', { order: 'AAABBB', related: 0.6, history }),
    },
  ]),
  ...(
    [
      [2, 2],
      [2, 3],
      [8, 2],
    ] as const
  ).map(([cars, mountings]): CoverageCase => ({
    name: `across a mounting, learned from ${cars} cars of ${mountings} mountings`,
    wanted: 'about',
    holds: remountHolds(cars, mountings),
  })),
  ...[0, 0.3, 1].map((wandersS): CoverageCase => ({
    name: `loss of a coast of 36 s, ${wandersS === 0 ? 'white noise' : `speed that wanders for ${wandersS} s`}`,
    wanted: 'about',
    holds: coastHolds(wandersS),
  })),
  ...(
    [
      [3, 50, 0.1],
      [3, 10, 0.1],
      [8, 50, 0.3],
      [20, 10, 1],
      [3, 50, 1],
    ] as const
  ).map(([lastsS, rateHz, wandersS]): CoverageCase => ({
    name: `mean of ${lastsS} s at ${rateHz} Hz, λ that wanders for ${wandersS} s`,
    wanted: wandersS > lastsS / 10 ? 'stated' : 'about',
    holds: stretchHolds(lastsS, rateHz, wandersS),
  })),
];
