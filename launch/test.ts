import { existsSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { z } from 'zod';
import { buildWeb } from './build-web.ts';
import { runTool, runWhole, type Outcome } from './check.ts';
import { findChromium } from './chromium.ts';
import { Failure } from './failure.ts';
import { ownCluster } from './own-cluster.ts';
import type { Cluster } from './postgres.ts';
import { browserSuites, jestTestsOf, jestTimes, slowestWords, testsOf } from './slowest.ts';
import { apiFolders, testFilesIn, unitFolders } from './test-parts.ts';
import { testsFolder } from './tests-folder.ts';
import { writeGroups, writeTimes } from './tests-together.ts';

/**
 * `npm test`: everything that must hold, from a bare clone, ending in one line
 * that counts. `npm run test:unit`, `test:api` and `test:browser` run one part,
 * with names of tests after `--`; `npm run soak` the longer browser tests.
 */
const say = (text: string) => process.stdout.write(`${text}\n`);
// A soak writes more than may lie in memory.
const folder = process.env.SUVOK_SOAK ? testsFolder(tmpdir()) : testsFolder();
// Whatever a test leaves behind goes with it.
process.env.TMPDIR = folder;
let cluster: Cluster | undefined;

const jestReport = z.object({
  numPassedTests: z.number(),
  numFailedTests: z.number(),
  numRuntimeErrorTestSuites: z.number(),
});
const playwrightReport = z.object({
  stats: z.object({ expected: z.number(), unexpected: z.number(), flaky: z.number() }),
  errors: z.array(z.unknown()),
});

async function tidyUp(): Promise<void> {
  await cluster?.stop();
  rmSync(folder, { recursive: true, force: true });
}

const groupsFolder = 'dist/tests-together';

/** Jest's tests under some folders. @param databaseUrl absent where no test needs one */
async function jestTests(folders: readonly string[], names: readonly string[], databaseUrl?: string): Promise<Outcome> {
  const report = join(folder, 'jest.json');
  // What is asked for by name is run file by file.
  const together = names.length === 0;
  const alone = together ? writeGroups(process.cwd(), groupsFolder, testFilesIn(folders)) : [];
  const roots = together ? [...folders, groupsFolder] : folders;
  const { out } = await runTool(
    ['jest/bin/jest.js', ...roots.map((path) => `--roots=${path}`), '--json', `--outputFile=${report}`, ...names],
    {
      NODE_OPTIONS: '--experimental-vm-modules --no-warnings',
      ...(together ? { SUVOK_TESTS_TOGETHER: '1', SUVOK_TESTS_ALONE: alone.join(' ') } : {}),
      ...(databaseUrl ? { SUVOK_TEST_DATABASE_URL: databaseUrl } : {}),
    },
  );
  if (!existsSync(report)) {
    say(`Unit and API tests did not run\n${out}`);
    return { passed: 0, failed: 1 };
  }
  const written: unknown = JSON.parse(readFileSync(report, 'utf8'));
  const found = jestReport.parse(written);
  const took = jestTestsOf(jestTimes.parse(written), process.cwd());
  if (process.env.SUVOK_TEST_TIMES) writeTimes(took);
  const outcome = { passed: found.numPassedTests, failed: found.numFailedTests + found.numRuntimeErrorTestSuites };
  say(`Unit and API tests: ${outcome.passed} passed, ${outcome.failed} failed`);
  say(slowestWords(took, process.env.SUVOK_TEST_TIMES ? 60 : 6));
  // Jest prints its findings and then the report itself, which is one long line. A soak's tables are findings.
  if (outcome.failed > 0 || process.env.SUVOK_SOAK)
    say(
      out
        .split('\n')
        .filter((line) => !line.startsWith('{"'))
        .join('\n'),
    );
  return outcome;
}

async function browserTests(databaseUrl: string, chromium: string, names: readonly string[]): Promise<Outcome> {
  const report = join(folder, 'playwright.json');
  const { out } = await runTool(['@playwright/test/cli.js', 'test', '--reporter=line,json', ...names], {
    SUVOK_TEST_DATABASE_URL: databaseUrl,
    SUVOK_CHROMIUM: chromium,
    PLAYWRIGHT_JSON_OUTPUT_NAME: report,
    PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: '1',
    PWTEST_CACHE_DIR: resolve('node_modules/.cache/playwright'),
    // What is asked for by name is run, however long it takes.
    ...(names.length > 0 ? { SUVOK_LONG: '1' } : {}),
  });
  if (!existsSync(report)) {
    say(`Browser tests did not run\n${out}`);
    return { passed: 0, failed: 1 };
  }
  const written: unknown = JSON.parse(readFileSync(report, 'utf8'));
  const { stats, errors } = playwrightReport.parse(written);
  // A file that cannot be loaded leaves nothing to count.
  const none = stats.expected + stats.flaky + stats.unexpected === 0 ? 1 : 0;
  const outcome = { passed: stats.expected + stats.flaky, failed: stats.unexpected + Math.max(errors.length, none) };
  say(
    `Browser tests: ${outcome.passed} passed, ${outcome.failed} failed${stats.flaky ? `, ${stats.flaky} only at a second try` : ''}`,
  );
  say(slowestWords(testsOf(browserSuites.parse(written)), process.env.SUVOK_TEST_TIMES ? 60 : 6));
  if (outcome.failed > 0) say(out);
  return outcome;
}

async function testDatabase(): Promise<string> {
  say('Starting a database for the tests');
  cluster = await ownCluster(folder, { say, forTests: true });
  return cluster.url('postgres');
}

async function browserPart(databaseUrl: string, names: readonly string[] = []): Promise<Outcome> {
  const chromium = await findChromium(say);
  await buildWeb(say);
  return browserTests(databaseUrl, chromium, names);
}

/** Tests that have a long form. */
const soaked = [
  'core/fuelling/fuelling-table',
  'core/checks/motion-checks',
  'recorder/run/killed-anywhere',
  'server/recording/bad-lines',
  'server/recording/database-calls',
  'recorder/run/saved-in-time',
  'launch/start',
  'server/recording/killed',
  'server/recording/hours-away',
  'server/routes/bad-input',
  'server/routes/reports',
  'server/work-queue',
];

/** Folders of the project's own code. */
const roots = [
  'core',
  'contract',
  'cli',
  'store',
  'recorder',
  'server',
  'web',
  'simulator',
  'launch',
  'operations',
  'bench',
  'e2e',
];

/** What holds of the code as it is written: rules and types, layout, circles, what nobody uses. */
async function staticChecks(): Promise<Outcome[]> {
  const outcomes = await Promise.all([
    inTurn([
      () => runWhole('Lint and types', ['oxlint/bin/oxlint', '-c', 'oxlint.config.js', '--type-aware', '--type-check']),
      () => runWhole('Layout', ['oxfmt/bin/oxfmt', '--check']),
    ]),
    inTurn([
      () =>
        runWhole('Circles', [
          'dependency-cruiser/bin/dependency-cruise.mjs',
          '--config',
          '.dependency-cruiser.cjs',
          ...roots,
        ]),
      () => runWhole('Unused', ['knip/bin/knip.js', '--no-progress']),
    ]),
  ]);
  return outcomes.flat();
}

async function inTurn(steps: readonly (() => Promise<Outcome>)[]): Promise<Outcome[]> {
  const outcomes: Outcome[] = [];
  for (const step of steps) outcomes.push(await step());
  return outcomes;
}

async function test(): Promise<Outcome[]> {
  const [part, ...names] = process.argv.slice(2);
  switch (part) {
    case 'unit':
      return [await jestTests(unitFolders, names)];
    case 'api':
      return [await jestTests(apiFolders, names, await testDatabase())];
    case 'browser':
      return [await browserPart(await testDatabase(), names)];
    case undefined:
      break;
    default:
      throw new Failure(`There is no part "${part}" of the tests: unit, api and browser are, or all without a word.`);
  }
  if (process.env.SUVOK_SOAK) {
    const database = await testDatabase();
    return [await jestTests([...unitFolders, ...apiFolders], soaked, database), await browserPart(database)];
  }
  // What is checked as it is written leaves a processor free now and then: database, browser and page are made meanwhile.
  const [databaseUrl, checked] = await Promise.all([
    testDatabase(),
    staticChecks(),
    findChromium(say).then(() => buildWeb(say)),
  ]);
  return [
    ...checked,
    await jestTests([...unitFolders, ...apiFolders], [], databaseUrl),
    await browserPart(databaseUrl),
  ];
}

for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => void tidyUp().then(() => process.exit(1)));

let code = 1;
try {
  const outcomes = await test();
  await tidyUp();
  const passed = outcomes.reduce((sum, outcome) => sum + outcome.passed, 0);
  const failed = outcomes.reduce((sum, outcome) => sum + outcome.failed, 0);
  say(`${passed} passed, ${failed} failed`);
  code = failed === 0 ? 0 : 1;
} catch (error) {
  await tidyUp();
  process.stderr.write(`suvok: ${error instanceof Failure ? error.message : String((error as Error).stack)}\n`);
}
process.exit(code);
