import { expect, test } from '@jest/globals';
import { ESLint } from 'eslint';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { runTool } from './check.ts';

/** The project's rules but for those that need types: to know them takes half a minute, and imports have none. */
const lint = new ESLint({
  overrideConfig: {
    languageOptions: { parserOptions: { projectService: false } },
    rules: Object.fromEntries(
      ['no-floating-promises', 'no-misused-promises', 'no-base-to-string', 'switch-exhaustiveness-check'].map(
        (rule) => [`@typescript-eslint/${rule}`, 'off' as const],
      ),
    ),
  },
});

/** Asks lint what it would think of a file, if this stood in it. */
async function verdictOn(filePath: string, code: string): Promise<string[]> {
  const [result] = await lint.lintText(code, { filePath });
  return result!.messages.filter((message) => message.severity === 2).map((message) => message.message);
}

test.each([
  ['core/refusal.ts', '../server/loopback.ts', 'isOwnHost', 'core must not import server'],
  ['core/units/units.ts', '../air/air.ts', 'densityKgM3', 'core-units must not import core'],
  ['contract/parts.ts', '../core/air/air.ts', 'densityKgM3', 'contract must not import core'],
  ['simulator/chance.ts', '../core/units/units.ts', 'convert', 'simulator must not import core-units'],
  ['web/page.tsx', '../server/loopback.ts', 'isOwnHost', 'web must not import server'],
  ['server/loopback.ts', '../web/state/api.ts', 'api', 'server must not import web'],
  ['cli/words.ts', '../simulator/car.ts', 'cars', 'cli must not import simulator'],
])('%s may not import %s', async (file, target, name, sentence) => {
  const found = await verdictOn(file, `import { ${name} } from '${target}';\nexport const planted = ${name};\n`);
  expect(found.join()).toContain(sentence);
});

test('what the design allows is allowed', async () => {
  expect(
    await verdictOn(
      'server/loopback.ts',
      `import { densityKgM3 } from '../core/air/air.ts';\nexport const planted = densityKgM3;\n`,
    ),
  ).toEqual([]);
  expect(
    await verdictOn(
      'contract/parts.ts',
      `import { convert } from '../core/units/units.ts';\nexport const planted = convert;\n`,
    ),
  ).toEqual([]);
});

test('a circle between two folders is found, and a way back between files', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'suvok-circle-'));
  const plant = (path: string, code: string) => {
    mkdirSync(dirname(join(folder, path)), { recursive: true });
    writeFileSync(join(folder, path), code);
  };
  plant('a/one.ts', "import { two } from '../b/two.ts';\nexport const one = two;\n");
  plant('b/two.ts', 'export const two = 2;\n');
  plant('b/three.ts', "import { four } from '../a/four.ts';\nexport const three = four;\n");
  plant('a/four.ts', 'export const four = 4;\n');
  plant(
    'tsconfig.json',
    '{"include": ["a", "b"], "compilerOptions": {"allowImportingTsExtensions": true, "noEmit": true}}',
  );
  plant('.dependency-cruiser.cjs', readFileSync('.dependency-cruiser.cjs', 'utf8'));
  const { code, out } = await runTool(
    ['dependency-cruiser/bin/dependency-cruise.mjs', '--config', '.dependency-cruiser.cjs', 'a', 'b'],
    {},
    folder,
  );
  rmSync(folder, { recursive: true });
  expect(code).not.toBe(0);
  expect(out).toContain('no-circles-of-folders');
  expect(out).not.toContain('no-circles-of-files');
});

test('the core has no machine, no clock and no chance', async () => {
  const found = await verdictOn(
    'core/refusal.ts',
    `import fs from 'node:fs';\nexport const planted = [fs, Math.random(), Date.now(), process.pid];\n`,
  );
  expect(found).toHaveLength(4);
});
