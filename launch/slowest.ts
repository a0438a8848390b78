import { z } from 'zod';

/** What took how long, ms. */
interface Took {
  name: string;
  ms: number;
}

/** Jest's report, as far as its tests tell their times; of those that are run together the file is their first title. */
export const jestTimes = z.object({
  testResults: z.array(
    z.object({
      name: z.string(),
      assertionResults: z.array(
        z.object({
          ancestorTitles: z.array(z.string()),
          title: z.string(),
          duration: z.number().nullish(),
        }),
      ),
    }),
  ),
});

interface Suite {
  file?: string | undefined;
  suites?: Suite[] | undefined;
  specs?: { title: string; file: string; tests: { results: { duration: number }[] }[] }[] | undefined;
}
const suite: z.ZodType<Suite> = z.object({
  file: z.string().optional(),
  get suites() {
    return z.array(suite).optional();
  },
  specs: z
    .array(
      z.object({
        title: z.string(),
        file: z.string(),
        tests: z.array(z.object({ results: z.array(z.object({ duration: z.number() })) })),
      }),
    )
    .optional(),
});
/** Playwright's report, as far as its tests tell theirs. */
export const browserSuites = z.object({ suites: z.array(suite) });

const isFile = (title: string | undefined) => title !== undefined && /\.test\.tsx?$/.test(title);

/** Jest's tests with their files and times, ms. @param project the folder that files are told from */
export function jestTestsOf({ testResults }: z.output<typeof jestTimes>, project: string): (Took & { file: string })[] {
  return testResults.flatMap(({ name, assertionResults }) =>
    assertionResults.map(({ ancestorTitles, title, duration }) => {
      const [first] = ancestorTitles;
      const file = first !== undefined && isFile(first) ? first : name.replace(project, '').replace(/^\//, '');
      return { file, name: `${file}: ${title}`, ms: duration ?? 0 };
    }),
  );
}

/** The browser's tests with their times, tries together. */
export function testsOf({ suites }: { suites: readonly Suite[] }): Took[] {
  return suites.flatMap(({ suites: within = [], specs = [] }) => [
    ...testsOf({ suites: within }),
    ...specs.map(({ title, file, tests }) => ({
      name: `${file}: ${title}`,
      ms: tests.flatMap(({ results }) => results).reduce((sum, { duration }) => sum + duration, 0),
    })),
  ]);
}

/** The slowest, in a line: where a run that takes too long is to be looked at. */
export function slowestWords(took: readonly Took[], most = 6): string {
  const slowest = [...took].sort((a, b) => b.ms - a.ms).slice(0, most);
  return `Slowest: ${slowest.map(({ name, ms }) => `${name.slice(0, 70)} ${(ms / 1000).toFixed(0)} s`).join(' · ')}`;
}
