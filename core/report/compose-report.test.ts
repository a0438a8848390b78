import { describe, expect, test } from '@jest/globals';
import type { FiguresView } from '../figures/figures-request.ts';
import { makeJobFigures } from '../figures/make-job-figures.ts';
import { readingOf, type Reading } from '../figures/reading.ts';
import { written } from '../sentence/sentence.ts';
import { generatedRun } from '../testing/generated-run.ts';
import { testDyno, usualTorque } from '../testing/test-car.ts';
import { unitSets } from '../units/told-units.ts';
import { plausible } from './expectation.ts';
import { composeReport } from './compose-report.ts';
import { reportSides } from './report-request.ts';
import type { BlockId, Content } from './report.ts';
import type { ReportSource, ReportedJob, ReportedRun } from './reported-job.ts';

/** Three runs of A, three of B that make 3 % more, one of C that makes nothing. */
const factors = [0.998, 1, 1.002, 1.028, 1.03, 1.032, 1.03];
const letters = ['A', 'A', 'A', 'B', 'B', 'B', 'C'];
const runs = factors.map((_, index): ReportedRun => ({
  id: index + 1,
  setupId: letters[index]!.charCodeAt(0) - 64,
  label: `${letters[index]!}${index < 3 ? index + 1 : index < 6 ? index - 2 : 1}`,
  kind: 'power',
  state: 'sealed',
  setAsideReason: null,
  startedAt: new Date(Date.UTC(2026, 4, 14, 9, 8 * index)).toISOString(),
  endedAt: new Date(Date.UTC(2026, 4, 14, 9, 8 * index + 1)).toISOString(),
  dyno: testDyno,
  gear: '4th',
  engineToDrumRatio: null,
  air: { temperatureC: 21 + index / 4, pressureHpa: 1000, relativeHumidityPct: 40 },
  airTakenAt: null,
  fuel: { name: '98 octane', litres: 30, ethanolPct: 5, from: 'stated', moving: false },
  startTemperatures: {},
}));
const setup = (id: number, letter: string, parentId: number | null, change: string, decision: 'keep' | 'go back' | null) => ({ id, letter, parentId, change, items: [], decision }); // prettier-ignore
const job: ReportedJob = {
  id: 12,
  vehicle: 'Tarrow Six',
  plate: 'TS 66',
  owner: 'A. Sorrel',
  car: { tyres: '195/60 R15', finalDrive: 3.9, gears: [{ gear: '3rd', ratio: 1.36 }, { gear: '4th', ratio: 1.03 }], massKg: 940, dragAreaM2: null, rollingCoefficient: null, factoryKw: 98 }, // prettier-ignore
  claimedValue: 140,
  claimedUnit: 'hp',
  claimedScale: 'wheels',
  claimedSource: 'the seller',
  question: 'Does it pay above 5,000?',
  untested: 'Cold start\nwet key setting',
  setups: [setup(1, 'A', null, 'As arrived', null), setup(2, 'B', 1, 'Short intake', 'keep'), setup(3, 'C', 2, 'Plug gap 0.7 mm', 'go back')], // prettier-ignore
  runs,
  baseline: null,
  deliveredSetupId: 2,
  bestRunId: 6,
  bands: [{ name: 'climb', fromRpm: 4500, toRpm: 6400 }],
  tuneFiles: [{ setupId: 2, name: 'tarrow-r3.bin', sha256: '9f2c41aa00112233445566778899aabb' }],
  putBack: [
    { text: 'Rev limiter where it belongs', done: true },
    { text: 'Probes taken out', done: false },
  ],
};

let readings: Map<number, Reading> | undefined;
function source(over: Partial<ReportedJob> = {}, seen: (run: ReportedRun) => boolean = () => true): ReportSource {
  readings ??= new Map(
    runs.map((run, index) => [run.id, readingOf(run, generatedRun({ seed: run.id, speedNoise: 0.006, drumTorque: (rpm) => factors[index]! * usualTorque(rpm) }))]), // prettier-ignore
  );
  const told = { ...job, runs: runs.filter(seen), ...over };
  const { arrivedId, deliveredId } = reportSides(told);
  const view: FiguresView = { standard: 'sae-j1349', share: 1, smoothing: 300, baselineId: arrivedId, againstId: arrivedId, testId: deliveredId, bands: told.bands.map(({ fromRpm, toRpm }) => [fromRpm, toRpm] as const), everyPair: true, powerUnit: 'kW' }; // prettier-ignore
  const limits = [{ quantity: 'engineSpeed' as const, value: 7200, scale: null }, { quantity: 'torque' as const, value: 120, scale: 'wheels' as const }]; // prettier-ignore
  const figures = makeJobFigures({ job: { vehicle: told.vehicle, ignition: 'spark', setups: told.setups, runs: told.runs, baseline: null, limits, bands: told.bands }, view }, readings); // prettier-ignore
  return { job: told, figures, view: { standard: 'sae-j1349', share: 1, auto: true } };
}

const contentOf = <Is extends Content['is']>(of: ReportSource, id: BlockId, is: Is) => {
  const content = composeReport(of).blocks.find((block) => block.id === id)?.content;
  expect(content?.is).toBe(is);
  return content as Extract<Content, { is: Is }>;
};
const rowsOf = (of: ReportSource, id: BlockId) =>
  contentOf(of, id, 'table').rows.map((row) => row.map(({ text }) => written(text)));
const missingOf = (of: ReportSource) => composeReport(of).missing.map((sentence) => written(sentence));

describe('a report', () => {
  test('answers in one sentence with interval and range, and says what was asked', () => {
    const { headline, lead } = contentOf(source(), 'answer', 'answer');
    expect(written(headline)).toMatch(/^\d\.\d ± \d\.\d kW more from 4,500 to 6,400 rpm\.$/);
    expect(written(lead[0]!)).toBe('The question was: Does it pay above 5,000?');
    const us = unitSets.find(({ name }) => name === 'US')!.units;
    expect(written(headline, us)).toMatch(/^\d\.\d ± \d\.\d hp more/);
  });

  test('a change that shows nothing is told as such', () => {
    const moved = runs.slice(0, 3).map((run) => (run.id === 3 ? { ...run, setupId: 2, label: 'B1' } : run));
    const none = source({ runs: moved, bestRunId: null });
    expect(written(contentOf(none, 'answer', 'answer').headline)).toMatch(/^(No change of power could be shown from|Nothing is shown yet: )/); // prettier-ignore
  });

  test('why nothing is claimed stands among what is to be read with care, whatever the headline tells of another band', () => {
    const whole = source();
    const comparison = whole.figures.comparison!;
    const drifting = { ...comparison, judgement: { ...comparison.judgement, withheld: [{ id: 'drift' as const, perRunKw: 0.1 }] } }; // prettier-ignore
    const told = (of: ReportSource) => contentOf(of, 'care', 'list').items.map(({ text }) => written(text));
    expect(told({ ...whole, figures: { ...whole.figures, comparison: drifting } })).toContain('Nothing is claimed from 4,500 to 6,400 rpm: a drift of +0.1 kW from run to run can look the same: return to what arrived for a run.'); // prettier-ignore
    expect(told(whole).filter((text) => text.startsWith('Nothing is claimed'))).toEqual([]);
  });

  test('arrived, delivered and best are three figures with what they were measured under', () => {
    const { figures } = contentOf(source(), 'figures', 'figures');
    expect(figures.map(({ name }) => name)).toEqual(['Arrived', 'Delivered', 'Best seen']);
    expect(figures[1]!.kw / figures[0]!.kw).toBeCloseTo(1.03, 2);
    expect(figures[0]!.halfWidthKw).toBeGreaterThan(0);
    // One run has no interval of its own.
    expect(figures[2]!.halfWidthKw).toBeUndefined();
    expect(written(figures[0]!.note)).toMatch(/^peak, mean of 3 runs, .*98 octane, 5 % ethanol stated, 14 May 2026$/);
    expect(written(figures[2]!.note)).toMatch(/^B3 alone/);
  });

  test('each change stands with its gain, what may be claimed, and what became of it', () => {
    const rows = rowsOf(source(), 'ladder');
    expect(rows).toHaveLength(2);
    expect(rows[0]![0]).toBe('B, Short intake');
    expect(rows[0]![1]).toMatch(/^\+\d\.\d ± \d\.\d kW$/);
    expect(rows[0]![2]).toBe('yes');
    expect(rows[1]![2]).toMatch(/^put back/);
    const [b, c] = contentOf(source(), 'ladder', 'table').rows;
    expect(b![1]!.tone).toBe('gain');
    expect(c![1]!.tone).toBeUndefined();
  });

  test('bands, limits, what was not tested, what is back, the file and how it was made are drawn from what is known', () => {
    expect(rowsOf(source(), 'bands').map(([name]) => name)).toContain('power in climb, 4,500 to 6,400 rpm');
    const limits = rowsOf(source(), 'limits');
    expect(limits.find(([name]) => name === 'Torque')![1]).toBe('120 N·m');
    expect(contentOf(source(), 'untested', 'list').items.map(({ text }) => text)).toEqual(['Cold start', 'wet key setting']); // prettier-ignore
    expect(contentOf(source(), 'putBack', 'list').items.map(({ text }) => text)).toEqual(['Rev limiter where it belongs']); // prettier-ignore
    expect(written(contentOf(source(), 'file', 'text').paragraphs[0]!)).toMatch(/^tarrow-r3\.bin, SHA-256 9f2c41aa 00112233…\. Nearest limit: /); // prettier-ignore
    const [how, rests] = contentOf(source(), 'made', 'text').paragraphs.map((sentence) => written(sentence));
    expect(how).toMatch(/^At the wheels, corrected to SAE J1349 \(×[\d.]+ to ×[\d.]+\), smoothed over 300 rpm/);
    expect(rests).toMatch(/^3 runs as arrived, 3 as delivered\. ± is a 95 % interval/);
    const [conditions] = contentOf(source(), 'conditions', 'text').paragraphs.map((sentence) => written(sentence));
    expect(conditions).toMatch(/4th gear\. Air at the inlet 21 to 22 °C, 1,000 hPa, 40 % humidity\. Measured on 14 May 2026\.$/); // prettier-ignore
  });

  test('on the road each gear has its times, their difference with an interval, and where to shift; what is assumed is said', () => {
    const { rows, note } = contentOf(source(), 'road', 'table');
    const told = rows.map((row) => row.map(({ text }) => written(text)));
    expect(told.map(([gear]) => gear)).toEqual(['3rd', '4th']);
    for (const [, span, before, after, gained] of told) {
      expect(span).toMatch(/^\d+ to \d+ km\/h$/);
      expect(Number(after!.split(' ')[0])).toBeLessThan(Number(before!.split(' ')[0]));
      expect(gained).toMatch(/^−\d\.\d\d ± \d\.\d\d s$/);
    }
    expect(rows[0]![4]!.tone).toBe('gain');
    expect(written(rows[0]![5]!.text)).toMatch(/^\d+ km\/h$/);
    expect(written(note!)).toMatch(/^Estimate for a level road.*940 kg, drag area 0\.65 m².*\(drag, rolling drag assumed\).*driven tyres’ drag already.*At 1600 m and 30 °C its peak would be about \d\d kW .*outside what SAE J1349 allows/); // prettier-ignore
    // Without gears, or for the crank, nothing is told.
    const bare = source({ car: { ...job.car, gears: [] } });
    expect(composeReport(bare).blocks.map(({ id }) => id)).not.toContain('road');
  });

  test('rating and claim are held against what arrived, for orientation', () => {
    const rows = rowsOf(source(), 'expectation');
    expect(rows[0]!.slice(0, 3)).toEqual(['factory rating, at the crank', '98 kW', '76 to 86 kW']);
    expect(rows[1]![0]).toBe('claimed by the seller, at the wheels');
    expect(rows[1]![3]).toMatch(/^\d+\.\d kW: less than that: find the fault first$/);
    expect(rowsOf(source({ claimedValue: 100, claimedScale: 'crank' }), 'expectation')[1]![2]).toBe('58 to 66 kW');
    const none = source({ claimedValue: null, car: { ...job.car, factoryKw: null } });
    expect(composeReport(none).blocks.map(({ id }) => id)).not.toContain('expectation');
  });

  test.each([
    [80, 1, 'plausible'],
    [75, 2, 'plausible'],
    [73, 2, 'less'],
    [90, 2, 'more'],
  ])('a reading of %d ± %d kW where 76 to 86 are expected is %s', (read, half, verdict) => {
    expect(plausible(read, half, [76, 86])).toBe(verdict);
  });

  test('what is missing is named in the draft, and nothing where nothing is', () => {
    expect(missingOf(source())).toEqual([
      'The last run is C1: B was not verified after it.',
      'Not ticked as put back: Probes taken out.',
    ]);
    const bare = source({ deliveredSetupId: null, question: '', owner: '', bands: [], tuneFiles: [], untested: '', putBack: [] }); // prettier-ignore
    expect(missingOf(bare).join(' ')).toMatch(/No setup is named as delivered: B stands in\..*No question.*No owner.*No band.*No tune file.*not tested/); // prettier-ignore
    expect(composeReport(bare).blocks.map(({ id }) => id)).not.toContain('file');
    expect(missingOf(source({ putBack: [] }, ({ setupId }) => setupId !== 3))).toEqual([]);
  });

  test('one setup alone is no comparison, and still a report', () => {
    const alone = source({ deliveredSetupId: null, bestRunId: null, setups: job.setups.slice(0, 1) }, ({ setupId }) => setupId === 1); // prettier-ignore
    expect(written(contentOf(alone, 'answer', 'answer').headline)).toBe('The car as it arrived: nothing was changed and measured yet.'); // prettier-ignore
    expect(contentOf(alone, 'figures', 'figures').figures).toHaveLength(1);
    expect(composeReport(alone).blocks.map(({ id }) => id)).not.toContain('ladder');
  });

  test('what is delivered where nobody said is the last that was not gone back from', () => {
    expect(reportSides({ ...job, deliveredSetupId: null })).toEqual({ arrivedId: 1, deliveredId: 2 });
    expect(reportSides({ ...job, deliveredSetupId: 3 })).toEqual({ arrivedId: 1, deliveredId: 3 });
  });
});
