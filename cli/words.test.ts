import { describe, expect, test } from '@jest/globals';
import { sortedWords, wordOf } from './words.ts';

const sorted = (...words: string[]) => sortedWords(words, ['dyno', 'share'], ['test', 'band']);

describe('words of a command line', () => {
  test('each goes to the option before it; those before all options stand by themselves', () => {
    const { before, options } = sorted('A1.csv', '--dyno', 'd.json', '--test', 'B1.csv', 'B2.csv');
    expect(before).toEqual(['A1.csv']);
    expect(Object.fromEntries(options)).toEqual({ dyno: ['d.json'], test: ['B1.csv', 'B2.csv'] });
  });

  test('an option of one word takes one: the next is nobody’s', () => {
    const { before, options } = sorted('--dyno', 'd.json', 'A1.csv');
    expect(before).toEqual(['A1.csv']);
    expect(options.get('dyno')).toEqual(['d.json']);
  });

  test('a value may stand after an equals sign, with others after it where many are taken', () => {
    const words = sorted('--share=50', 'A1.csv', '--band=3000-4000', '5000-5600', '--band', '2000-2500');
    expect(wordOf(words, 'share')).toBe('50');
    expect(words.options.get('band')).toEqual(['3000-4000', '5000-5600', '2000-2500']);
    expect(words.before).toEqual(['A1.csv']);
    // Everything after the first equals sign, signs of its own included.
    expect(wordOf(sorted('--dyno=a=b'), 'dyno')).toBe('a=b');
  });

  test('what is not there has no word', () => {
    expect(wordOf(sorted(), 'share')).toBeUndefined();
  });

  test.each([
    [['--tyre', '3'], /no option --tyre here; known are --dyno, --share, --test, --band/],
    [['--share', '50', '--share', '60'], /--share is given twice/],
    [['--share'], /--share needs a value after it/],
    [['--test', '--dyno', 'd.json'], /--test needs a value after it/],
  ] as const)('%j is refused', (words, sentence) => {
    expect(() => sorted(...words)).toThrow(sentence);
  });
});
