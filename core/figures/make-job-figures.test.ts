import { describe, expect, test } from '@jest/globals';
import type { Recording } from '../recording/recording.ts';
import { generatedRun } from '../testing/generated-run.ts';
import { testDyno, usualTorque } from '../testing/test-car.ts';
import { missedBands } from '../judgement/pair-judgement.ts';
import { judgedElsewhereWords, otherRangeWords } from '../wording/coverage-words.ts';
import { phrasesText } from '../wording/gain-sentence.ts';
import { jobClaimWords, nextRunWords } from '../wording/judgement-words.ts';
import { jobHeadline } from './job-headline.ts';
import { headroomOf } from './runs/limits-of-runs.ts';
import { curveOfRun, loneRun, runsBehindCurve } from './curve-of-run.ts';
import type { FiguresView } from './request/figures-request.ts';
import type { JobRecord, RunRecord } from './request/job-record.ts';
import { makeJobFigures, neededRuns } from './make-job-figures.ts';
import { readingOf, type Reading } from './runs/reading.ts';
import type { GeneratedRun } from '../testing/pull-options.ts';

const air = { temperatureC: 25, pressureHpa: 1000, relativeHumidityPct: 40 };
const recordings = new Map<number, Recording>();

/** A run whose torque is the usual one times a factor. */
function run(
  id: number,
  setupId: number,
  factor: number,
  over: Partial<RunRecord> = {},
  pull: GeneratedRun = {},
): RunRecord {
  recordings.set(
    id,
    generatedRun({ seed: id, speedNoise: 0.006, drumTorque: (rpm) => factor * usualTorque(rpm), ...pull }),
  );
  return {
    id,
    setupId,
    label: `${'ABC'[setupId - 1]}${id}`,
    kind: 'power',
    state: 'sealed',
    setAsideReason: null,
    startedAt: new Date(Date.UTC(2026, 4, 4, 9, id)).toISOString(),
    dyno: testDyno,
    gear: '4th',
    engineToDrumRatio: null,
    air,
    airTakenAt: null,
    fuel: null,
    startTemperatures: {},
    ...over,
  };
}

const light = { ...testDyno, inertiaKgM2: 8 };
const coast = run(
  20,
  1,
  1,
  { kind: 'coast-down', label: 'A20', dyno: light },
  { dyno: light, rateHz: 50, coastS: 30, drumTorque: () => 200, speedNoise: 0.01 },
);
const usualRuns = [
  run(1, 1, 1),
  run(2, 1, 1.002),
  run(3, 1, 0.998),
  run(4, 2, 1.03),
  run(5, 2, 1.032),
  run(6, 2, 1.028),
];
const job = (over: Partial<JobRecord> = {}): JobRecord => ({
  vehicle: 'Test car',
  ignition: 'spark',
  setups: [
    { id: 1, letter: 'A' },
    { id: 2, letter: 'B', parentId: 1, change: 'ignition +1°', items: [{ kind: 'ignition', by: 1 }] },
    { id: 3, letter: 'C', parentId: 2, change: 'never run', items: [] },
  ],
  runs: usualRuns,
  baseline: null,
  ...over,
});
const view = (over: Partial<FiguresView> = {}): FiguresView => ({
  standard: 'sae-j1349',
  share: 1,
  smoothing: 300,
  powerUnit: 'kW',
  ...over,
});
const readingsOf = (runs: readonly RunRecord[]) =>
  new Map<number, Reading>(runs.map((run) => [run.id, readingOf(run, recordings.get(run.id)!)]));
const figuresOf = (over: Partial<JobRecord> = {}, how: Partial<FiguresView> = {}) => {
  const request = { job: job(over), view: view(how) };
  return makeJobFigures(request, readingsOf(neededRuns(request)));
};

describe('what nobody chose', () => {
  test('is the first setup as baseline, the newest that ran against its parent', () => {
    const figures = figuresOf();
    expect(figures.sides).toEqual({ baselineId: 1, testId: 2, againstId: 1 });
    expect(figures.comparison!.compared).toEqual({ test: [4, 5, 6], baseline: [1, 2, 3] });
  });

  test('is the frozen baseline, with the runs on its list', () => {
    const figures = figuresOf({ baseline: { setupId: 2, runIds: [4, 6] } });
    expect(figures.sides.baselineId).toBe(2);
    expect(figures.setups.find(({ setupId }) => setupId === 2)!.runs).toBe(2);
    expect(figures.setups.find(({ setupId }) => setupId === 1)!.onBaseline!.difference.difference).toBeLessThan(0);
  });

  test('are the bands of the brief, all of them, until a view asks for others or for none', () => {
    const bands = [
      { fromRpm: 3000, toRpm: 4000 },
      { fromRpm: 4500, toRpm: 5500 },
    ];
    const judged = (how: Partial<FiguresView>) =>
      figuresOf({ bands }, how).comparison!.power.ranges.map(({ fromRpm, toRpm }) => [fromRpm, toRpm]);
    expect(judged({})).toEqual([
      [3000, 4000],
      [4500, 5500],
    ]);
    expect(judged({ bands: [[3500, 4500]] })).toEqual([[3500, 4500]]);
    const [common] = judged({ bands: [] });
    expect(common![0]).toBeLessThan(3000);
    // The cards judge what Compare judges.
    const card = figuresOf({ bands }).setups.find(({ setupId }) => setupId === 2)!.onBaseline!;
    expect([card.fromRpm, card.toRpm]).toEqual([3000, 4000]);
  });

  test('a frozen list holds only while its setup is the baseline', () => {
    const figures = figuresOf({ baseline: { setupId: 2, runIds: [4] } }, { baselineId: 1 });
    expect(figures.setups.find(({ setupId }) => setupId === 2)!.runs).toBe(3);
  });
});

describe('the spread that a baseline was frozen with', () => {
  const spread = { share: 0.009, df: 12, repeats: 20 };
  const learned = { spread: { share: 0.002, df: 30, from: 'learned' as const, repeats: 60 } };
  const from = (baseline: JobRecord['baseline'], how: Partial<FiguresView> = {}) => {
    const request = { job: job({ baseline }), view: view(how), learned };
    return makeJobFigures(request, readingsOf(neededRuns(request))).spread;
  };

  test('holds while it is in force, whatever the shop has learned since', () => {
    expect(from({ setupId: 1, runIds: [1, 2, 3], spread })).toEqual({ ...spread, from: 'learned' });
    expect(from({ setupId: 1, runIds: [1, 2, 3], spread: null })).toEqual(learned.spread);
    expect(from({ setupId: 1, runIds: [1, 2, 3], spread }, { baselineId: 2 })).toEqual(learned.spread);
  });
});

describe('automatic smoothing', () => {
  test('comes from the baseline’s counted runs, whatever else was recorded', () => {
    const alone = figuresOf({}, { smoothing: 'auto' }).spanRpm;
    const notched = (rpm: number) => usualTorque(rpm) * (1 - 0.3 * Math.exp(-(((rpm - 4000) / 60) ** 2)));
    const wild = run(7, 2, 1, {}, { drumTorque: notched });
    const aside = run(8, 1, 1, { setAsideReason: 'slipped' }, { drumTorque: notched });
    expect(figuresOf({ runs: [...job().runs, wild, aside] }, { smoothing: 'auto' }).spanRpm).toEqual(alone);
  });

  test('is the same for a run by itself as in the job’s figures', () => {
    const whole = job();
    const fifthRun = whole.runs[4]!;
    const how = view({ smoothing: 'auto' });
    const behind = runsBehindCurve(whole, fifthRun, how);
    expect(behind.map(({ id }) => id)).toEqual([5, 1, 2, 3]);
    const inJob = makeJobFigures({ job: whole, view: how }, readingsOf(neededRuns({ job: whole, view: how })));
    expect(curveOfRun(whole, fifthRun, how, readingsOf(behind))).toEqual(inJob.runs.find(({ id }) => id === 5)!.curve);
  });
});

describe('an estimate for the crank', () => {
  test('rests on an assumed loss, or on a coast-down of the job, whose recording is asked for', () => {
    const runs = [...job().runs, coast];
    expect(neededRuns({ job: { runs }, view: {} }).map(({ id }) => id)).not.toContain(20);
    expect(neededRuns({ job: { runs }, view: { crank: 'A20' } }).map(({ id }) => id)).toContain(20);
    const wheels = figuresOf({ runs }).setups[0]!.peakKw;
    const assumed = figuresOf({ runs }, { crank: '10' });
    expect(assumed.estimate).toMatch(/10 % lost, assumed/);
    expect(assumed.setups[0]!.peakKw).toBeCloseTo(wheels / 0.9, 6);
    const measured = figuresOf({ runs }, { crank: 'A20' });
    expect(measured.estimate).toMatch(/coast-down A20/);
  });

  test.each([
    ['A99', {}, /no coast-down A99/],
    ['A20', { runs: [...job().runs, run(21, 1, 1, { kind: 'coast-down', label: 'A20' }, { coastS: 0.1 })] }, /coast/],
  ])('%s that is not there or measured nothing leaves the figures at the wheels and says why', (crank, over, why) => {
    const figures = figuresOf(over, { crank });
    expect(figures.noEstimate).toMatch(why);
    expect(figures.estimate).toBeUndefined();
    expect(figures.comparison!.power.commonRange.difference).toBeGreaterThan(0);
  });
});

describe('runs that nothing can be made of', () => {
  const firstRun = job().runs[0]!;
  const flat = {
    time: Float64Array.from({ length: 400 }, (_, row) => row / 100),
    channels: [
      { name: 'rollerSpeed', unit: 'rad/s', values: new Float64Array(400).fill(60) },
      { name: 'engineSpeed', unit: 'rpm', values: new Float64Array(400).fill(2000) },
    ],
  };

  test('a recording’s fault and the program’s are told apart, and neither stops the others', () => {
    const broken = Object.defineProperty({ ...flat }, 'channels', {
      get: () => {
        throw new TypeError('x is undefined');
      },
    });
    const readings = readingsOf(job().runs);
    readings.set(1, readingOf(firstRun, flat));
    readings.set(2, readingOf(firstRun, broken));
    const figures = makeJobFigures({ job: job(), view: view() }, readings);
    expect(figures.unusable).toMatchObject([
      { id: 1, label: 'A1', fault: 'recording', why: expect.stringMatching(/No sweep/) },
      {
        id: 2,
        label: 'A2',
        fault: 'program',
        why: expect.stringMatching(/Suvok made a mistake.*x is undefined.*not at fault/),
      },
    ]);
    expect(figures.comparison!.compared).toEqual({ test: [4, 5, 6], baseline: [3] });
  });

  test('the curve of such a run alone is refused with its reason; a mistake of the program is thrown on', () => {
    const { job: alone, run: it } = loneRun(firstRun);
    expect(() => curveOfRun(alone, it, view(), new Map([[it.id, readingOf(it, flat)]]))).toThrow(/No sweep/);
    const mistake = new TypeError('x is undefined');
    const reading: Reading = { kind: 'unusable', unusable: { why: '', fault: 'program', cause: mistake } };
    expect(() => curveOfRun(alone, it, view(), new Map([[it.id, reading]]))).toThrow(mistake);
  });

  test('a run that is still being recorded, or is none of power, is in no figure', () => {
    const runs = [...job().runs, run(9, 2, 2, { state: 'recording' }), run(10, 2, 2, { kind: 'step' })];
    expect(figuresOf({ runs }).runs.map(({ id }) => id)).toEqual([1, 2, 3, 4, 5, 6]);
  });
});

describe('a guest', () => {
  const guestRuns = [run(31, 9, 1.01), run(32, 9, 1.012), run(33, 9, 1.2)];
  const guest = {
    setup: { id: 9, letter: 'A of job 5' },
    runs: guestRuns,
    baseline: { setupId: 9, runIds: [31, 32] },
    ignition: 'spark' as const,
    vehicle: 'Other car',
    origin: 'setup A of job 5',
  };

  test('takes the other side with its own frozen list, and is told as another vehicle', () => {
    const request = { job: job(), guest, view: view() };
    const figures = makeJobFigures(request, readingsOf(neededRuns(request)));
    expect(figures.comparison!.compared.baseline).toEqual([31, 32]);
    expect(figures.comparison!.unlike.map(({ id }) => id)).toContain('other-vehicle');
  });
});

describe('a logger beside the dyno', () => {
  const limits = [{ quantity: 'exhaustTemperature' as const, value: 900, scale: null }];
  /** What it recorded of a run, on a clock of its own. */
  const beside = (id: number, hottest: number, over: Partial<Recording> = {}) => {
    const { time, channels } = recordings.get(id)!;
    const rpm = channels.find(({ name }) => name === 'engineSpeed')!.values;
    const exhaust = rpm.map((speed) => hottest - (6800 - Math.min(6800, speed)) / 10);
    const recording: Recording = {
      time: time.map((at) => at + 31.7),
      channels: [
        { name: 'engineSpeed', unit: 'rpm', values: rpm },
        { name: 'exhaustTemperature', unit: '°C', values: exhaust },
      ],
      ...over,
    };
    return { name: 'Exhaust logger', probe: { delayS: 0, offset: 0 }, recording };
  };
  const figuresWith = (
    loggers: ReadonlyMap<number, ReturnType<typeof beside>[]>,
    over: (id: number) => Partial<RunRecord> = () => ({}),
  ) => {
    const runs = usualRuns.map((each) => run(each.id, each.setupId!, 1, over(each.id)));
    const request = { job: job({ runs, limits }), view: view() };
    const readings = runs.map(
      (each) => [each.id, readingOf(each, recordings.get(each.id)!, loggers.get(each.id))] as const,
    );
    return makeJobFigures(request, new Map(readings));
  };

  test('breaks a run’s limits and tells what else changed as the dyno’s own channels do', () => {
    const figures = figuresWith(
      new Map(usualRuns.map(({ id, setupId }) => [id, [beside(id, (setupId === 2 ? 930 : 880) + (id % 3))]])),
    );
    expect(figures.runs.filter(({ broken }) => broken.length > 0).map(({ id }) => id)).toEqual([4, 5, 6]);
    expect(figures.runs[3]!.broken[0]).toMatchObject({ quantity: 'exhaustTemperature', limit: 900, usual: false });
    const [change] = figures.comparison!.channels;
    expect(change).toMatchObject({ channel: 'exhaustTemperature', unit: '°C' });
    expect(change!.mean.difference).toBeCloseTo(50, 0);
    expect(change!.mean.halfWidth).toBeLessThan(10);
  });

  test('that does not fit gives nothing, and the run keeps its curve', () => {
    const figures = figuresWith(new Map([[4, [beside(4, 990, { time: new Float64Array(0) })]]]));
    expect(figures.runs).toHaveLength(6);
    expect(figures.runs.every(({ broken }) => broken.length === 0)).toBe(true);
  });

  test('that does not fit tells no temperature at the start either: it may be another car’s', () => {
    const hot = (id: number): Partial<RunRecord> => ({
      startTemperatures: { oilTemperature: id === 4 ? 130 : 85 },
      channels: id === 4 ? [] : [{ name: 'oilTemperature' }],
      logs: id === 4 ? [{ name: 'Exhaust logger', channels: [{ name: 'oilTemperature' }] }] : [],
    });
    const heats = (over: Partial<Recording>) =>
      figuresWith(new Map([[4, [beside(4, 880, over)]]]), hot).comparison!.unlike.some(({ id }) => id === 'heat-state');
    expect(heats({})).toBe(true);
    expect(heats({ time: new Float64Array(0) })).toBe(false);
  });
});

describe('a return that has a letter of its own', () => {
  /** A, B and the way back, the runs drifting by a share of power each. */
  const drifting = (gain: number, drift: number, back: boolean) => {
    const letters = [1, 1, 1, 2, 2, 2, ...(back ? [4, 4] : [])];
    const runs = letters.map((setupId, place) =>
      run(40 + place, setupId, (setupId === 2 ? 1 + gain : 1) * (1 + drift * place), { label: `R${place}` }),
    );
    const setups = [
      { id: 1, letter: 'A' },
      { id: 2, letter: 'B', parentId: 1, change: 'ignition +1°', items: [{ kind: 'ignition' as const, by: 1 }] },
      { id: 4, letter: 'C', parentId: 1, change: 'Back to A', items: [] },
    ];
    const request = { job: job({ setups, runs }), view: view({ testId: 2, againstId: 1 }) };
    return makeJobFigures(request, readingsOf(neededRuns(request))).comparison!;
  };

  test('tells the drift from the change as a return to the setup itself does', () => {
    expect(drifting(0, 0.006, false).power.ranges[0].drift!.separable).toBe(false);
    const returned = drifting(0, 0.006, true);
    expect(returned.power.ranges[0].drift!.separable).toBe(true);
    expect(returned.unlike.map(({ id }) => id)).not.toContain('not-bracketed');
    // What was drift alone is claimed by nobody; it is in the mean of neither side.
    expect(['gain', 'loss']).not.toContain(returned.judgement.claim);
    expect(returned.compared.baseline).toEqual([40, 41, 42]);
  });

  test('leaves a change that stands beside the drift', () => {
    const { judgement } = drifting(0.03, 0.002, true);
    expect(judgement.claim).toBe('gain');
    expect(judgement.drift!.adjusted).toBeCloseTo(0.03 * judgement.difference.baseline, 0);
  });
});

describe('what comes next', () => {
  const next = (over: Partial<JobRecord>) => {
    const request = { job: job(over), view: view() };
    return makeJobFigures(request, readingsOf(neededRuns(request))).next;
  };
  const limits = [{ quantity: 'power' as const, value: 1, scale: 'wheels' as const }];

  test('is to see to a broken limit of the latest run, unless nobody goes on with that setup', () => {
    expect(next({ limits })).toMatchObject({ why: 'repair', repair: 'B6' });
    expect(next({}).why).not.toBe('repair');
    const gone = job().setups.map((setup) => ({ ...setup, decision: setup.id === 1 ? null : ('go back' as const) }));
    expect(next({ limits, setups: gone })).toMatchObject({ why: 'repair', repair: 'A3' });
  });
});

describe('the same machine', () => {
  const withheld = (over: Partial<RunRecord>) =>
    figuresOf({
      runs: usualRuns.map((one) => ({ ...one, device: 'roller-1', bay: 1, ...(one.setupId === 2 ? over : {}) })),
    }).comparison!.judgement.withheld;

  test('is one instrument in one bay: two of one profile are two', () => {
    expect(withheld({})).toEqual([]);
    expect(withheld({ device: 'roller-2' })).toMatchObject([{ id: 'not-alike', respect: { id: 'other-dyno' } }]);
    expect(withheld({ bay: 2 })).toMatchObject([{ id: 'not-alike', respect: { id: 'remount' } }]);
    // A file names neither.
    expect(withheld({ device: '', bay: null })).toEqual([]);
  });
});

describe('circumstances reach like for like', () => {
  const alike = {
    tyres: 'road',
    tyrePressureKpa: 240,
    fan: 'full',
    bonnet: 'open',
    fuel: { name: 'E10', ethanolPct: 8, moving: false },
  };
  const other = (over: Partial<RunRecord>) =>
    usualRuns.map((one) => ({ ...one, ...alike, ...(one.setupId === 2 ? over : {}) }));
  const respects = (over: Partial<RunRecord>) =>
    figuresOf({ runs: other(over) }).comparison!.unlike.map(({ id }) => id);

  test.each<[string, Partial<RunRecord>]>([
    ['other-tyres', { tyres: 'slicks' }],
    ['other-tyre-pressure', { tyrePressureKpa: 200 }],
    ['other-fan', { fan: 'off' }],
    ['other-bonnet', { bonnet: 'closed' }],
    ['other-fuel', { fuel: { name: 'E85', ethanolPct: 8, moving: false } }],
    ['other-load-mode', { loadMode: 'ramp' }],
    ['remount', { remounted: true }],
  ])('%s', (id, over) => {
    expect(respects({})).not.toContain(id);
    expect(respects(over)).toContain(id);
  });
});

const setups = job().setups.slice(0, 2);
const strong = [...usualRuns.slice(0, 3), run(51, 2, 1.12), run(52, 2, 1.122), run(53, 2, 1.118)];

describe('a band that the runs do not cover', () => {
  const late = (id: number, setupId: number, factor: number) => run(id, setupId, factor, {}, { fromRpm: 2900 });
  const runs = [...usualRuns.slice(0, 3), ...[late(31, 2, 1.12), late(32, 2, 1.122), late(33, 2, 1.118)]];
  const low = { fromRpm: 2600, toRpm: 4000 };
  const high = { fromRpm: 4500, toRpm: 5500 };

  test('claims nothing anywhere and says where the runs begin; the common range does not take its place', () => {
    const figures = figuresOf({ runs, setups, bands: [low] });
    const { power, judgement, sentence, rows } = figures.comparison!;
    const beginsRpm = figures.runs.find(({ id }) => id === 33)!.curve.engineSpeedRpm[0]!;
    expect(judgement).toMatchObject({ claim: null, withheld: [{ id: 'band-not-covered' }] });
    expect(power.uncovered).toEqual([{ ...low, side: 'test', beginsRpm: expect.any(Number) }]);
    expect(power.uncovered[0]!.beginsRpm).toBeCloseTo(beginsRpm, -2);
    expect(phrasesText(sentence)).toMatch(/; 2,600 to 4,000 rpm is not covered: the runs begin at 3,\d{3} rpm\.$/);
    expect(rows.filter(({ verdict }) => verdict === 'gain' || verdict === 'loss')).toEqual([]);
    const card = figures.setups.find(({ setupId }) => setupId === 2)!.onBaseline!;
    expect(jobClaimWords(card, 2, { test: 'B', against: 'A' })).toMatch(
      /^no verdict: not covered: begins at 3,\d{3} rpm$/,
    );
    expect(missedBands(card)).toHaveLength(1);
    expect(figures.bestId).toBeUndefined();
    const list = jobHeadline(figures, job().setups);
    expect(list).toMatchObject({ gain: null, notCovered: expect.stringMatching(/^not covered: begins at 3,/) });
    expect(nextRunWords(figures.next, () => 'B')).toMatch(
      /^Run B again over all of 2,600 to 4,000 rpm: it begins at 3,/,
    );
  });

  test('leaves the other bands their claims, and is named beside them', () => {
    const figures = figuresOf({ runs, setups, bands: [low, high] });
    const { power, sentence } = figures.comparison!;
    expect(power.ranges).toMatchObject([{ ...high, verdict: 'gain' }]);
    expect(phrasesText(sentence)).toMatch(
      /4,500 to 5,500 rpm.*; 2,600 to 4,000 rpm is not covered: the runs begin at 3,\d{3} rpm\.$/,
    );
    const card = figures.setups.find(({ setupId }) => setupId === 2)!.onBaseline!;
    expect(otherRangeWords(card)).toBe(' from 4,500 to 5,500 rpm');
    // A step's gain may be over another range than its claim.
    expect(judgedElsewhereWords(card, { fromRpm: 4510, toRpm: 5500 })).toBe('');
    expect(judgedElsewhereWords(card, { fromRpm: 3000, toRpm: 5500 })).toBe('judged from 4,500 to 5,500 rpm');
  });

  test('covered again once the one short run is set aside, which is named', () => {
    const one = [...strong.slice(0, 5), late(34, 2, 1.118)];
    const short = figuresOf({ runs: one, setups, bands: [low] }).comparison!;
    expect(short.unlike).toContainEqual(
      expect.objectContaining({ id: 'short-run', labels: ['B34'], severity: 'mind' }),
    );
    expect(short.judgement.claim).toBeNull();
    const aside = one.map((candidate) => (candidate.id === 34 ? { ...candidate, setAsideReason: 'short' } : candidate));
    const rest = figuresOf({ runs: aside, setups, bands: [low] }).comparison!;
    expect(rest.unlike.map(({ id }) => id)).not.toContain('short-run');
    expect(rest.judgement.claim).toBe('gain');
  });
});

test('a run without air asks for its air, by its name', () => {
  const runs = [...strong.slice(0, 5), run(41, 2, 1.118, { air: null })];
  const { next } = figuresOf({ runs, setups });
  expect(nextRunWords(next, () => 'B')).toMatch(/^Enter the air of B41: /);
});

test('in the list of jobs stands what may be said: nothing where the sides are not alike', () => {
  const runs = strong.map((one) => (one.setupId === 2 ? { ...one, gear: '3rd' } : one));
  const figures = figuresOf({ runs, setups });
  expect(figures.comparison!.power.ranges[0].verdict).toBe('gain');
  expect(jobHeadline(figures, job().setups).gain).toMatchObject({ claim: null });
  expect(jobHeadline(figuresOf({ runs: strong, setups }), setups).gain).toMatchObject({ claim: 'gain' });
});

test('what is left to a limit of the crank is known only where the crank’s figures are', () => {
  const figures = figuresOf({ runs: strong, setups });
  const limit = { quantity: 'torque', value: 200, scale: 'crank' } as const;
  const counted = figures.runs.map(
    (shown) => ({ run: { logged: undefined }, figures: shown }) as unknown as Parameters<typeof headroomOf>[1][number],
  );
  expect(headroomOf([limit], counted, false)).toEqual([]);
  expect(headroomOf([limit], counted, true)).toMatchObject([{ label: 'Torque' }]);
});

test('a total over two instruments is marked, though each end of the ladder may stand on one', () => {
  const three = job().setups;
  const on = (device: string, from: number) =>
    [0, 1].map((at) => run(from + at, from < 70 ? 1 : from < 80 ? 2 : 3, 1 + at / 1000, { device }));
  const ladder = (second: string) =>
    figuresOf({ setups: three, runs: [...on('one', 61), ...on(second, 71), ...on('one', 81)] }, { beside: 'steps' })
      .attribution!;
  expect(ladder('one').notAlike).toBeUndefined();
  expect(ladder('two').notAlike).toMatchObject({ id: 'other-dyno' });
});

describe('a diesel whose fuel is logged', () => {
  /** 0.1 g/s for each 1,000 rpm and litre is 12 mg a litre and cycle. */
  const fuelled = (id: number, mgPerLitreCycle: number) => {
    const own = recordings.get(id)!;
    const rpm = own.channels.find(({ name }) => name === 'engineSpeed')!.values;
    const values = rpm.map((each) => (mgPerLitreCycle * 2 * each) / 120 / 1000);
    const boost = rpm.map(() => 0);
    return {
      ...own,
      channels: [
        ...own.channels,
        { name: 'fuelFlow', unit: 'g/s', values },
        { name: 'boost', unit: 'kPa', values: boost },
      ],
    };
  };
  const air = { temperatureC: 35, pressureHpa: 970, relativeHumidityPct: 40 };
  const figuresOfDiesel = (fuelOf: (id: number) => number | undefined, over: Partial<JobRecord> = {}) => {
    const runs = usualRuns.map(({ id, setupId }) => run(id, setupId!, 1, { air }));
    const readings = runs.map((each) => {
      const fuel = fuelOf(each.id);
      return [
        each.id,
        readingOf(each, fuel === undefined ? recordings.get(each.id)! : fuelled(each.id, fuel)),
      ] as const;
    });
    const engine = { ignition: 'compression', turbocharged: true, boosted: true, displacementL: 2, ...over } as const;
    return makeJobFigures(
      { job: job({ runs, ...engine }), view: view({ standard: 'iso-1585-ci' }) },
      new Map(readings),
    );
  };
  const exponent = ({ runs }: ReturnType<typeof figuresOfDiesel>) => {
    const { factor } = runs[0]!.curve.correction;
    const assumed = figuresOfDiesel(() => undefined).runs[0]!.curve.correction.factor;
    return (0.3 * Math.log(factor)) / Math.log(assumed);
  };
  const checks = ({ runs }: ReturnType<typeof figuresOfDiesel>) => runs[0]!.curve.checks.map(({ id }) => id);

  test('is corrected by its engine factor, and nothing of it is assumed', () => {
    expect(exponent(figuresOfDiesel(() => 50))).toBeCloseTo(0.036 * 50 - 1.14, 2);
    expect(checks(figuresOfDiesel(() => 50))).not.toContain('diesel-factor-assumed');
    expect(checks(figuresOfDiesel(() => undefined))).toContain('diesel-factor-assumed');
    // Without its displacement the flow tells nothing.
    expect(checks(figuresOfDiesel(() => 50, { displacementL: null }))).toContain('diesel-factor-assumed');
  });

  test('is not like for like with runs whose fuel nobody logged', () => {
    const mixed = figuresOfDiesel((id) => (id < 6 ? 50 : undefined)).comparison!;
    expect(mixed.judgement.withheld.map((reason) => reason.id === 'not-alike' && reason.respect.id)).toContain(
      'other-engine-factor',
    );
    const alike = figuresOfDiesel(() => 50).comparison!;
    expect(alike.judgement.withheld.filter(({ id }) => id === 'not-alike')).toEqual([]);
  });
});
