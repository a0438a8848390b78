import { describe, expect, test } from '@jest/globals';
import { inspectionList, withinTolerance } from '../inspection/inspection-lists.ts';
import { headroom } from '../limits/limit.ts';
import { limitSuggestions } from '../limits/suggestions.ts';
import { waitingFor, type JobProgress } from './waiting.ts';

describe('what a job is waiting for', () => {
  const begun: JobProgress = {
    state: 'open',
    pausedFor: null,
    pausedWhy: '',
    question: 'Does it pay?',
    baselineRuns: 0,
    newestLetter: 'A',
    newestRuns: 0,
    newestDecided: false,
    setups: 1,
    failedInspection: 0,
    delivered: false,
    withTuner: false,
  };
  test.each<[Partial<JobProgress>, string]>([
    [{ question: '' }, 'its question'],
    [{}, 'its baseline'],
    [{ failedInspection: 1 }, 'a repair: 1 failed in the inspection'],
    [{ baselineRuns: 2 }, 'baseline, 2 of 3 runs'],
    [{ baselineRuns: 3 }, 'a first change'],
    [{ baselineRuns: 3, setups: 2, newestLetter: 'B' }, 'runs of B'],
    [{ baselineRuns: 3, setups: 2, newestLetter: 'B', newestRuns: 3 }, 'a decision on B'],
    [{ baselineRuns: 3, setups: 2, newestRuns: 3, newestDecided: true }, 'the next change, or delivery'],
    [{ baselineRuns: 3, withTuner: true }, 'a file from the tuner'],
    [{ state: 'paused', pausedFor: 'part', pausedWhy: 'a pump, ordered' }, 'a part (a pump, ordered)'],
    [{ state: 'paused', pausedFor: 'collection' }, 'being collected'],
    [{ state: 'paused', pausedWhy: 'the weather' }, 'the weather'],
    [{ state: 'closed', delivered: true }, 'delivered'],
  ])('%j', (progress, words) => expect(waitingFor({ ...begun, ...progress })).toBe(words));
});

describe('inspection', () => {
  test('the list follows dyno, fuel and engine', () => {
    const keys = (facts: Partial<Parameters<typeof inspectionList>[0]>) =>
      inspectionList({ dyno: 'inertia-roller', ignition: 'spark', boosted: false, alcohol: false, ...facts }).map(
        ({ key }) => key,
      );
    expect(keys({})).toContain('straps');
    expect(keys({})).not.toContain('hub-bolts');
    expect(keys({ dyno: 'hub' })).not.toContain('tyre-pressure');
    expect(keys({ ignition: 'compression' })).toContain('air-shut-off');
    expect(keys({ ignition: 'compression' })).not.toContain('plugs');
    expect(keys({ alcohol: true })).toContain('alcohol-care');
    expect(new Set(keys({ boosted: true })).size).toBe(keys({ boosted: true }).length);
  });
  test('an electric drive has no oil, plugs, fuel or exhaust to look at, and a high voltage', () => {
    const facts = { dyno: 'hub', boosted: true, alcohol: true } as const;
    const items = inspectionList({ ...facts, ignition: 'electric' });
    const words = items.map(({ text }) => text).join('; ');
    expect(words).not.toMatch(/\boil\b|plugs|fuel|filter|boost|λ|extraction|monoxide|limiter|alcohol/i);
    expect(items.map(({ key }) => key)).toEqual(
      expect.arrayContaining(['high-voltage', 'state-of-charge', 'hub-bolts', 'extinguisher', 'put-loggers']),
    );
    for (const ignition of ['spark', 'compression', null] as const)
      expect(inspectionList({ ...facts, ignition }).map(({ key }) => key)).not.toContain('high-voltage');
  });
  test('a measured value against its tolerance', () => {
    expect(withinTolerance(12.6, { unit: 'V', low: 12.4, high: 14.8 })).toBe(true);
    expect(withinTolerance(11.9, { unit: 'V', low: 12.4 })).toBe(false);
  });
});

describe('limits', () => {
  test('headroom is positive while a limit is kept, on either side', () => {
    expect(headroom({ quantity: 'boost', value: 120, scale: null }, 110)).toBe(10);
    expect(headroom({ quantity: 'fuelPressure', value: 300, scale: null }, 290)).toBe(-10);
    expect(headroom({ quantity: 'torque', value: 200, scale: 'wheels' }, 180)).toBe(20);
  });
  test('a limit on the crank is not compared with a wheel figure unless the loss is stated', () => {
    expect(headroom({ quantity: 'torque', value: 200, scale: 'crank' }, 180)).toBeUndefined();
    expect(headroom({ quantity: 'torque', value: 200, scale: 'crank' }, 150, 0.15)).toBeCloseTo(20, 9);
  });
  test('a diesel is not judged by petrol limits, and fuel moves the lean limit', () => {
    const names = (facts: Parameters<typeof limitSuggestions>[0]) =>
      limitSuggestions(facts).map((suggestion) => suggestion.quantity);
    expect(names({ ignition: 'compression', boosted: true, ethanolPct: null })).not.toContain('lambda');
    expect(names({ ignition: 'electric', boosted: false, ethanolPct: null })).toEqual([]);
    const lean = (ethanolPct: number) =>
      limitSuggestions({ ignition: 'spark', boosted: true, ethanolPct }).find(
        (suggestion) => suggestion.quantity === 'lambda',
      )!.value;
    expect(lean(85)).toBeGreaterThan(lean(5));
  });
});
