import { expect, test } from '@jest/globals';
import { codeLines, survivors } from './mutant-lines.ts';

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

test('alive is what no test reached, or none noticed', () => {
  const mutants = ['Killed', 'Timeout', 'Survived', 'NoCoverage'].map((status) => ({
    file: 'a.ts',
    place: `a.ts:1:1-1:2 ${status}`,
    line: 1,
    kind: 'ArithmeticOperator',
    replacement: '',
    status,
  }));
  expect(survivors(mutants).map(({ status }) => status)).toEqual(['Survived', 'NoCoverage']);
});
