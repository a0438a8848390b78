import { expect, test } from '@jest/globals';
import { comparedAt } from '../testing/two-setups.ts';
import { gainTableContent, gainTableText } from './gain-table-content.ts';

function table(address: string) {
  const { view, figures } = comparedAt(address);
  return gainTableContent(figures.comparison!, view, figures.estimate);
}

test('rows in their sections, each with both sides, its signed gain and its interval', () => {
  const { heads, sections } = table('band=3000-5000&at=4500');
  expect(heads).toEqual(['A', 'B', 'gain']);
  expect(sections.map(({ name }) => name)).toEqual(['power, kW', 'torque, N·m', 'time to sweep, s, as driven']);
  const [power] = sections;
  expect(power!.rows.map(({ label }) => label)).toEqual([
    'band, 3,000–5,000',
    'common range',
    expect.stringMatching(/^clear gain, \d,\d{3}–\d,\d{3}$/),
    'at 4,500 rpm',
    expect.stringMatching(/^largest gain, at/),
    expect.stringMatching(/^peak(, at least)? \(\d,\d{3} rpm\)|^peak(, at least)? \(A \d,\d{3} · B \d,\d{3} rpm\)/),
  ]);
  const band = power!.rows[0]!;
  expect(band).toMatchObject({
    id: 'band',
    tone: 'gain',
    gain: expect.stringMatching(/^\+\d+\.\d$/),
    halfWidth: expect.stringMatching(/^±/),
  });
  expect(Number(band.test) - Number(band.baseline)).toBeCloseTo(Number(band.gain), 0);
});

test('in percent the gain says so, other figures stay in their units; an estimate stands in the sections’ names', () => {
  const { heads, sections } = table('gain=percent&power=hp&crank=15');
  expect(heads[2]).toBe('gain, %');
  expect(sections[0]!.name).toBe('power, hp ≈ at the crank (15 % lost, assumed)');
  expect(Number(sections[0]!.rows[0]!.gain)).toBeCloseTo(3, 0);
});

test('the sides exchanged turn every sign', () => {
  const [there, back] = [table('band=3000-5000'), table('setup=A&against=B&band=3000-5000')];
  const band = (content: typeof there) => content.sections[0]!.rows[0]!;
  expect(band(back).gain).toBe(band(there).gain.replace('+', '−'));
  expect(band(back).tone).toBe('loss');
});

test('for a spreadsheet: a line a row, as many cells in each', () => {
  const text = gainTableText(table('band=3000-5000'));
  const rows = text.split('\n').map((line) => line.split('\t'));
  expect(rows[0]).toEqual(['', 'A', 'B', 'gain', '±95 %']);
  expect(rows.filter((row) => row.length !== 1).every((row) => row.length === 5)).toBe(true);
  expect(text).toContain('common range\t');
});
