import { beforeAll, describe, expect, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { judgementJson, type JudgementJson } from '../contract/files/judge-file.ts';
import { writeRecordingCsv } from '../core/exchange/recordings/write-csv.ts';
import { generatedRun } from '../core/testing/generated-run.ts';
import { testDyno, usualTorque } from '../core/testing/test-car.ts';
import { judgeCommand } from './judge.ts';

let folder: string;
const path = (name: string) => join(folder, name);

/** Runs in the order they were made: small fixed scatter about each setup's gain. */
const gains: Record<string, number> = { A: 0, B: 0.03, C: 0.03 };
const scatter = [0.002, -0.001, -0.0015, 0.0005];
interface FileRun {
  label: string;
  setup: string;
  file: string;
  at: string;
  gear?: string;
  dyno?: string;
  counted?: boolean;
}
let runs: FileRun[];

beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'suvok-judge-'));
  writeFileSync(path('dyno.json'), JSON.stringify(testDyno));
  writeFileSync(path('other.json'), JSON.stringify({ ...testDyno, inertiaKgM2: 1.03 * testDyno.inertiaKgM2 }));
  let seed = 0;
  runs = ['A', 'B', 'C'].flatMap((setup) =>
    [1, 2, 3].map((number): FileRun => {
      const factor = (1 + gains[setup]!) * (1 + scatter[seed++ % scatter.length]!);
      const recording = generatedRun({
        seed,
        stepHz: 500,
        speedNoise: 0.005,
        drumTorque: (rpm) => factor * usualTorque(rpm),
      });
      const label = `${setup}${number}`;
      writeFileSync(path(`${label}.csv`), writeRecordingCsv(recording));
      const at = new Date(Date.UTC(2026, 4, 1, 9, 8 * seed)).toISOString();
      return { label, setup, file: `${label}.csv`, at };
    }),
  );
  // A pull that slips by 6 % over a third of its range.
  const slipping = generatedRun({
    seed: 50,
    speedNoise: 0.005,
    faults: { tyreSlip: { fromRpm: 4000, toRpm: 5500, share: 0.06 } },
  });
  writeFileSync(path('slip.csv'), writeRecordingCsv(slipping));
});

const usual = () => ({
  dyno: 'dyno.json',
  setups: [
    { label: 'A' },
    { label: 'B', parent: 'A', change: 'ignition +1.5°' },
    { label: 'C', parent: 'B', change: 'longer ram pipes' },
  ],
  runs,
});
function judge(over: object = {}): JudgementJson {
  writeFileSync(path('job.json'), JSON.stringify({ ...usual(), ...over }));
  return judgementJson.parse(judgeCommand([path('job.json')]));
}
const pairOf = (found: JudgementJson, setup: string, against: string) =>
  found.pairs.find((pair) => pair.setup === setup && pair.against === against)!;
const onlyOf = (...setups: string[]) => runs.filter(({ setup }) => setups.includes(setup));

describe('suvok judge', () => {
  test('every setup against its parent and the baseline, each pair once, by the plan that was stated', () => {
    const found = judge({ plan: { runsEach: 3 } });
    expect(found.pairs.map(({ setup, against }) => setup + against)).toEqual(['BA', 'CB', 'CA']);
    expect(pairOf(found, 'B', 'A')).toMatchObject({ claim: 'gain', rule: 'planned', withheld: [] });
    expect(pairOf(found, 'C', 'B').claim).toBe('within-repeatability');
    expect(found.cards.map(({ setup, claim }) => [setup, claim])).toEqual([
      ['B', 'gain'],
      ['C', 'gain'],
    ]);
    expect(found.steps.map(({ setup, claim }) => [setup, claim])).toEqual([
      ['B', 'gain'],
      ['C', 'within-repeatability'],
    ]);
    // Cards and steps are the pairs' own figures.
    expect(found.steps[0]).toMatchObject({
      meanKw: pairOf(found, 'B', 'A').meanKw,
      lowKw: pairOf(found, 'B', 'A').lowKw,
    });
  });

  test('without a plan every look is paid for: the same runs have a wider interval', () => {
    const width = ({ lowKw, highKw }: { lowKw: number | null; highKw: number | null }) => highKw! - lowKw!;
    const [planned, looked] = [judge({ plan: { runsEach: 3 } }), judge()].map((found) => pairOf(found, 'B', 'A'));
    expect(looked!.rule).toBe('every-look');
    expect(width(looked!)).toBeGreaterThan(1.3 * width(planned!));
    expect(looked!.meanKw).toBe(planned!.meanKw);
  });

  test('a plan that is not full claims nothing and says what is missing', () => {
    const found = judge({ plan: { runsEach: 3 }, runs: runs.filter(({ label }) => !['B2', 'B3'].includes(label)) });
    expect(pairOf(found, 'B', 'A')).toMatchObject({ claim: null, withheld: [{ id: 'plan-not-full' }] });
    expect(pairOf(found, 'B', 'A').withheld[0]!.sentence).toBe('The plan is not full: 2 more runs of B.');
  });

  test('one run of each setup has an interval that says what it rests on, sharper with a history', () => {
    const single = runs.filter(({ label }) => label.endsWith('1'));
    const assumed = judge({ runs: single });
    expect(assumed.spread.from).toBe('assumed');
    expect(assumed.assumed.join(' ')).toMatch(/Spread of repeats: .*One mounting/);
    expect(pairOf(assumed, 'B', 'A').highKw! - pairOf(assumed, 'B', 'A').lowKw!).toBeLessThan(15);
    const history = Array.from({ length: 20 }, (_, index) => ({ runs: 3, spreadPercent: 0.15 + 0.01 * (index % 5) }));
    const learned = judge({ runs: single, history, plan: { runsEach: 1 } });
    expect(learned.spread).toMatchObject({ from: 'learned' });
    expect(pairOf(learned, 'B', 'A').claim).toBe('gain');
  });

  test.each<[string, (run: FileRun) => Partial<FileRun>, string]>([
    ['another gear', () => ({ gear: '3rd' }), 'other-gear'],
    ['another dyno', () => ({ dyno: 'other.json' }), 'other-dyno'],
    ['another day', ({ at }) => ({ at: new Date(Date.parse(at) + 24 * 3600e3).toISOString() }), 'remount'],
  ])('%s: no pair, card or step claims anything', (_, changed, id) => {
    const others = runs.map((run) =>
      run.setup === 'A' ? { ...run, gear: '4th' } : { ...run, gear: '4th', ...changed(run) },
    );
    const found = judge({ plan: { runsEach: 3 }, runs: others });
    expect(pairOf(found, 'B', 'A').claim).toBeNull();
    expect(pairOf(found, 'B', 'A').withheld.map((reason) => reason.id)).toContain(id);
    expect(pairOf(found, 'B', 'A').sentence).toContain('no verdict');
    expect(found.cards.map(({ claim }) => claim)).toEqual([null, null]);
    expect(found.steps[0]!.claim).toBeNull();
    expect(found.next).toMatchObject({ runs: 1 });
  });

  test('runs that slip over a third of the range get no verdict over it', () => {
    const slipping = onlyOf('A', 'B').map((run) => (run.setup === 'B' ? { ...run, file: 'slip.csv' } : run));
    const found = judge({ setups: usual().setups.slice(0, 2), runs: slipping, plan: { runsEach: 3 } });
    expect(pairOf(found, 'B', 'A').withheld.map(({ id }) => id)).toContain('slip');
    expect(pairOf(found, 'B', 'A').claim).toBeNull();
  });

  test('a run that is not counted is in no figure; a setup without a run is what comes next', () => {
    const found = judge({ runs: runs.map((run) => (run.setup === 'C' ? { ...run, counted: false } : run)) });
    expect(found.pairs.map(({ setup }) => setup)).toEqual(['B']);
    expect(found.next).toEqual({
      setup: 'C',
      why: 'Run C: it has no counted run yet. About 8 min at the pace so far.',
      runs: 1,
    });
    const baseline = judge({ setups: [{ label: 'A' }], runs: onlyOf('A').slice(0, 1) });
    expect(baseline).toMatchObject({ pairs: [], cards: [], steps: [], next: { setup: 'A', runs: 2 } });
  });

  test.each<[string, object, RegExp]>([
    [
      'an unknown setup',
      { runs: [{ label: 'X1', setup: 'X', file: 'A1.csv' }] },
      /run X1 is of setup "X", which is not among the setups/,
    ],
    ['a missing file', { runs: [{ label: 'A1', setup: 'A', file: 'none.csv' }] }, /none\.csv: there is no such file/],
    [
      'a run named twice',
      {
        runs: [
          { label: 'A1', setup: 'A', file: 'A1.csv' },
          { label: 'A1', setup: 'A', file: 'A2.csv' },
        ],
      },
      /run A1 is named twice/,
    ],
    ['a setup named twice', { setups: [{ label: 'A' }, { label: 'A' }] }, /setup A is named twice/],
    [
      'a parent that comes later',
      { setups: [{ label: 'A', parent: 'B' }, { label: 'B' }] },
      /parent of setup A is "B"/,
    ],
    ['a plan of no runs', { plan: { runsEach: 0 } }, /plan\.runsEach/],
    ['a time without a date', { runs: [{ label: 'A1', setup: 'A', file: 'A1.csv', at: '09:00' }] }, /runs\.0\.at/],
  ])('%s is refused with a sentence', (_, over, sentence) => {
    expect(() => judge(over)).toThrow(sentence);
  });

  test('words that name no single job are refused', () => {
    expect(() => judgeCommand([])).toThrow(/Name the job/);
    expect(() => judgeCommand(['a.json', 'b.json'])).toThrow(/One job at a time/);
    expect(() => judgeCommand([path('none.json')])).toThrow(/no such file/);
  });
});
