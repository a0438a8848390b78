import { compareRuns } from '../core/comparison/comparison.ts';
import { simulatedExperiment, type SimulatedExperiment } from '../core/testing/simulated-experiment.ts';
import type { Figure } from './figure.ts';

const count = 1000;

interface Scenario {
  name: string;
  make: (seed: number) => Partial<SimulatedExperiment>;
  /** Drift and change lie on top of each other: no arithmetic tells them apart; shown for what bracketing is worth. */
  beyond?: boolean;
}

const sizes = (seed: number) => ({ runs: 2 + (seed % 4), otherRuns: 2 + (Math.floor(seed / 4) % 4) });
const pick = <T>(values: readonly T[], seed: number) => values[seed % values.length]!;

/** Scatter 0.4 % of power, three against three, unless said otherwise. */
const scenarios: readonly Scenario[] = [
  { name: 'even scatter', make: () => ({}) },
  { name: '2 to 5 runs a side', make: sizes },
  {
    name: '2 to 5 a side, spreads 0.5 to 2 apart',
    make: (seed) => ({ ...sizes(seed), spreadRatio: pick([0.5, 1, 2], seed) }),
  },
  { name: 'scale alone', make: (seed) => ({ ...sizes(seed), shape: 0.05 }) },
  { name: 'shape above all', make: (seed) => ({ ...sizes(seed), shape: 1.5 }) },
  {
    name: 'all together, drift up to a quarter of the spread a run, baseline repeated or in turn',
    make: (seed) => ({
      ...sizes(seed),
      spreadRatio: pick([1, 1, 1.6, 0.6], seed),
      shape: pick([0.1, 0.7, 1.2], seed),
      drift: pick([0, 0.25, -0.25, 0.1], Math.floor(seed / 3)),
      order: pick(['alternating', 'bracketed'] as const, seed),
    }),
  },
  { name: 'drift of half the spread a run, in turn', make: () => ({ drift: 0.5, order: 'alternating' }) },
  { name: 'drift of half the spread a run, A A A B B B', make: () => ({ drift: 0.5 }), beyond: true },
];

/** Coverage of the intervals, claims where nothing changed, and gains found, over simulated experiments. */
export function experimentRates(): Figure[] {
  const figures = scenarios.flatMap(({ name, make, beyond }): Figure[] => {
    const none = tally(make);
    const some = tally((seed) => ({ ...make(seed), gain: (rpm) => 0.01 + 0.01 * Math.sin(rpm / 900) }));
    return [
      {
        name: `${name}: 95 % intervals hold the true gain`,
        value: (none.covered + some.covered) / 2,
        unit: '% (93 to 97)',
      },
      { name: `${name}: the same with drift taken out`, value: (none.adjusted + some.adjusted) / 2, unit: '%' },
      { name: `${name}: the band holds everywhere`, value: (none.bandHolds + some.bandHolds) / 2, unit: '%' },
      {
        name: `${name}: any claim where nothing changed`,
        value: none.claimed,
        unit: '%',
        ...(beyond ? {} : { budget: 5 }),
      },
    ];
  });
  const found = (make: Scenario['make']) => tally((seed) => ({ ...make(seed), gain: () => 0.015 })).foundGain;
  return [
    ...figures,
    {
      name: 'gain of 1.5 % found, three against three, A A A B B B',
      value: found(() => ({})),
      unit: '% (at least 85)',
    },
    {
      name: 'gain of 1.5 % found, three against three, in turn',
      value: found(() => ({ order: 'alternating' })),
      unit: '% (at least 85)',
    },
  ];
}

function tally(make: Scenario['make']) {
  const rate = { covered: 0, adjusted: 0, bandHolds: 0, claimed: 0, foundGain: 0 };
  for (let seed = 1; seed <= count; seed++) {
    const experiment = simulatedExperiment({ seed, runs: 3, otherRuns: 3, standardDeviation: 0.004, ...make(seed) });
    const { commonRange, ranges, clearStretches, band, fromRpm, toRpm } = compareRuns(
      experiment.test,
      experiment.baseline,
    );
    const truth = experiment.trueGainKw(fromRpm, toRpm);
    const { drift, verdict } = ranges[0]!;
    if (Math.abs(commonRange.difference - truth) <= commonRange.halfWidth) rate.covered++;
    if (drift && Math.abs(drift.adjusted - truth) <= drift.adjustedHalfWidth) rate.adjusted++;
    const { engineSpeedRpm, gain, standardError, criticalT } = band;
    const inside = (kw: number, index: number) =>
      Math.abs(kw - experiment.trueGainKw(engineSpeedRpm[index]!, engineSpeedRpm[index]!)) <=
      criticalT * standardError[index]!;
    if (gain.every(inside)) rate.bandHolds++;
    if (verdict === 'gain' || verdict === 'loss' || clearStretches.length > 0) rate.claimed++;
    if (verdict === 'gain') rate.foundGain++;
  }
  const percent = (value: number) => (100 * value) / count;
  return {
    covered: percent(rate.covered),
    adjusted: percent(rate.adjusted),
    bandHolds: percent(rate.bandHolds),
    claimed: percent(rate.claimed),
    foundGain: percent(rate.foundGain),
  };
}
