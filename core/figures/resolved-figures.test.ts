import { phrasesText } from '../wording/gain-sentence.ts';
import { describe, expect, test } from '@jest/globals';
import { preparedSweep } from '../reduction/prepared-sweep.ts';
import { generatedRun } from '../testing/generated-run.ts';
import { testDyno, usualTorque } from '../testing/test-car.ts';
import { unknownEngine } from '../log/pull/run-log.ts';
import type { FiguredRun } from './runs/figured-run.ts';
import { resolvedFigures } from './resolved-figures.ts';
import type { ResolvedRequest } from './runs/resolved-request.ts';

const air = { temperatureC: 25, pressureHpa: 1000, relativeHumidityPct: 40 };

/** A run of a setup whose torque is the usual one times a factor. */
function run(id: number, setupId: number, factor: number, over: Partial<FiguredRun> = {}): FiguredRun {
  const letter = 'ABC'[setupId - 1]!;
  return {
    id,
    setupId,
    counted: true,
    sweep: preparedSweep(
      generatedRun({ seed: id, speedNoise: 0.006, drumTorque: (rpm) => factor * usualTorque(rpm) }),
      testDyno,
    ),
    air,
    engine: unknownEngine,
    conditions: {
      label: `${letter}${id}`,
      dyno: testDyno,
      gear: '4th',
      hasAir: true,
      startedAt: new Date(Date.UTC(2026, 4, 4, 9, id)),
    },
    ...over,
  };
}

const setups = [
  { id: 1, letter: 'A' },
  { id: 2, letter: 'B' },
  { id: 3, letter: 'C' },
];
const baselineRuns = [run(1, 1, 0.998), run(2, 1, 1), run(3, 1, 1.002)];
const testRuns = [run(4, 2, 1.028), run(5, 2, 1.03), run(6, 2, 1.032)];
const request = (over: Partial<ResolvedRequest> = {}): ResolvedRequest => ({
  setups,
  baselineId: 1,
  testId: 2,
  againstId: 1,
  settings: { standard: 'sae-j1349', share: 1, spanRpm: 300, gridRpm: 25 },
  powerUnit: 'kW',
  ...over,
});
const sentence = (runs: FiguredRun[], over: Partial<ResolvedRequest> = {}) => {
  const { comparison, noComparison } = resolvedFigures(runs, request(over));
  return comparison ? phrasesText(comparison.sentence) : noComparison;
};

describe('figures of a job', () => {
  const figures = resolvedFigures([...baselineRuns, ...testRuns], request({ bands: [[3000, 4000]], atRpm: 5000 }));

  test('a change of 3 % is found, with an interval that holds it', () => {
    const { commonRange } = figures.comparison!.power;
    const share = commonRange.difference / commonRange.baseline;
    expect(share).toBeCloseTo(0.03, 2);
    expect(commonRange.halfWidth / commonRange.baseline).toBeLessThan(0.02);
    // Four of the runs' own and three of the default's.
    expect(commonRange.df).toBe(7);
    expect(sentence([...baselineRuns, ...testRuns])).toMatch(/^B makes .* kW more than A on average/);
  });

  test('every row carries its figures, and only some a verdict', () => {
    expect(figures.comparison!.rows.map(({ id, quantity, verdict }) => [id, quantity, verdict])).toEqual([
      ['band', 'power', 'gain'],
      ['common', 'power', 'none'],
      ['stretch', 'power', 'gain'],
      ['at-speed', 'power', 'none'],
      ['largest', 'power', 'none'],
      ['peak-power', 'power', 'none'],
      ['torque-band', 'torque', 'gain'],
      ['torque-at-speed', 'torque', 'none'],
      ['peak-torque', 'torque', 'none'],
      ['swept', 'time', 'none'],
    ]);
    for (const row of figures.comparison!.rows) {
      expect(row.difference).toBeCloseTo(row.test - row.baseline, 1);
      expect(row.halfWidth).toBeGreaterThan(0);
    }
  });

  test('setups tell their peak and spread, and their gain on the baseline', () => {
    const [a, b] = figures.setups;
    expect(a!.onBaseline).toBeUndefined();
    expect(a!.runs).toBe(3);
    // Of the band that was asked for, as the sentence is.
    expect(b!.onBaseline!.difference).toEqual(figures.comparison!.power.ranges[0].difference);
    expect(b!.gainKw!).toHaveLength(b!.gainRpm!.length);
    expect(figures.factors![0]).toBeCloseTo(figures.factors![1]!, 12);
  });

  test('a run set aside, or only for conditioning, is drawn but in no figure', () => {
    const odd = run(7, 2, 1.5, { counted: false });
    const withOdd = resolvedFigures([...baselineRuns, ...testRuns, odd], request());
    expect(withOdd.runs).toHaveLength(7);
    expect(withOdd.comparison!.power.commonRange).toEqual(
      resolvedFigures([...baselineRuns, ...testRuns], request()).comparison!.power.commonRange,
    );
  });

  test('a run that no curve can be made of is listed with its reason and stops nothing else', () => {
    const whole = run(12, 2, 1.03);
    const stub = { ...whole, sweep: { ...whole.sweep, endRpm: whole.sweep.startRpm + 10 } };
    const withStub = resolvedFigures([...baselineRuns, ...testRuns, stub], request());
    expect(withStub.unusable).toMatchObject([
      { id: 12, label: 'B12', fault: 'recording', why: expect.stringMatching(/too short for a curve/) },
    ]);
    expect(withStub.comparison!.rows).toEqual(
      resolvedFigures([...baselineRuns, ...testRuns], request()).comparison!.rows,
    );
  });

  test('the spread of other setups sharpens the interval', () => {
    const third = [run(8, 3, 0.999), run(9, 3, 1.001), run(10, 3, 1)];
    const { commonRange } = resolvedFigures([...baselineRuns, ...testRuns, ...third], request()).comparison!.power;
    expect(commonRange.df).toBe(9);
  });

  test('one run a side has an interval that rests on the usual spread, assumed', () => {
    const [first] = resolvedFigures([baselineRuns[0]!, testRuns[0]!], request()).comparison!.power.ranges;
    expect(first.difference).toMatchObject({ from: 'assumed', df: 3, borrowsSpread: true });
    expect(first.difference.halfWidth).toBeLessThan(0.05 * first.difference.baseline);
    const learned = { spread: { share: 0.003, df: 40, from: 'learned' as const } };
    const known = resolvedFigures([baselineRuns[0]!, testRuns[0]!], request({ learned })).comparison!;
    expect(known.power.ranges[0].difference.from).toBe('learned');
    expect(known.power.ranges[0].difference.halfWidth).toBeLessThan(first.difference.halfWidth);
  });

  test('a band outside the runs has no row of its own, and the sentence says that it is not covered', () => {
    const { rows } = resolvedFigures([...baselineRuns, ...testRuns], request({ bands: [[1000, 3000]] })).comparison!;
    expect(rows.map((row) => row.id)).not.toContain('band');
    expect(sentence([...baselineRuns, ...testRuns], { bands: [[1000, 3000]] })).toMatch(
      /1,000 to 3,000 rpm is not covered: the runs begin at 2,350 rpm\.$/,
    );
  });

  test('nothing to compare with, or with itself, is said', () => {
    expect(sentence(baselineRuns)).toMatch(/no counted run yet/);
    expect(sentence(testRuns)).toMatch(/baseline has no counted run/);
    expect(sentence(baselineRuns, { testId: 1 })).toMatch(/^A stands by itself/);
  });

  test('runs that are not alike get figures and no verdict', () => {
    const uncorrected = [
      run(11, 2, 1.03, { air: undefined, conditions: { ...testRuns[0]!.conditions, hasAir: false, label: 'B11' } }),
      testRuns[1]!,
    ];
    expect(sentence([...baselineRuns, ...uncorrected])).toMatch(/not like for like, .*: no verdict/);
  });

  test('a share of the correction lies between none and all', () => {
    const mean = (share: number) =>
      resolvedFigures([...baselineRuns, ...testRuns], request({ settings: { ...request().settings, share } }))
        .comparison!.power.commonRange.test;
    expect(mean(0.5)).toBeCloseTo((mean(0) + mean(1)) / 2, 6);
  });

  test('a setup’s later runs against its earlier ones: figures, labels, and nothing claimed', () => {
    const four = [...baselineRuns, run(13, 1, 1.001)];
    const { comparison } = resolvedFigures(
      four,
      request({ testId: 1, againstId: 1, testRuns: [3, 13], againstRuns: [1, 2] }),
    );
    expect(phrasesText(comparison!.sentence)).toMatch(/^A3, A13 is within repeatability of A1, A2/);
    expect(comparison!.power.clearStretches).toEqual([]);
    expect(comparison!.rows.every((row) => row.verdict !== 'gain' && row.verdict !== 'loss')).toBe(true);
  });

  test('swapping the two sides flips every sign and no verdict’s strength', () => {
    const all = [...baselineRuns, ...testRuns];
    const there = resolvedFigures(all, request({ bands: [[3000, 4000]] })).comparison!;
    const back = resolvedFigures(all, request({ testId: 1, againstId: 2, bands: [[3000, 4000]] })).comparison!;
    there.rows.forEach((row, index) => {
      expect(back.rows[index]!.difference).toBeCloseTo(-row.difference, 9);
      expect(back.rows[index]!.halfWidth).toBeCloseTo(
        row.halfWidth,
        row.id === 'stretch' || row.id === 'largest' ? 3 : 9,
      );
    });
    expect(Array.from(back.power.gain)).toEqual(Array.from(there.power.gain, (kw) => expect.closeTo(-kw, 9)));
    expect(back.power.ranges[0]!.verdict).toBe('loss');
  });

  test('time to sweep a band: 3 % more torque takes 3 % less time; where a dyno sets the pace nothing is said of it', () => {
    const of = (runs: FiguredRun[]) =>
      resolvedFigures(runs, request({ bands: [[3000, 5000]] })).comparison!.rows.find(({ id }) => id === 'swept');
    const swept = of([...baselineRuns, ...testRuns])!;
    expect(swept.quantity).toBe('time');
    expect(swept.difference / swept.baseline).toBeGreaterThan(-0.036);
    expect(swept.difference / swept.baseline).toBeLessThan(-0.022);
    expect(swept.halfWidth).toBeGreaterThan(0);
    const loaded = [...baselineRuns, ...testRuns].map((run) => ({
      ...run,
      conditions: { ...run.conditions, dyno: { ...testDyno, kind: 'loaded-roller' as const } },
    }));
    expect(of(loaded)).toBeUndefined();
  });

  test('the stretches that are clear of scatter stand in the table; a peak at the end of the range is reached by nobody', () => {
    const { rows, power } = figures.comparison!;
    const stretches = rows.filter(({ id }) => id === 'stretch');
    expect(stretches.map(({ fromRpm }) => fromRpm)).toEqual(
      power.clearStretches.slice(0, 3).map(({ fromRpm }) => fromRpm),
    );
    for (const stretch of stretches) expect(stretch.test - stretch.baseline).toBeCloseTo(stretch.difference, 6);
    expect(rows.some(({ id }) => id === 'reaches-peak')).toBe(false);
  });

  test('estimated for the crank everything grows by the loss, and says so; the wheels’ peaks stay', () => {
    const crank = { from: 'assumed', share: 0.15, fixedKw: 0 } as const;
    const all = [...baselineRuns, ...testRuns];
    const wheels = resolvedFigures(all, request());
    const atCrank = resolvedFigures(all, request({ settings: { ...request().settings, crank } }));
    const mean = (figures: typeof wheels) => figures.comparison!.power.commonRange;
    expect(mean(atCrank).difference).toBeCloseTo(mean(wheels).difference / 0.85, 9);
    expect(mean(atCrank).halfWidth / (mean(wheels).halfWidth / 0.85)).toBeCloseTo(1, 2);
    expect(atCrank.runs[0]!.curve.peakTorque.value).toBeCloseTo(wheels.runs[0]!.curve.peakTorque.value / 0.85, 6);
    expect(atCrank.runs[0]!.curve.wheelPeaks).toEqual(wheels.runs[0]!.curve.wheelPeaks);
    expect(atCrank.estimate).toBe('15 % lost, assumed');
    expect(sentence(all, { settings: { ...request().settings, crank } })).toMatch(
      /Estimated for the crank: 15 % lost, assumed\.$/,
    );
    expect(wheels.estimate).toBeUndefined();
  });

  test('what the runs can show: the smallest change has the allowances that the interval has', () => {
    const { detectable, power } = resolvedFigures([...baselineRuns, ...testRuns], request()).comparison!;
    const { halfWidth, standardError } = power.ranges[0].difference;
    expect(detectable!.leastSignificantKw).toBe(halfWidth);
    // Seven degrees of freedom: found four times in five beyond 0.896 standard errors more.
    expect((detectable!.smallestDetectableKw - halfWidth) / standardError).toBeCloseTo(0.896, 3);
  });

  test('several steps between the setups are listed, and the gain given to them together', () => {
    const words = { kind: 'words', name: 'something' } as const;
    const chain = [
      { id: 1, letter: 'A', parentId: null, change: '' },
      { id: 2, letter: 'B', parentId: 1, change: 'ignition +1.5°', items: [words] },
      { id: 3, letter: 'C', parentId: 2, change: 'other filter and plugs', items: [words, words] },
    ];
    const third = [run(14, 3, 1.03), run(15, 3, 1.031)];
    const all = [...baselineRuns, ...testRuns, ...third];
    const ids = (over: Partial<ResolvedRequest>) =>
      resolvedFigures(all, request({ setups: chain, ...over })).comparison!.unlike.map(({ id }) => id);
    expect(ids({})).not.toContain('several-items');
    expect(ids({ testId: 3, againstId: 1 })).toContain('several-items');
    expect(ids({ testId: 3, againstId: 2 })).toContain('several-items');
  });

  test('a start in another heat is marked on the run and among the differences', () => {
    const warm = (run: FiguredRun, oilTemperature: number): FiguredRun => ({
      ...run,
      conditions: { ...run.conditions, startTemperatures: { oilTemperature } },
    });
    const all = [
      ...baselineRuns.map((run) => warm(run, 85)),
      ...testRuns.map((run, index) => warm(run, 86 + 8 * index)),
    ];
    const { comparison, runs } = resolvedFigures(all, request());
    expect(comparison!.unlike.map(({ id }) => id)).toContain('heat-state');
    expect(
      runs.filter((run) => run.curve.checks.some(({ id }) => id === 'start-temperature')).map(({ id }) => id),
    ).toEqual([5, 6]);
  });

  test('days apart: no verdict, until the car was mounted twice in one setup and its spread is known', () => {
    const onDay = (run: FiguredRun, day: number): FiguredRun => ({
      ...run,
      conditions: { ...run.conditions, startedAt: new Date(Date.UTC(2026, 4, 4 + day, 9, run.id)) },
    });
    const later = testRuns.map((run) => onDay(run, 1));
    expect(sentence([...baselineRuns, ...later])).toMatch(/not like for like/);
    const returned = [run(16, 1, 1.001), run(17, 1, 1.003)].map((run) => onDay(run, 1));
    const known = resolvedFigures([...baselineRuns, ...returned, ...later], request()).comparison!;
    expect(known.unlike.find(({ id }) => id === 'remount')!.severity).toBe('note');
    expect(known.withheld).toBe(false);
    const wide = known.power.commonRange.halfWidth;
    expect(wide).toBeGreaterThan(0);
    expect(phrasesText(known.sentence)).not.toContain('not like for like');
  });
});

test('the ladder and the response are made where they are asked for, and only there', () => {
  const item = { kind: 'ignition' as const, by: 2 };
  const line = [
    { id: 1, letter: 'A', parentId: null, items: [] },
    { id: 2, letter: 'B', parentId: 1, change: 'ignition +2°', items: [item] },
    { id: 3, letter: 'C', parentId: 2, change: 'ignition +2°', items: [item] },
  ];
  const runs = [...baselineRuns, ...testRuns, run(7, 3, 1.033), run(8, 3, 1.035)];
  const asked = (beside?: ResolvedRequest['beside']) =>
    resolvedFigures(runs, request({ setups: line, testId: 3, beside }));
  expect(asked()).not.toHaveProperty('attribution');
  expect(asked()).not.toHaveProperty('response');
  const { attribution } = asked('steps');
  expect(attribution!.steps.map(({ letter }) => letter)).toEqual(['A', 'B', 'C']);
  const { response, varied } = asked('response');
  expect(varied).toEqual([{ key: 'ignition/0', label: 'ignition', levels: 3 }]);
  expect(response!.found.levels).toMatchObject([
    { x: 0, letters: 'A', runs: 3 },
    { x: 2, letters: 'B', runs: 3 },
    { x: 4, letters: 'C', runs: 2 },
  ]);
});
