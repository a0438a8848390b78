import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { gridBetween } from '../curve/grid.ts';
import { meanDifference } from '../statistics/mean-difference.ts';
import { claimsOf, survives, type ChosenRange } from './claims.ts';
import type { Drift } from './drift.ts';
import type { GainBand } from './gain-band.ts';

/** A range of which only what is decided on counts. */
const range = (pValue: number, difference = 1, drift?: Drift): ChosenRange => ({
  fromRpm: 3000,
  toRpm: 5000,
  difference: { ...meanDifference([1, 2, 3], [1, 2, 3]), pValue, difference },
  drift,
});
const noDrift: Drift = { perRun: 0, halfWidth: 1, pValue: 0.9, adjusted: 1, adjustedHalfWidth: 0.5, apart: 3, separable: true }; // prettier-ignore

/** A band with the same standard error everywhere. */
const band = (gain: (rpm: number) => number, standardError = 0.3): GainBand => {
  const engineSpeedRpm = gridBetween(2000, 6000, 25);
  return {
    engineSpeedRpm,
    gain: engineSpeedRpm.map(gain),
    standardError: engineSpeedRpm.map(() => standardError),
    df: 30,
    kappaRad: 6,
  } as GainBand;
};
/** Beside a band in which nothing is found, which holds its own part of the chance. */
const verdicts = (...ranges: ChosenRange[]) =>
  claimsOf(
    ranges,
    band(() => 0),
  ).verdicts;

describe('the chosen ranges share one chance of a wrong claim', () => {
  test('one range has four fifths of 5 %', () => {
    expect(verdicts(range(0.039))).toEqual(['gain']);
    expect(verdicts(range(0.041))).toEqual(['within repeatability']);
    expect(verdicts(range(0.039, -1))).toEqual(['loss']);
    expect(verdicts(range(NaN))).toEqual(['unknown']);
  });

  test('of two the surer one leaves its part to the other', () => {
    expect(verdicts(range(0.025), range(0.5))).toEqual(['within repeatability', 'within repeatability']);
    expect(verdicts(range(0.015), range(0.5))).toEqual(['gain', 'within repeatability']);
    // Alone it would not do; after a sure one it may use what that one held.
    expect(verdicts(range(0.001), range(0.03, -1))).toEqual(['gain', 'loss']);
  });

  test('more ranges never make more of any one of them', () => {
    const p = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(p, fc.array(p, { maxLength: 4 }), (own, others) => {
        const among = verdicts(range(own), ...others.map((other) => range(other)))[0];
        if (among === 'gain') expect(own).toBeLessThanOrEqual(0.05);
        const claimed = verdicts(...[own, ...others].map((value) => range(value)));
        const [least] = [own, ...others].sort((a, b) => a - b);
        // Nothing is claimed unless the surest claim stands by itself.
        if (claimed.includes('gain')) expect(least).toBeLessThanOrEqual(0.04 / (others.length + 1));
      }),
    );
  });
});

describe('drift', () => {
  test('that might have made a gain withholds it, and every stretch with it', () => {
    const made: Drift = { ...noDrift, pValue: 0.001, adjusted: 0.1, adjustedHalfWidth: 0.5 };
    const claims = claimsOf(
      [range(0.001, 1, made)],
      band(() => 3),
    );
    expect(claims).toEqual({ verdicts: ['drift suspected'], driftSuspected: true, clearStretches: [] });
  });

  test('that is told apart leaves the gain standing; so does none', () => {
    expect(verdicts(range(0.001, 1, { ...noDrift, pValue: 0.001, adjusted: 0.8, adjustedHalfWidth: 0.5 }))).toEqual(['gain']); // prettier-ignore
    expect(verdicts(range(0.001, 1, noDrift))).toEqual(['gain']);
  });

  test('that cannot be told from the change must leave two fifths of it, in its sign', () => {
    const along = (adjusted: number): Drift => ({ ...noDrift, separable: false, adjusted, adjustedHalfWidth: 9 });
    expect(survives(along(0.5), 1)).toBe(true);
    expect(survives(along(0.3), 1)).toBe(false);
    expect(survives(along(-0.5), -1)).toBe(true);
    expect(survives(along(0.9), -1)).toBe(false);
  });
});

describe('clear stretches', () => {
  const bump = (rpm: number) => (rpm > 3000 && rpm < 4000 ? 3 : 0);

  test('are found where the band is clear of zero, and only there', () => {
    const { clearStretches } = claimsOf([range(0.5)], band(bump));
    expect(clearStretches).toHaveLength(1);
    expect(clearStretches[0]).toMatchObject({ verdict: 'gain' });
    expect(clearStretches[0]!.fromRpm).toBeGreaterThanOrEqual(3000);
    expect(clearStretches[0]!.toRpm).toBeLessThanOrEqual(4000);
  });

  test('are none in scatter, none without a spread, none without a band', () => {
    const none = (of: GainBand | undefined) => expect(claimsOf([range(0.5)], of).clearStretches).toEqual([]);
    none(band((rpm) => 0.5 * Math.sin(rpm / 300)));
    none(band(bump, NaN));
    none(undefined);
  });

  test('a claimed range leaves them its chance: fewer standard errors do', () => {
    // Found at the level that a claimed range leaves, not at the fifth that is theirs alone.
    const heights = Array.from({ length: 60 }, (_, index) => 0.6 + index * 0.02);
    const least = (pValue: number) =>
      heights.find((height) => claimsOf([range(pValue)], band((rpm) => (bump(rpm) / 3) * height)).clearStretches.length); // prettier-ignore
    expect(least(0.0001)!).toBeLessThan(least(0.5)!);
  });
});
