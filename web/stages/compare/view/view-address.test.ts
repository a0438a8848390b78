import { keptUnits } from '../../../../core/units/told-units.ts';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Job, Run, Setup } from '../../../../contract/job/records.ts';
import { standardIds } from '../../../../core/air/correction.ts';
import { powerUnits, torqueUnits } from '../../../../core/units/units.ts';
import { laneAxes } from '../../../../core/scene/lane-axis.ts';
import { addressProblems } from './address-problems.ts';
import { addressWith, bandWords, fieldIn, viewIn, type Changes, type Field } from './view-address.ts';

const setup = (id: number, letter: string, parentId: number | null, items: Setup['items'] = []) =>
  ({ id, letter, parentId, items }) as Setup;
const run = (id: number, setupId: number, label: string) => ({ id, setupId, label }) as Run;
const list = (version: number, setupId: number, runIds: number[]) => ({
  version,
  setupId,
  runIds,
  why: '',
  createdAt: '',
  spread: null,
});
const job: Pick<Job, 'setups' | 'runs' | 'baseline' | 'earlierBaselines' | 'bands'> = {
  bands: [],
  setups: [setup(1, 'A', null), setup(2, 'B', 1), setup(3, 'C', 2, [{ kind: 'ignition', by: 1 }])],
  runs: [run(1, 1, 'A1'), run(2, 1, 'A2'), run(3, 2, 'B1'), run(4, 3, 'C1')],
  baseline: list(2, 2, [3]),
  earlierBaselines: [list(1, 1, [1, 2])],
};
const preferences = { standard: 'sae-j1349', units: keptUnits } as const;
const view = (address: string) => viewIn(new URLSearchParams(address), job, preferences);
const problems = (address: string) => addressProblems(new URLSearchParams(address), job);

describe('an address', () => {
  test('that says nothing shows the newest setup against its parent, on the frozen baseline', () => {
    const { baseline, test: tested, against, frozen, smoothing, share, units } = view('');
    expect([baseline.letter, tested.letter, against.letter]).toEqual(['B', 'C', 'B']);
    expect({ version: frozen!.version, smoothing, share, units }).toEqual({
      version: 2,
      smoothing: 'auto',
      share: 1,
      units: keptUnits,
    });
    expect(problems('')).toEqual([]);
  });

  test('that names an earlier version shows its setup as the baseline', () => {
    expect(view('version=1').baseline.letter).toBe('A');
    expect(view('version=1').frozen!.runIds).toEqual([1, 2]);
    expect(view('version=1&baseline=C').baseline.letter).toBe('C');
  });

  test.each<[string, Field, RegExp]>([
    ['setup=Z', 'setup', /no setup Z/],
    ['against=AA', 'against', /no setup AA/],
    ['baseline=b', 'baseline', /no setup b/],
    ['version=7', 'version', /never frozen as version 7/],
    ['runs=A1.A9', 'runs', /no run A9/],
    ['againstRuns=B7', 'againstRuns', /no run B7/],
    ['also=B.X.Y', 'also', /no setup X, Y/],
    ['hide=Q', 'hide', /no setup Q/],
    ['standard=mine', 'standard', /“mine” is not understood as a correction standard/],
    ['share=half', 'share', /“half” is not understood as a share/],
    ['band=5000-3000', 'band', /“5000-3000” is not understood as a band/],
    ['from=nowhere', 'from', /“nowhere” is not understood/],
    ['item=boost/0', 'item', /No setup of this job changes “boost\/0”/],
    ['power=horses', 'power', /“horses” is not understood as a unit of power/],
  ])('%s: says so, and what is wrong can be taken out of it', (address, field, sentence) => {
    expect(problems(address)).toEqual([{ field, sentence: expect.stringMatching(sentence) }]);
    const mended = addressWith(new URLSearchParams(address), { [field]: undefined });
    expect(addressProblems(mended, job)).toEqual([]);
  });

  test('what a setup changes can be asked for', () => {
    expect(problems('show=response&item=ignition/0')).toEqual([]);
  });

  test('runs of another job are not looked for in this one', () => {
    expect(problems('from=11.B&againstRuns=B7')).toEqual([]);
  });

  test('whatever stands in it, something of the job is shown', () => {
    fc.assert(
      fc.property(
        fc.dictionary(
          fc.constantFrom('setup', 'against', 'baseline', 'version', 'span', 'lanes', 'zoom', 'at', 'x'),
          fc.string(),
        ),
        (words) => {
          const shown = viewIn(new URLSearchParams(words), job, preferences);
          for (const setup of [shown.baseline, shown.test, shown.against]) expect(job.setups).toContain(setup);
          expect(shown.lanes.length).toBeGreaterThan(0);
        },
      ),
    );
  });
});

const letters = fc.constantFrom('A', 'B', 'C');
const speed = fc.integer({ min: 0, max: 20_000 });
const range = fc.tuple(speed, fc.integer({ min: 101, max: 9000 })).map(([from, width]) => `${from}-${from + width}`);
const some = <T>(values: fc.Arbitrary<T>) => fc.option(values, { nil: undefined });
const changes: fc.Arbitrary<Changes> = fc.record({
  setup: some(letters),
  against: some(letters),
  baseline: some(letters),
  standard: some(fc.constantFrom(...standardIds)),
  share: some(fc.integer({ min: 0, max: 100 })),
  smoothing: some(fc.oneof(fc.constant('auto'), fc.integer({ min: 0, max: 600 }))),
  band: some(range),
  zoom: some(range),
  runs: some(fc.constantFrom('A1', 'A1.A2', 'B1')),
  at: some(speed),
  show: some(fc.constantFrom('curves', 'steps', 'response', 'road', 'tests')),
  lanes: some(fc.constantFrom('power', 'gain.power', 'power.torque.gain.lambda')),
  crank: some(fc.constantFrom('15', '12+3', 'A6')),
  axis: some(fc.constantFrom(...laneAxes)),
  also: some(fc.constantFrom('A', 'A.B')),
  power: some(fc.constantFrom(...powerUnits)),
  torque: some(fc.constantFrom(...torqueUnits)),
});

test('view → address → view: a change says what it was asked to say, and leaves all else as it was', () => {
  fc.assert(
    fc.property(changes, changes, (before, after) => {
      const first = addressWith(new URLSearchParams(), before);
      const next = addressWith(first, after);
      for (const [field, value] of Object.entries({ ...before, ...after }))
        expect(next.get(field)).toBe(value === undefined ? null : String(value));
      // As text and back, as a link travels.
      expect(viewIn(new URLSearchParams(next.toString()), job, preferences)).toEqual(viewIn(next, job, preferences));
      expect(addressProblems(next, job)).toEqual([]);
    }),
  );
});

describe('bands', () => {
  const briefed = {
    ...job,
    bands: [
      { id: 1, revision: 1, name: 'corner exit', fromRpm: 3000, toRpm: 4000 },
      { id: 2, revision: 1, name: 'flat out', fromRpm: 5000, toRpm: 6500 },
    ],
  } as typeof job;
  const bandsOf = (address: string) => viewIn(new URLSearchParams(address), briefed, preferences).bands;

  test('are those of the brief until an address asks for others, or for the common range', () => {
    expect(bandsOf('').map(({ name }) => name)).toEqual(['corner exit', 'flat out']);
    expect(bandsOf('band=common')).toEqual([]);
    expect(bandsOf('band=5000-6500.2000-2500').map(({ name, fromRpm }) => [name, fromRpm])).toEqual([
      ['flat out', 5000],
      [undefined, 2000],
    ]);
  });

  test('are written as they are read, and the brief’s are not written at all', () => {
    for (const address of ['', 'band=common', 'band=5000-6500', 'band=3000-4000.2000-2500']) {
      const words = bandWords(bandsOf(address), briefed);
      expect(bandsOf(words === undefined ? '' : `band=${words}`)).toEqual(bandsOf(address));
    }
    expect(bandWords(briefed.bands, briefed)).toBeUndefined();
    expect(bandWords([], briefed)).toBe('common');
    expect(bandWords([], job)).toBeUndefined();
  });
});

test('what was written is what is read', () => {
  const address = addressWith(new URLSearchParams(), {
    share: 50,
    band: '3000-5600',
    at: 4200,
    span: '2000-6000-300.200',
    runs: 'A1.A2',
  });
  expect(fieldIn(address, 'share')).toBe(50);
  expect(fieldIn(address, 'band')).toEqual([[3000, 5600]]);
  expect(fieldIn(address, 'at')).toBe(4200);
  expect(fieldIn(address, 'span')).toEqual({ fromRpm: 2000, toRpm: 6000, spansRpm: [300, 200] });
  expect(fieldIn(address, 'runs')).toEqual(['A1', 'A2']);
});
