import { expect, test } from '@jest/globals';
import { browserSuites, jestTestsOf, jestTimes, slowestWords, testsOf } from './slowest.ts';

test('unit tests are told with their files, whether these ran together or alone', () => {
  const report = jestTimes.parse({
    testResults: [
      {
        name: '/p/dist/tests-together/000-core-1.test.ts',
        assertionResults: [
          { ancestorTitles: ['core/a.test.ts', 'a curve'], title: 'rises', duration: 1200 },
          { ancestorTitles: ['core/b.test.ts'], title: 'falls', duration: 9000 },
        ],
      },
      { name: '/p/web/c.test.tsx', assertionResults: [{ ancestorTitles: ['c'], title: 'shows', duration: null }] },
    ],
  });
  const took = jestTestsOf(report, '/p');
  expect(took.map(({ file }) => file)).toEqual(['core/a.test.ts', 'core/b.test.ts', 'web/c.test.tsx']);
  expect(slowestWords(took, 2)).toBe('Slowest: core/b.test.ts: falls 9 s · core/a.test.ts: rises 1 s');
});

test('browser tests are found in any depth; a second try counts with the first', () => {
  const spec = (title: string, ...durations: number[]) => ({
    title,
    file: 'a.e2e.ts',
    tests: [{ results: durations.map((duration) => ({ duration })) }],
  });
  const report = browserSuites.parse({
    suites: [
      { file: 'a.e2e.ts', specs: [spec('one', 2000)], suites: [{ suites: [], specs: [spec('two', 3000, 4000)] }] },
    ],
  });
  expect(slowestWords(testsOf(report))).toBe('Slowest: a.e2e.ts: two 7 s · a.e2e.ts: one 2 s');
});
