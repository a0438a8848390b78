import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { z } from 'zod';
import { databaseAccount } from './account.ts';
import { buildWeb } from './build-web.ts';
import { runTool, runWhole, type Outcome } from './check.ts';
import { findChromium } from './chromium.ts';
import { Failure } from './failure.ts';
import { startCluster, type Cluster } from './postgres.ts';
import { postgresPrograms } from './postgres-programs.ts';

/** `npm test`: everything that must hold, from a bare clone, ending in one line that counts. `npm run soak`: the longer browser tests alone. */
const say = (text: string) => process.stdout.write(`${text}\n`);
const folder = mkdtempSync(join(tmpdir(), 'suvok-test-'));
let cluster: Cluster | undefined;

const jestReport = z.object({
  numPassedTests: z.number(),
  numFailedTests: z.number(),
  numRuntimeErrorTestSuites: z.number(),
});
const playwrightReport = z.object({
  stats: z.object({ expected: z.number(), unexpected: z.number(), flaky: z.number() }),
});

async function tidyUp(): Promise<void> {
  await cluster?.stop();
  rmSync(folder, { recursive: true, force: true });
}

async function unitTests(databaseUrl: string): Promise<Outcome> {
  const report = join(folder, 'jest.json');
  const words = ['jest/bin/jest.js', '--json', `--outputFile=${report}`, ...process.argv.slice(2)];
  const { out } = await runTool(words, {
    NODE_OPTIONS: '--experimental-vm-modules --no-warnings',
    SUVOK_TEST_DATABASE_URL: databaseUrl,
  });
  if (!existsSync(report)) {
    say(`Unit and API tests did not run\n${out}`);
    return { passed: 0, failed: 1 };
  }
  const found = jestReport.parse(JSON.parse(readFileSync(report, 'utf8')));
  const outcome = { passed: found.numPassedTests, failed: found.numFailedTests + found.numRuntimeErrorTestSuites };
  say(`Unit and API tests: ${outcome.passed} passed, ${outcome.failed} failed`);
  // Jest prints its findings and then the report itself, which is one long line.
  if (outcome.failed > 0)
    say(
      out
        .split('\n')
        .filter((line) => !line.startsWith('{"'))
        .join('\n'),
    );
  return outcome;
}

async function browserTests(databaseUrl: string, chromium: string): Promise<Outcome> {
  const report = join(folder, 'playwright.json');
  const { out } = await runTool(['@playwright/test/cli.js', 'test', '--reporter=line,json'], {
    SUVOK_TEST_DATABASE_URL: databaseUrl,
    SUVOK_CHROMIUM: chromium,
    PLAYWRIGHT_JSON_OUTPUT_NAME: report,
    PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD: '1',
  });
  if (!existsSync(report)) {
    say(`Browser tests did not run\n${out}`);
    return { passed: 0, failed: 1 };
  }
  const { stats } = playwrightReport.parse(JSON.parse(readFileSync(report, 'utf8')));
  const outcome = { passed: stats.expected + stats.flaky, failed: stats.unexpected };
  say(
    `Browser tests: ${outcome.passed} passed, ${outcome.failed} failed${stats.flaky ? `, ${stats.flaky} only at a second try` : ''}`,
  );
  if (outcome.failed > 0) say(out);
  return outcome;
}

async function test(): Promise<Outcome[]> {
  const programs = await postgresPrograms(say);
  const chromium = await findChromium(say);
  say('Starting a database for the tests');
  chmodSync(folder, 0o711);
  cluster = await startCluster({
    programs,
    folder: join(folder, 'postgresql'),
    account: databaseAccount(),
    forTests: true,
  });
  const databaseUrl = cluster.url('postgres');
  if (process.env.SUVOK_SOAK) {
    await buildWeb(say);
    return [await browserTests(databaseUrl, chromium)];
  }
  const [lint, types] = await Promise.all([
    runWhole('Lint', ['eslint/bin/eslint.js', '.', '--max-warnings', '0']),
    runWhole('Types', ['typescript/bin/tsc', '--noEmit']),
  ]);
  const units = await unitTests(databaseUrl);
  await buildWeb(say);
  const browser = await browserTests(databaseUrl, chromium);
  return [lint, types, units, browser];
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
