import { describe, expect, test } from '@jest/globals';
import type { Setup } from '../../../../contract/job/records.ts';
import { linesOf, showing } from './line-list.ts';

const setup = (id: number, letter: string) => ({ id, letter, change: '' }) as Setup;
const [a, b, c, d] = [setup(1, 'A'), setup(2, 'B'), setup(3, 'C'), setup(4, 'D')];
const ran = [a!, b!, c!, d!];
const view = { test: d!, against: c!, baseline: a!, also: [] as string[], hide: [] as string[] };
const usual = ['D', 'C', 'A'];

const shownOf = (wanted: Partial<typeof view>) =>
  linesOf(ran, { ...view, ...wanted })
    .filter(({ shown }) => shown)
    .map(({ letter }) => letter);

describe('which lines are drawn', () => {
  test('the compared setup, its parent and the baseline, unless something else is asked for', () => {
    expect(shownOf({})).toEqual(['A', 'C', 'D']);
    expect(shownOf({ also: ['B'], hide: ['C'] })).toEqual(['A', 'B', 'D']);
  });

  test('the compared setup cannot be hidden', () => {
    expect(shownOf({ hide: ['D'] })).toContain('D');
  });

  test('what is written into the address shows exactly what was wanted', () => {
    for (const letters of [[], ['B'], ['A', 'B', 'C'], ['C'], ['A', 'C']]) {
      const { also, hide } = showing(linesOf(ran, view), usual, letters) as { also?: string; hide?: string };
      const list = (text: string | undefined) => text?.split('.') ?? [];
      expect(shownOf({ also: list(also), hide: list(hide) })).toEqual([...letters, 'D'].sort());
    }
  });

  test('the usual lines leave nothing in the address', () => {
    expect(showing(linesOf(ran, view), usual, ['A', 'C'])).toEqual({ also: undefined, hide: undefined });
  });
});
