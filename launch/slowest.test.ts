import { expect, test } from '@jest/globals';
import { browserSuites, filesOf, jestFiles, slowestWords, testsOf } from './slowest.ts';

test('files of unit tests are told by their times, the slowest first', () => {
  const report = jestFiles.parse({
    testResults: [
      { name: '/p/core/a.test.ts', startTime: 0, endTime: 1200 },
      { name: '/p/core/b.test.ts', startTime: 100, endTime: 9100 },
    ],
    numPassedTests: 2,
  });
  expect(slowestWords(filesOf(report, '/p'))).toBe('Slowest: core/b.test.ts 9 s · core/a.test.ts 1 s');
  expect(slowestWords(filesOf(report, '/p'), 1)).toBe('Slowest: core/b.test.ts 9 s');
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
