import { describe, expect, test } from '@jest/globals';
import { families, healthyRun } from '../../testing/families.ts';
import { generatedTruth } from '../../testing/generated-run.ts';
import { curveOf } from './corrected-curve.ts';
import { preparedSweep } from '../../reduction/prepared-sweep.ts';
import { resolvedSpan } from '../../reduction/auto-span.ts';
import type { GeneratedRun } from '../../testing/pull-options.ts';

const view = { standard: 'none', share: 1, gridRpm: 25 } as const;

/** Reduces a generated run with auto smoothing and tells how it differs from its truth. */
function errors(spec: GeneratedRun) {
  const truth = generatedTruth(spec);
  const sweep = preparedSweep(truth.recording, spec.dyno!, spec.ratio ?? 3.4);
  const curve = curveOf(sweep, undefined, { ...view, spanRpm: resolvedSpan('auto', [sweep]) });
  let squares = 0;
  let known = 0;
  let top = 0;
  curve.engineSpeedRpm.forEach((rpm, index) => {
    const kw = truth.powerKw(rpm);
    if (Number.isNaN(kw)) return;
    known++;
    top = Math.max(top, kw);
    squares += (curve.uncorrectedPowerKw[index]! - kw) ** 2;
  });
  const { startS, endS, liftSeen } = sweep.sweep;
  return {
    rmsPercent: (100 * Math.sqrt(squares / known)) / top,
    peakPercent: 100 * Math.abs(curve.peakPower.value / top - 1),
    lateS: startS - truth.openedS,
    earlyS: truth.liftedS - endS,
    liftSeen,
    curve,
    truth,
  };
}

describe.each(families)('%s', (family) => {
  test('other rates, noises, shapes, drivers: the true power within 0.25 % of the peak, the sweep and nothing else', () => {
    for (let seed = 101; seed <= 106; seed++) {
      const { rmsPercent, peakPercent, lateS, earlyS, liftSeen } = errors(healthyRun(family, seed));
      expect({ seed, rmsPercent: rmsPercent < 0.25, peakPercent: peakPercent < 0.6 }).toEqual({
        seed,
        rmsPercent: true,
        peakPercent: true,
      });
      expect(liftSeen).toBe(true);
      expect(lateS).toBeGreaterThan(0.1);
      expect(lateS).toBeLessThan(1.45);
      expect(earlyS).toBeGreaterThan(-0.03);
      expect(earlyS).toBeLessThan(0.25);
    }
  });
});

describe('details', () => {
  const bell = (rpm: number, at: number, width: number) => Math.exp(-4 * Math.LN2 * ((rpm - at) / width) ** 2);

  test.each([
    [230, 0.9],
    [140, 0.85],
  ])('a dip %d rpm wide keeps %d of its depth under auto', (width, least) => {
    let kept = 0;
    for (let seed = 1; seed <= 4; seed++) {
      const spec = healthyRun('turbo-loaded', seed);
      const { drumTorque } = spec;
      const depth = 0.07;
      const { curve, truth } = errors({
        ...spec,
        drumTorque: (rpm) => drumTorque!(rpm) * (1 - depth * bell(rpm, 4800, width)),
      });
      const at = curve.engineSpeedRpm.indexOf(4800);
      kept += (1 - (curve.uncorrectedPowerKw[at]! * (1 - depth)) / truth.powerKw(4800)) / depth / 4;
    }
    expect(kept).toBeGreaterThan(least);
  });

  test.each([
    ['a fuel cut', { fuelCut: { atRpm: 4300, lastsS: 0.15 } }],
    ['a long fuel cut', { fuelCut: { atRpm: 4300, lastsS: 0.4 } }],
    ['a lift of half the throttle', { letOff: { atRpm: 4300, share: 0.5, lastsS: 0.4 } }],
  ])('%s is not smeared into its neighbours', (_, faults) => {
    const { curve, truth } = errors({
      speedNoise: 0.012,
      seed: 5,
      dyno: healthyRun('petrol-inertia', 1).dyno!,
      faults,
    });
    const top = Math.max(...curve.uncorrectedPowerKw);
    const off = curve.engineSpeedRpm.filter(
      (rpm, index) => Math.abs(curve.uncorrectedPowerKw[index]! - truth.powerKw(rpm)) > 0.015 * top,
    );
    expect(curve.sweep.endRpm).toBeGreaterThan(6400);
    expect(off.every((rpm) => rpm >= 4250 && rpm <= 4425)).toBe(true);
  });

  test('a limp mode is not smeared to its right and left', () => {
    for (const seed of [31, 32, 33]) {
      const spec = {
        ...healthyRun('diesel-loaded', seed),
        feather: undefined,
        rampRpmPerS: 220,
        faults: { limp: { fromRpm: 3300, overRpm: 150, share: 0.5 } },
      };
      const { curve, truth } = errors(spec);
      const top = curve.peakPower.value;
      const beside = Array.from(curve.engineSpeedRpm).flatMap((rpm, index) => {
        const kw = truth.powerKw(rpm);
        return Number.isNaN(kw) || (rpm > 3275 && rpm < 3475) ? [] : [(curve.uncorrectedPowerKw[index]! - kw) / top];
      });
      const rms = 100 * Math.sqrt(beside.reduce((sum, error) => sum + error ** 2, 0) / beside.length);
      expect(rms).toBeLessThan(0.12);
    }
  });

  test('a limp mode that eases in and out is followed: its corners are not taken for sharp ones', () => {
    // Half a wave of a cosine, while the fit's own corners are logistic: 10 to 90 % of the fall over so much, rpm.
    for (const softRpm of [80, 120, 200]) {
      for (const seed of [31, 32, 33]) {
        const spec: GeneratedRun = { ...healthyRun('diesel-hub', seed), feather: undefined };
        const fromRpm = 0.4 * spec.fromRpm! + 0.6 * spec.toRpm!;
        spec.faults = { limp: { fromRpm, overRpm: 60, share: 0.5, softRpm } };
        const { curve, truth } = errors(spec);
        const top = Math.max(...Array.from(curve.engineSpeedRpm, (rpm) => truth.powerKw(rpm) || 0));
        const off = Array.from(curve.engineSpeedRpm, (rpm, index) =>
          rpm > spec.toRpm! - 150 ? 0 : Math.abs(curve.uncorrectedPowerKw[index]! - truth.powerKw(rpm)) / top,
        );
        expect({ softRpm, seed, worst: Math.max(...off) < 0.01 }).toEqual({ softRpm, seed, worst: true });
      }
    }
  });

  test('a limiter ends the sweep where it bites', () => {
    const { curve } = errors({
      speedNoise: 0.012,
      dyno: healthyRun('petrol-inertia', 1).dyno!,
      faults: { limiter: { atRpm: 6000, lastsS: 1 } },
    });
    expect(curve.sweep.endRpm).toBeGreaterThan(5900);
    expect(curve.sweep.endRpm).toBeLessThan(6050);
    expect(curve.uncorrectedPowerKw.at(-1)! / curve.peakPower.value).toBeGreaterThan(0.9);
  });

  test('a throttle opened halfway first is left out', () => {
    const spec = { ...healthyRun('petrol-inertia', 2), throttle: false };
    const { lateS } = errors({ ...spec, feather: { share: 0.5, lastsS: 0.8 } });
    expect(lateS).toBeGreaterThan(0.1);
  });
});
