import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { gridBetween } from '../curve/grid.ts';
import { meanDifference } from '../statistics/mean-difference.ts';
import { claimsOf, firstVerdict, type ChosenRange, type ClaimRule } from './claims.ts';
import { survivesDrift, usualDrift, type Drift } from './drift.ts';
import type { JudgingRule } from './judging-rule.ts';
import type { GainBand } from './gain-band.ts';

/** A range of which only what is decided on counts. */
const range = (pValue: number, difference = 1, drift?: Drift): ChosenRange => ({
  fromRpm: 3000,
  toRpm: 5000,
  difference: {
    ...meanDifference([1, 2, 3], [1, 2, 3]),
    standardDeviation: 0.2,
    asMeasured: difference,
    pValue,
    plainPValue: pValue,
    difference,
  },
  drift,
});
const noDrift: Drift = {
  perRun: 0,
  halfWidth: 1,
  pValue: 0.9,
  adjusted: 1,
  adjustedHalfWidth: 0.5,
  widening: 2,
  apart: 3,
  separable: true,
  orderScatter: 4,
};

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
const missing = { test: 0, baseline: 0 };
/** A plan that was carried out and nothing beyond. */
const planned: JudgingRule = { kind: 'planned', missing, further: 0 };
const ruleOf = (judging: JudgingRule): ClaimRule => ({ judging, drift: usualDrift, perMean: 2 / 3 });
const rule = ruleOf(planned);

/** Beside a band in which nothing is found, which holds its own part of the chance. */
const verdicts = (...ranges: ChosenRange[]) =>
  claimsOf(
    ranges,
    band(() => 0),
    rule,
  ).verdicts;

describe('the chosen ranges share one chance of a wrong claim', () => {
  test('one range has nine tenths of what a plan has of 5 %', () => {
    expect(verdicts(range(0.042))).toEqual(['gain']);
    expect(verdicts(range(0.043))).toEqual(['within repeatability']);
    expect(verdicts(range(0.042, -1))).toEqual(['loss']);
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
        if (claimed.includes('gain')) expect(least).toBeLessThanOrEqual(0.0423 / (others.length + 1));
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
      rule,
    );
    expect(claims).toEqual({ verdicts: ['drift suspected'], driftSuspected: true, clearStretches: [] });
  });

  test('that is told apart leaves the gain standing; so does none', () => {
    expect(verdicts(range(0.001, 1, { ...noDrift, pValue: 0.001, adjusted: 0.8, adjustedHalfWidth: 0.5 }))).toEqual([
      'gain',
    ]);
    expect(verdicts(range(0.001, 1, noDrift))).toEqual(['gain']);
  });

  test('that cannot be told from the change must leave two fifths of it, in its sign', () => {
    const along = (adjusted: number): Drift => ({
      ...noDrift,
      pValue: 0.01,
      separable: false,
      adjusted,
      adjustedHalfWidth: 9,
    });
    const survives = (drift: Drift, plain: number) => survivesDrift(drift, plain, 0.05, 2 / 3, usualDrift);
    expect(survives(along(0.5), 1)).toBe(true);
    expect(survives(along(0.3), 1)).toBe(false);
    expect(survives(along(-0.5), -1)).toBe(true);
    expect(survives(along(0.9), -1)).toBe(false);
  });

  test('that heat makes is reckoned with beside the interval: a small loss may be heat alone, a gain is not', () => {
    const unbracketed: Drift = { ...noDrift, separable: false };
    const least = (sign: 1 | -1) =>
      Array.from({ length: 80 }, (_, index) => 0.1 * (index + 1)).find((size) =>
        survivesDrift(unbracketed, sign * size, 1, 2 / 3, usualDrift),
      )!;
    expect(least(-1)).toBeGreaterThan(3);
    expect(least(1)).toBe(0.1);
    // After a return, drift is hardly in the way of either.
    const returned: Drift = { ...unbracketed, apart: 0.5, orderScatter: 16 };
    expect(survivesDrift(returned, -2, 1, 2 / 3, usualDrift)).toBe(true);
  });
});

describe('the looks are paid for', () => {
  const verdictOf = (p: number, judging: JudgingRule, pAtCompletion?: number) =>
    firstVerdict([{ ...range(p), pAtCompletion }], ruleOf(judging)).verdict;

  test('without a plan a claim needs a smaller probability than with one', () => {
    expect(verdictOf(0.03, planned)).toBe('gain');
    expect(verdictOf(0.03, { kind: 'every-look', look: 3 })).toBe('within repeatability');
    expect(verdictOf(0.004, { kind: 'every-look', look: 3 })).toBe('gain');
  });

  test('a plan that is not full claims nothing, however clear', () => {
    expect(verdictOf(1e-9, { kind: 'planned', missing: { test: 1, baseline: 0 }, further: 0 })).toBe('plan not full');
  });

  test('going on keeps what the full plan showed and adds nothing for free', () => {
    const goneOn: JudgingRule = { kind: 'planned', missing, further: 2 };
    expect(verdictOf(0.02, goneOn, 0.02)).toBe('gain');
    expect(verdictOf(0.02, goneOn, 0.3)).toBe('within repeatability');
    expect(verdictOf(0.5, goneOn, 0.02)).toBe('within repeatability');
    expect(verdictOf(1e-5, goneOn, 0.3)).toBe('gain');
  });

  test('a default spread claims only what its upper end would, too', () => {
    const assumed = {
      ...range(0.2),
      difference: { ...range(0.2).difference, from: 'assumed' as const, plainPValue: 0.001 },
    };
    expect(firstVerdict([assumed], rule).verdict).toBe('spread assumed');
  });

  test('what its own interval shows is never said to be within repeatability, though nothing is claimed of it', () => {
    // 0.047 is clear of the 5 % of one interval and not of the nine tenths of it that ranges have.
    const at = (p: number, halfWidth: number) => ({ ...range(p), difference: { ...range(p).difference, halfWidth } });
    expect(firstVerdict([at(0.047, 0.98)], rule).verdict).toBe('clear alone');
    expect(firstVerdict([at(0.06, 1.05)], rule).verdict).toBe('within repeatability');
    expect(firstVerdict([at(0.03, 0.9), at(0.5, 2), at(0.6, 2)], rule).verdict).toBe('clear alone');
  });

  test('a card says of the first range what the whole comparison does, at a probability that is called just then', () => {
    const p = fc.double({ min: 0, max: 0.1, noNaN: true });
    fc.assert(
      fc.property(p, fc.array(p, { maxLength: 3 }), fc.boolean(), (own, others, found) => {
        const ranges = [range(own), ...others.map((other) => range(other))] as const;
        const { verdict, paid } = firstVerdict(ranges, rule);
        const whole = claimsOf(
          ranges,
          band(() => (found ? 9 : 0)),
          rule,
        );
        expect(verdict).toBe(whole.verdicts[0]);
        expect(paid <= 0.05).toBe(verdict === 'gain');
      }),
    );
  });
});

describe('clear stretches', () => {
  const bump = (rpm: number) => (rpm > 3000 && rpm < 4000 ? 3 : 0);

  test('are found where the band is clear of zero, and only there', () => {
    const { clearStretches } = claimsOf([range(0.5)], band(bump), rule);
    expect(clearStretches).toHaveLength(1);
    expect(clearStretches[0]).toMatchObject({ verdict: 'gain' });
    expect(clearStretches[0]!.fromRpm).toBeGreaterThanOrEqual(3000);
    expect(clearStretches[0]!.toRpm).toBeLessThanOrEqual(4000);
  });

  test('are none in scatter, none without a spread, none without a band', () => {
    const none = (of: GainBand | undefined) => expect(claimsOf([range(0.5)], of, rule).clearStretches).toEqual([]);
    none(band((rpm) => 0.5 * Math.sin(rpm / 300)));
    none(band(bump, NaN));
    none(undefined);
  });

  test('a claimed range leaves them its chance: fewer standard errors do', () => {
    // Found at the level that a claimed range leaves, not at the tenth that is theirs alone.
    const heights = Array.from({ length: 60 }, (_, index) => 0.6 + index * 0.02);
    const least = (pValue: number) =>
      heights.find(
        (height) =>
          claimsOf(
            [range(pValue)],
            band((rpm) => (bump(rpm) / 3) * height),
            rule,
          ).clearStretches.length,
      );
    expect(least(0.0001)!).toBeLessThan(least(0.5)!);
  });
});
