import { describe, expect, test } from '@jest/globals';
import { written } from '../sentence/sentence.ts';
import { keptUnits, unitSets } from '../units/told-units.ts';
import { exampleRuns, reportedExample, reportSourceOf } from '../testing/reported-example.ts';
import { plausible } from '../judgement/told-figures.ts';
import { composeReport } from './compose-report.ts';
import { drafted, untouched } from './drafted.ts';
import { plainReport } from './plain-text.ts';
import { writtenReport } from './written-report.ts';
import { reportSides } from './report-request.ts';
import type { BlockId, Content } from './report.ts';
import type { ReportSource } from './reported-job.ts';

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
    const { headline, lead } = contentOf(reportSourceOf(), 'answer', 'answer');
    expect(written(headline)).toMatch(/^\d\.\d ± \d\.\d kW more from 4,500 to 6,400 rpm\.$/);
    expect(written(lead[0]!)).toBe('The question was: Does it pay above 5,000?');
    const us = unitSets.find(({ name }) => name === 'US')!.units;
    expect(written(headline, us)).toMatch(/^\d\.\d ± \d\.\d hp more/);
  });

  test('a change that shows nothing is told as such', () => {
    const moved = exampleRuns.slice(0, 3).map((run) => (run.id === 3 ? { ...run, setupId: 2, label: 'B1' } : run));
    const none = reportSourceOf({ runs: moved, bestRunId: null });
    expect(written(contentOf(none, 'answer', 'answer').headline)).toMatch(
      /^(No change of power could be shown from|Nothing is shown yet: )/,
    );
  });

  test('why nothing is claimed stands among what is to be read with care, whatever the headline tells of another band', () => {
    const whole = reportSourceOf();
    const comparison = whole.figures.comparison!;
    const drifting = {
      ...comparison,
      judgement: { ...comparison.judgement, withheld: [{ id: 'drift' as const, perRunKw: 0.1 }] },
    };
    const told = (of: ReportSource) => contentOf(of, 'care', 'list').items.map(({ text }) => written(text));
    expect(told({ ...whole, figures: { ...whole.figures, comparison: drifting } })).toContain(
      'Nothing is claimed from 4,500 to 6,400 rpm: a drift of +0.1 kW from run to run can look the same: return to what arrived for a run.',
    );
    expect(told(whole).filter((text) => text.startsWith('Nothing is claimed'))).toEqual([]);
  });

  test('arrived, delivered and best are three figures with what they were measured under', () => {
    const { figures } = contentOf(reportSourceOf(), 'figures', 'figures');
    expect(figures.map(({ name }) => name)).toEqual(['Arrived', 'Delivered', 'Best seen']);
    expect(figures[1]!.kw / figures[0]!.kw).toBeCloseTo(1.03, 2);
    expect(figures[0]!.halfWidthKw).toBeGreaterThan(0);
    // One run has no interval of its own.
    expect(figures[2]!.halfWidthKw).toBeUndefined();
    expect(written(figures[0]!.note)).toMatch(/^peak, mean of 3 runs, .*98 octane, 5 % ethanol stated, 14 May 2026$/);
    expect(written(figures[2]!.note)).toMatch(/^B3 alone/);
  });

  test('other figures are chosen in their order; words of one’s own are added and take nothing away', () => {
    const report = composeReport(reportSourceOf());
    const { others } = contentOf(reportSourceOf(), 'figures', 'figures');
    expect(others.map(({ id }) => id)).toEqual(['setup C', 'run A1', 'run A2', 'run A3', 'run B1', 'run B2', 'run C1']);
    const draft = {
      ...untouched,
      figures: ['run B1', 'arrived', 'run Z9'],
      titles: { care: 'Please note' },
      notes: { care: 'The tyres were new.' },
    };
    const blocks = drafted(report, draft);
    const figures = blocks.find(({ id }) => id === 'figures')!.content as Extract<Content, { is: 'figures' }>;
    expect(figures.figures.map(({ name }) => name)).toEqual(['Run B1', 'Arrived']);
    const [before, after] = [report.blocks, blocks].map((list) => list.find(({ id }) => id === 'care')!);
    expect(after).toEqual({ ...before, title: 'Please note', note: 'The tyres were new.' });
    const texts = plainReport(writtenReport(report, draft, reportSourceOf(), keptUnits));
    expect(texts).toMatch(/PLEASE NOTE\nThe tyres were new\.\n[-!] /);
    expect(texts).toMatch(/Run B1: ≥ \d+\.\d kW \(B1 alone/);
  });

  test('each change stands with its gain, what may be claimed, and what became of it', () => {
    const rows = rowsOf(reportSourceOf(), 'ladder');
    expect(rows).toHaveLength(2);
    expect(rows[0]![0]).toBe('B, Short intake');
    expect(rows[0]![1]).toMatch(/^\+\d\.\d ± \d\.\d kW$/);
    expect(rows[0]![2]).toBe('yes');
    expect(rows[1]![2]).toMatch(/^put back/);
    const undecided = rowsOf(
      reportSourceOf({ setups: reportedExample.setups.map((one) => ({ ...one, decision: null })) }),
      'ladder',
    );
    expect(undecided[0]![2]).toBe('not decided, in what is delivered');
    expect(undecided[1]![2]).toMatch(/^not decided/);
    const [b, c] = contentOf(reportSourceOf(), 'ladder', 'table').rows;
    expect(b![1]!.tone).toBe('gain');
    expect(c![1]!.tone).toBeUndefined();
  });

  test('bands, limits, what was not tested, what is back, the file and how it was made are drawn from what is known', () => {
    expect(rowsOf(reportSourceOf(), 'bands').map(([name]) => name)).toContain('power: climb, 4,500 to 6,400 rpm');
    const limits = rowsOf(reportSourceOf(), 'limits');
    expect(limits.find(([name]) => name === 'Torque')![1]).toBe('120 N·m');
    const { head } = contentOf(reportSourceOf(), 'limits', 'table');
    expect(head.map(({ text }) => text)).toEqual(['limit', 'set', 'read in A3', 'read in B3', 'left']);
    const [, , before, after] = limits.find(([name]) => name === 'Torque')!.map((text) => Number.parseFloat(text));
    expect(after! / before!).toBeCloseTo(1.03, 2);
    expect(contentOf(reportSourceOf(), 'untested', 'list').items.map(({ text }) => text)).toEqual([
      'Cold start',
      'wet key setting',
    ]);
    expect(contentOf(reportSourceOf(), 'putBack', 'list').items.map(({ text }) => text)).toEqual([
      'Rev limiter where it belongs',
    ]);
    expect(written(contentOf(reportSourceOf(), 'file', 'text').paragraphs[0]!)).toMatch(
      /^tarrow-r3\.bin, SHA-256 9f2c41aa 00112233…\. Nearest limit: /,
    );
    const [how, rests] = contentOf(reportSourceOf(), 'made', 'text').paragraphs.map((sentence) => written(sentence));
    expect(how).toMatch(/^At the wheels, corrected to SAE J1349 \(×[\d.]+ to ×[\d.]+\), smoothed over 300 rpm/);
    expect(rests).toMatch(/^3 runs as arrived, 3 as delivered\. ± is a 95 % interval/);
    const [conditions] = contentOf(reportSourceOf(), 'conditions', 'text').paragraphs.map((sentence) =>
      written(sentence),
    );
    expect(conditions).toMatch(
      /4th gear\. Air at the inlet 21 to 22 °C, 1,000 hPa, 40 % humidity\. Measured on 14 May 2026\.$/,
    );
  });

  test('what was wanted stands with what arrived and what is delivered made of it', () => {
    const [peak, torque] = rowsOf(reportSourceOf(), 'targets');
    expect(peak!.slice(0, 2)).toEqual(['peak power', '60 kW at the wheels, SAE J1349']);
    expect(Number.parseFloat(peak![3]!) / Number.parseFloat(peak![2]!)).toBeCloseTo(1.03, 2);
    expect(peak![4]).toMatch(/^(reached|\d+\.\d kW short)$/);
    expect(torque![0]).toBe('mean torque from 4,500 to 6,400 rpm');
    expect(torque![4]).toMatch(/^reached: would read 117 to 132 N·m here, by the usual losses$/);
    expect(composeReport(reportSourceOf({ targets: [] })).blocks.map(({ id }) => id)).not.toContain('targets');
  });

  test('on the road each gear has its times, their difference with an interval, and where to shift; what is assumed is said', () => {
    const { rows, note } = contentOf(reportSourceOf(), 'road', 'table');
    const told = rows.map((row) => row.map(({ text }) => written(text)));
    expect(told.map(([gear]) => gear)).toEqual(['3rd', '4th']);
    for (const [, span, before, after, gained] of told) {
      expect(span).toMatch(/^\d+ to \d+ km\/h$/);
      expect(Number(after!.split(' ')[0])).toBeLessThan(Number(before!.split(' ')[0]));
      expect(gained).toMatch(/^−\d\.\d\d ± \d\.\d\d s$/);
    }
    expect(rows[0]![4]!.tone).toBe('gain');
    expect(written(rows[0]![5]!.text)).toMatch(/^\d+ km\/h$/);
    expect(written(note!)).toMatch(
      /^Estimate for a level road.*940 kg, drag area 0\.65 m².*\(drag, rolling drag assumed\).*driven tyres’ drag already.*At 1,600 m and 30 °C its peak would be about \d\d kW .*outside what SAE J1349 allows/,
    );
    // Without gears, or for the crank, nothing is told.
    const bare = reportSourceOf({ car: { ...reportedExample.car, gears: [] } });
    expect(composeReport(bare).blocks.map(({ id }) => id)).not.toContain('road');
  });

  test('rating and claim are held against what arrived, for orientation', () => {
    const rows = rowsOf(reportSourceOf(), 'expectation');
    expect(rows[0]!.slice(0, 3)).toEqual(['factory rating, at the crank', '98 kW', '76 to 86 kW']);
    expect(rows[1]![0]).toBe('claimed by the seller, at the wheels');
    expect(rows[1]![3]).toMatch(/^\d+\.\d kW: less than that: find the fault first$/);
    expect(rowsOf(reportSourceOf({ claimedValue: 100, claimedScale: 'crank' }), 'expectation')[1]![2]).toBe(
      '58 to 66 kW',
    );
    const none = reportSourceOf({ claimedValue: null, car: { ...reportedExample.car, factoryKw: null } });
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
    expect(missingOf(reportSourceOf())).toEqual([
      'The last run is C1: B was not verified after it.',
      'Not ticked as put back: Probes taken out.',
    ]);
    const bare = reportSourceOf({
      deliveredSetupId: null,
      question: '',
      owner: '',
      bands: [],
      tuneFiles: [],
      untested: '',
      putBack: [],
    });
    expect(missingOf(bare).join(' ')).toMatch(
      /No setup is named as delivered: B stands in\..*No question.*No owner.*No band.*No tune file.*not tested/,
    );
    expect(composeReport(bare).blocks.map(({ id }) => id)).not.toContain('file');
    expect(missingOf(reportSourceOf({ putBack: [] }, ({ setupId }) => setupId !== 3))).toEqual([]);
  });

  test('one setup alone is no comparison, and still a report', () => {
    const alone = reportSourceOf(
      { deliveredSetupId: null, bestRunId: null, setups: reportedExample.setups.slice(0, 1) },
      ({ setupId }) => setupId === 1,
    );
    expect(written(contentOf(alone, 'answer', 'answer').headline)).toBe(
      'The car as it arrived: nothing was changed and measured yet.',
    );
    expect(contentOf(alone, 'figures', 'figures').figures).toHaveLength(1);
    expect(composeReport(alone).blocks.map(({ id }) => id)).not.toContain('ladder');
  });

  test('what is delivered where nobody said is the last that was not gone back from', () => {
    expect(reportSides({ ...reportedExample, deliveredSetupId: null })).toEqual({ arrivedId: 1, deliveredId: 2 });
    expect(reportSides({ ...reportedExample, deliveredSetupId: 3 })).toEqual({ arrivedId: 1, deliveredId: 3 });
  });
});
