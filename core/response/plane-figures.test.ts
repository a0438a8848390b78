import { describe, expect, test } from '@jest/globals';
import { gridBetween } from '../curve/grid.ts';
import type { VariedPlane } from './plane.ts';
import { written } from '../sentence/sentence.ts';
import { gentlestSentence, nextSentence } from '../wording/plane-words.ts';
import { planeFigures, type PlaneRuns } from './plane-figures.ts';

const rpm = gridBetween(2500, 6500, 50);
const run = (share: number) => ({ engineSpeedRpm: rpm, values: rpm.map((at) => share * (20 + at / 100)) });
const item = (kind: 'ignition' | 'boost', step: number) => ({
  key: `${kind}/0`,
  item: { kind, by: 0 },
  label: kind,
  unit: kind === 'ignition' ? '°' : 'kPa',
  step,
  startX: 0,
});
const plane = (...at: [u: number, v: number][]): VariedPlane => ({
  key: 'ignition/0+boost/0',
  across: item('ignition', 1),
  down: item('boost', 6),
  setups: at.map(([u, v], index) => ({ id: index + 1, letter: String.fromCharCode(65 + index), u, v })),
});
const runs = (setupId: number, shares: number[], left?: number): PlaneRuns => ({
  setupId,
  runs: shares.map(run),
  headroom: left === undefined ? [] : [{ label: 'Knock retard', left }],
});

describe('figures of a plane', () => {
  test('name the points that are missing, and what is not watched', () => {
    const told = planeFigures(
      plane([0, 0], [1, 0], [0, 2]),
      [runs(1, [1, 1.001], 3), runs(2, [1.01], 2.5), runs(3, [1.02], 2.9)],
      undefined,
      ['Knock retard', 'Boost'],
    )!;
    expect(told.missing).toEqual([
      'a run with ignition and boost changed together',
      'a third level of ignition',
      'a third level of boost',
    ]);
    expect(told.unread).toEqual(['Boost']);
    expect(told.noiseAssumed).toBe(true);
    expect(told.bins.length).toBeGreaterThan(2);
    expect(written(nextSentence(told, told.whole))).toMatch(
      /^ignition [+−]?[\d.]+°, boost \+\d+(\.\d)? kPa: .*One step from what was tried/,
    );
    expect(written(gentlestSentence(told, told.whole))).toMatch(/± \d\.\d % on the beginning/);
    // Each range of speed says what its own setting would cost over the whole.
    for (const { overWhole, gentlest } of told.bins) {
      expect(gentlest.halfWidth).toBeGreaterThan(0);
      expect(overWhole.halfWidth >= 0 && Math.abs(overWhole.value) < 0.05).toBe(true);
    }
  });

  test('a limit that is used up holds the next setting back', () => {
    const points = plane([0, 0], [1, 0], [2, 0], [0, 1], [1, 1]);
    const power = [[1, 1.001], [1.012, 1.013], [1.022], [1.008, 1.009], [1.02]] as const; // prettier-ignore
    const free = planeFigures(
      points,
      power.map((shares, at) => runs(at + 1, [...shares], 3)),
      undefined,
      ['Knock retard'],
    )!;
    const tight = planeFigures(
      points,
      power.map((shares, at) => runs(at + 1, [...shares], 3 - 1.4 * points.setups[at]!.u)),
      undefined,
      ['Knock retard'],
    )!;
    expect(free.whole.next!.u).toBeGreaterThan(tight.whole.next?.u ?? 0);
    expect(tight.whole.best.u).toBeLessThan(2.2);
  });

  test('are none without a run where it began, or without a range in common', () => {
    expect(planeFigures(plane([0, 0], [1, 1]), [runs(2, [1])], undefined, [])).toBeUndefined();
    const low = { engineSpeedRpm: gridBetween(1000, 2000, 50), values: gridBetween(1000, 2000, 50) };
    expect(
      planeFigures(plane([0, 0], [1, 1]), [runs(1, [1]), { setupId: 2, runs: [low], headroom: [] }], undefined, []),
    ).toBeUndefined();
  });
});
