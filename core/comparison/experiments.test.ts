import { describe, expect, test } from '@jest/globals';
import { simulatedExperiment, type SimulatedExperiment } from '../testing/simulated-experiment.ts';
import { compareRuns } from './comparison.ts';

/** Shares of experiments in which something holds; `npm run bench` does the same with more of them. */
function experiments(count: number, make: (seed: number) => Partial<SimulatedExperiment>) {
  const tally = { covered: 0, bandHolds: 0, claimed: 0, foundGain: 0, adjusted: 0 };
  for (let seed = 1; seed <= count; seed++) {
    const experiment = simulatedExperiment({ seed, runs: 3, otherRuns: 3, standardDeviation: 0.004, ...make(seed) });
    const { commonRange, ranges, clearStretches, band, fromRpm, toRpm } = compareRuns(
      experiment.test,
      experiment.baseline,
    );
    if (Math.abs(commonRange.difference - experiment.trueGainKw(fromRpm, toRpm)) <= commonRange.halfWidth)
      tally.covered++;
    const drift = ranges[0]!.drift!;
    if (Math.abs(drift.adjusted - experiment.trueGainKw(fromRpm, toRpm)) <= drift.adjustedHalfWidth) tally.adjusted++;
    const holds = band.gain.every(
      (gain, index) =>
        Math.abs(gain - experiment.trueGainKw(band.engineSpeedRpm[index]!, band.engineSpeedRpm[index]!)) <=
        band.criticalT * band.standardError[index]!,
    );
    if (holds) tally.bandHolds++;
    const { verdict } = ranges[0]!;
    if (verdict === 'gain' || verdict === 'loss' || clearStretches.length > 0) tally.claimed++;
    if (verdict === 'gain') tally.foundGain++;
  }
  return {
    covered: tally.covered / count,
    adjusted: tally.adjusted / count,
    bandHolds: tally.bandHolds / count,
    claimed: tally.claimed / count,
    foundGain: tally.foundGain / count,
  };
}

const sizes = (seed: number) => ({ runs: 2 + (seed % 4), otherRuns: 2 + (Math.floor(seed / 4) % 4) });

describe('the intervals are true', () => {
  test('2 to 5 runs a side, unequal spread, scatter of scale and shape, a drift with the baseline repeated', () => {
    const found = experiments(240, (seed) => ({
      ...sizes(seed),
      spreadRatio: [1, 1, 1.6, 0.6][seed % 4]!,
      shape: [0.1, 0.7, 1.2][seed % 3]!,
      drift: [0, 0.2, -0.2][seed % 3]!,
      order: seed % 2 ? 'alternating' : 'bracketed',
    }));
    // Bounds two standard errors wider than the bench's, which has five times the experiments.
    expect(found.covered).toBeGreaterThan(0.91);
    expect(found.covered).toBeLessThan(0.99);
    expect(found.bandHolds).toBeGreaterThan(0.92);
    expect(found.claimed).toBeLessThan(0.075);
  });

  test('three against three at 0.4 % spread find a gain of 1.5 % and nothing in nothing', () => {
    expect(experiments(160, () => ({ gain: () => 0.015 })).foundGain).toBeGreaterThan(0.79);
    expect(experiments(240, () => ({})).claimed).toBeLessThan(0.08);
  });

  test('a drift left in blocks makes claims, the adjusted interval still holds, and a return to the baseline cures it', () => {
    const blocks = experiments(120, () => ({ drift: 0.5 }));
    const bracketed = experiments(120, () => ({ drift: 0.5, order: 'bracketed' }));
    expect(blocks.covered).toBeLessThan(0.9);
    expect(blocks.adjusted).toBeGreaterThan(0.9);
    expect(bracketed.claimed).toBeLessThan(0.06);
  });

  test('a gain in part of the range is found where it is, though the mean hides it', () => {
    const bump = (rpm: number) => (rpm > 3000 && rpm < 4500 ? 0.03 : 0);
    let inside = 0;
    let named = 0;
    for (let seed = 1; seed <= 60; seed++) {
      const { test: runs, baseline } = simulatedExperiment({
        seed,
        runs: 3,
        otherRuns: 3,
        standardDeviation: 0.004,
        gain: bump,
      });
      for (const stretch of compareRuns(runs, baseline).clearStretches) {
        named++;
        if (stretch.fromRpm >= 2950 && stretch.toRpm <= 4550 && stretch.verdict === 'gain') inside++;
      }
    }
    expect(named).toBeGreaterThan(35);
    expect(inside / named).toBeGreaterThan(0.9);
  });
});
