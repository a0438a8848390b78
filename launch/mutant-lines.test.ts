import { expect, test } from '@jest/globals';
import { codeLines, survivors, withLater } from './mutant-lines.ts';

test('what may hold something to change: no comment, no import, no lone bracket', () => {
  const text = `import { a } from './a.ts';
import {
  b,
} from './b.ts';

/** What it does:
 * twice. */
export function twice(value: number): number {
  // Why.
  return 2 * value; /* of old */
}
export { a } from './a.ts';
`;
  expect(codeLines(text)).toEqual([8, 10]);
});

const mutant = (place: string, status: string, replacement = '') => ({
  place,
  pattern: place,
  kind: 'ArithmeticOperator',
  replacement,
  status,
});

test('alive is what no test reached, or none noticed', () => {
  const mutants = ['Killed', 'Timeout', 'Survived', 'NoCoverage'].map((status) => mutant('a.ts:1:1-1:2', status));
  expect(survivors(mutants).map(({ status }) => status)).toEqual(['Survived', 'NoCoverage']);
});

test('a later round kills what it tried and noticed; what it did not try stays as it was', () => {
  const first = ['-', '+', '*'].map((replacement) => mutant('a.ts:1:1-1:2', 'Survived', replacement));
  const later = [mutant('a.ts:1:1-1:2', 'Killed', '-'), mutant('a.ts:1:1-1:2', 'NoCoverage', '+')];
  expect(withLater([...first, mutant('a.ts:2:1-2:2', 'Killed')], later).map(({ status }) => status)).toEqual([
    'Killed',
    'Survived',
    'Survived',
    'Killed',
  ]);
});
