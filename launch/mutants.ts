import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { shuffler } from 'd3-array';
import { randomLcg } from 'd3-random';
import { z } from 'zod';
import { runTool } from './check.ts';
import { Failure } from './failure.ts';
import { codeLines, survivors, withLater, type Mutant } from './mutant-lines.ts';
import { ownCluster } from './own-cluster.ts';
import type { Cluster } from './postgres.ts';
import { apiFolders, hasOwnEnvironment, testFilesIn, unitFolders } from './test-parts.ts';
import { testsFolder } from './tests-folder.ts';

/**
 * `npm run mutants -- FOLDER`: changes single expressions of a folder's code, one after the other, and says which
 * changes no test notices. 200 lines are drawn by a seed (`--lines`, `--seed`); `--files a.ts,b.ts` takes whole files
 * of it instead. What the folder's own tests leave alive is tried with all unit tests, and then with those of the API:
 * hours for a large folder, so `--near` stops after the first. Measured, not passed: nothing is red.
 */
const say = (text: string) => process.stdout.write(`${text}\n`);
const work = 'dist/mutants';

const judged = new Set(['Killed', 'Timeout', 'Survived', 'NoCoverage']);
const report = z.object({
  files: z.record(
    z.string(),
    z.object({
      mutants: z.array(
        z.object({
          status: z.string(),
          mutatorName: z.string(),
          replacement: z.string().optional(),
          location: z.object({
            start: z.object({ line: z.int(), column: z.int() }),
            end: z.object({ line: z.int(), column: z.int() }),
          }),
        }),
      ),
    }),
  ),
});

/** @param places as Stryker has them: `file:line-line`. @returns what became of each mutant */
async function tried(
  places: readonly string[],
  folders: readonly string[],
  environment: NodeJS.ProcessEnv,
): Promise<Mutant[]> {
  rmSync(work, { recursive: true, force: true });
  mkdirSync(work, { recursive: true });
  const [configuration, found] = [join(work, 'stryker.json'), join(work, 'mutants.json')];
  const settings = {
    testRunner: 'jest',
    plugins: ['@stryker-mutator/jest-runner'],
    testRunnerNodeArgs: ['--experimental-vm-modules', '--no-warnings'],
    jest: { projectType: 'custom', configFile: 'jest.config.mjs', enableFindRelatedTests: true },
    // Each mutant is tried only with the tests that reach it.
    coverageAnalysis: 'perTest',
    mutate: places,
    reporters: ['json'],
    jsonReporter: { fileName: found },
    tempDirName: join(work, 'copy'),
    // Tests read the guides.
    ignorePatterns: ['/dist', '/docs/screenshots', '/data', '/.git'],
    concurrency: 2,
    timeoutMS: 60_000,
    allowEmpty: true,
    disableTypeChecks: false,
  };
  writeFileSync(configuration, JSON.stringify(settings, null, 1));
  const { code, out } = await runTool(['@stryker-mutator/core/bin/stryker.js', 'run', configuration], {
    TMPDIR: tests,
    SUVOK_TEST_FOLDERS: folders.join(' '),
    // Stryker sees into Node's environment alone: components are tried by what they are made of.
    SUVOK_TESTS_LEFT_OUT: testFilesIn(folders).filter(hasOwnEnvironment).join(' '),
    ...environment,
  });
  if (code !== 0) throw new Failure(`The mutants could not be tried:\n${out}`);
  // Where the folders have no test, or the lines nothing to change, there is no report.
  if (!existsSync(found)) return [];
  const { files } = report.parse(JSON.parse(readFileSync(found, 'utf8')));
  return Object.entries(files).flatMap(([file, { mutants }]) =>
    // What could not be tried counts as neither.
    mutants
      .filter(({ status }) => judged.has(status))
      .map(({ status, mutatorName, replacement, location: { start, end } }) => ({
        place: `${file}:${start.line}:${start.column}-${end.line}:${end.column}`,
        // It tells columns from 1, and is told them from 0.
        pattern: `${file}:${start.line}:${start.column - 1}-${end.line}:${end.column - 1}`,
        kind: mutatorName,
        replacement: replacement ?? '',
        status,
      })),
  );
}

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    lines: { type: 'string', default: '200' },
    seed: { type: 'string', default: '1' },
    files: { type: 'string' },
    near: { type: 'boolean', default: false },
  },
});
const [folder] = positionals;

/** Lines drawn from the folder's code, or whole files. */
function chosenPlaces(folder: string): string[] {
  if (values.files) return values.files.split(',');
  const files = readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .map((name) => join(folder, name))
    .filter((name) => /(?<!\.test)\.tsx?$/.test(name) && !name.includes('/testing/'))
    .sort();
  const all = files.flatMap((file) => codeLines(readFileSync(file, 'utf8')).map((line) => `${file}:${line}-${line}`));
  return shuffler(randomLcg(Number(values.seed)))(all).slice(0, Number(values.lines));
}

const isApi = (path: string) => apiFolders.some((name) => `${path}/`.startsWith(name));

/** Starts and installations try the project itself, of which there is a copy here: they tell nothing of a mutant. */
const ofServer = apiFolders.filter((name) => name !== 'launch/');

/** Which tests are tried, one round after the other. */
function roundsOf(path: string): { name: string; folders: readonly string[] }[] {
  const own = { name: 'Its own tests', folders: [`${path}/`] };
  if (values.near) return [own];
  const api = { name: 'The tests of the API', folders: ofServer };
  return isApi(path) ? [own, api] : [own, { name: 'All unit tests', folders: unitFolders }, api];
}

const tests = testsFolder();
let cluster: Promise<Cluster> | undefined;
/** What tests of the API want around them. */
const withDatabase = async (): Promise<NodeJS.ProcessEnv> => {
  cluster ??= ownCluster(tests, { say, forTests: true });
  return { SUVOK_TEST_DATABASE_URL: (await cluster).url('postgres') };
};

async function tidyUp(): Promise<void> {
  await cluster?.then((started) => started.stop()).catch(() => undefined);
  rmSync(tests, { recursive: true, force: true });
  rmSync(work, { recursive: true, force: true });
}
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.once(signal, () => void tidyUp().then(() => process.exit(1)));

try {
  if (!folder || !existsSync(folder))
    throw new Failure('Say whose mutants: npm run mutants -- core, or a folder within.');
  const places = chosenPlaces(folder);
  let mutants: Mutant[] = [];
  for (const { name, folders } of roundsOf(folder)) {
    const alive = survivors(mutants);
    const isFirst = mutants.length === 0;
    if (!isFirst && alive.length === 0) break;
    const environment = folders === ofServer || isApi(folder) ? await withDatabase() : {};
    const found = await tried(isFirst ? places : alive.map(({ pattern }) => pattern), folders, environment);
    mutants = isFirst ? found : withLater(mutants, found);
    say(`${name} leave ${survivors(mutants).length} of ${mutants.length} alive`);
  }
  const left = survivors(mutants);
  for (const { place, kind, replacement } of left) say(`${place} ${kind}: ${replacement.replaceAll(/\s+/g, ' ')}`);
  const killed = mutants.length - left.length;
  say(`${killed} of ${mutants.length} mutants killed, ${((100 * killed) / Math.max(1, mutants.length)).toFixed(0)} %`);
} catch (error) {
  process.exitCode = 1;
  process.stderr.write(`suvok: ${error instanceof Failure ? error.message : String((error as Error).stack)}\n`);
} finally {
  await tidyUp();
}
