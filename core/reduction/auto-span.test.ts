import { describe, expect, test } from '@jest/globals';
import { healthyRun, type Family } from '../testing/families.ts';
import { generatedTruth } from '../testing/generated-run.ts';
import { spanLimits, type Span } from '../smoothing/span.ts';
import { autoSpan } from './auto-span.ts';
import { curveOf } from '../figures/runs/corrected-curve.ts';
import { preparedSweep } from './prepared-sweep.ts';
import type { SweepDrive } from './sweep-drive.ts';
import type { GeneratedRun } from '../testing/pull-options.ts';

const spec = (seed: number, over: Partial<GeneratedRun> = {}): GeneratedRun => ({
  ...healthyRun('petrol-inertia', 1),
  seed,
  feather: undefined,
  stab: undefined,
  ...over,
});

function made(seed: number, over: Partial<GeneratedRun> = {}) {
  const run = spec(seed, over);
  const truth = generatedTruth(run);
  return { truth, sweep: preparedSweep(truth.recording, run.dyno!, run.ratio ?? 3.4) };
}

/** RMS error of a run's curve, % of its peak, over the speeds where the truth is known. */
function errorPercent({ truth, sweep }: ReturnType<typeof made>, spanRpm: Span): number {
  const curve = curveOf(sweep, undefined, { standard: 'none', share: 1, gridRpm: 25, spanRpm });
  let squares = 0;
  let known = 0;
  curve.engineSpeedRpm.forEach((rpm, index) => {
    const kw = truth.powerKw(rpm);
    if (Number.isNaN(kw)) return;
    squares += (curve.uncorrectedPowerKw[index]! - kw) ** 2;
    known++;
  });
  return (100 * Math.sqrt(squares / known)) / curve.peakPower.value;
}

describe('one short run among full ones', () => {
  const full = [made(1), made(2), made(3)];
  const short = made(4, { toRpm: 3000 });
  const sweeps = (runs: readonly { sweep: SweepDrive }[]) => runs.map(({ sweep }) => sweep);

  test.each([
    ['two full ones', full.slice(0, 2)],
    ['three full ones', full],
  ])('does not narrow the smoothing of %s', (_, runs) => {
    const without = autoSpan(sweeps(runs));
    const withShort = autoSpan(sweeps([...runs, short]));
    expect(spanLimits(withShort)[1]).toBeGreaterThanOrEqual(spanLimits(without)[1] / 2);
    for (const run of runs) {
      const ratio = errorPercent(run, withShort) / errorPercent(run, without);
      expect(ratio).toBeLessThan(1.25);
    }
  });

  test('beside one full run: the speeds that only that one reaches are smoothed as it needs', () => {
    const alone = errorPercent(full[0]!, autoSpan([full[0]!.sweep]));
    expect(errorPercent(full[0]!, autoSpan([full[0]!.sweep, short.sweep]))).toBeLessThan(1.25 * alone);
  });

  test('runs that share no speed still have a span', () => {
    const high = made(5, { fromRpm: 4000 });
    const [least, most] = spanLimits(autoSpan([short.sweep, high.sweep]));
    expect(least).toBeGreaterThanOrEqual(60);
    expect(most).toBeLessThanOrEqual(2150);
  });
});

test('the spans that were set against known truths stay as they are: another weight of noise or of steps changes them', () => {
  const spansOf = (family: Family, seed: number) => {
    const run = healthyRun(family, seed);
    const span = autoSpan([preparedSweep(generatedTruth(run).recording, run.dyno!, run.ratio ?? 3.4)]);
    return typeof span === 'number' ? [span] : span.spansRpm;
  };
  expect(spansOf('petrol-inertia', 1)).toEqual([1250, 1250, 950, 720, 550, 720, 950, 950, 720, 1250, 1250, 1250, 1250]);
  expect(spansOf('turbo-loaded', 3)).toEqual([720, 550, 720, 550, 420, 550, 950, 1250, 1250, 1250, 1250, 1250, 1250]);
  expect(spansOf('diesel-loaded', 2)).toEqual([420, 320, 320, 320, 420, 420, 550, 720, 420, 320, 420, 720, 950]);
});
