import { expect, test } from '@jest/globals';
import { reportSourceOf } from '../testing/reported-example.ts';
import { keptUnits } from '../units/told-units.ts';
import { composeReport } from './compose-report.ts';
import { untouched } from './drafted.ts';
import { plainReport } from './plain-text.ts';
import { writtenReport } from './written-report.ts';

const source = reportSourceOf();
const report = writtenReport(composeReport(source), untouched, source, { ...keptUnits, space: '\u00a0' });

test('an e-mail has the answer, figures and tables of the report, in letters that any mail takes', () => {
  const text = plainReport(report);
  expect(text).toMatch(/^Tarrow Six · TS 66 · for A\. Sorrel\n14 May 2026 · job 12\n\n\d\.\d ± \d\.\d kW more from/);
  expect(text).toMatch(/\nArrived: \d+\.\d kW \(± \d\.\d, peak, mean of 3 runs, /);
  expect(text).toContain('\nREAD WITH CARE\n! ');
  expect(text).not.toContain('\u00a0');
});

test('columns of a table stand under one another, figures to the right', () => {
  const lines = plainReport(report).split('\n');
  const from = lines.indexOf('WHERE IT MATTERS');
  const [head, ...rows] = lines.slice(from + 1, from + 4);
  const ends = (line: string, words: string) => line.indexOf(words) + words.length;
  for (const row of rows) expect(row.length).toBe(head!.length);
  expect(head!.endsWith('gain')).toBe(true);
  expect(ends(head!, 'arrived')).toBe(ends(rows[0]!, ' kW'));
});
