import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { cpSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { z } from 'zod';
import { runTool } from './check.ts';

const folder = mkdtempSync(join(tmpdir(), 'suvok-lint-'));
afterAll(() => rmSync(folder, { recursive: true }));

const plant = (path: string, code: string) => {
  mkdirSync(dirname(join(folder, path)), { recursive: true });
  writeFileSync(join(folder, path), code);
};

/** Files that break a rule of imports, and the sentence that must be said of each. */
const forbidden = [
  ['core/refusal.ts', '../server/loopback.ts', 'core must not import server'],
  ['core/air/air.test.ts', '../../server/loopback.ts', 'core must not import server'],
  ['core/units/units.ts', '../air/air.ts', 'core/units must not import core'],
  ['core/units/again.ts', '../refusal.ts', 'core/units must not import core'],
  ['contract/values/parts.ts', '../core/air/air.ts', 'contract must not import core'],
  ['contract/refused.ts', '../core/refusal.ts', 'contract must not import core'],
  ['simulator/chance.ts', '../core/units/units.ts', 'simulator must not import core'],
  ['web/page.tsx', '../server/loopback.ts', 'web must not import server'],
  ['server/loopback.ts', '../web/state/api.ts', 'server must not import web'],
  ['server/routes/reports.ts', '../../cli/words.ts', 'server must not import cli'],
  ['cli/words.ts', '../simulator/car.ts', 'cli must not import simulator'],
] as const;

const report = z.object({
  diagnostics: z.array(z.object({ message: z.string(), help: z.string().optional(), filename: z.string() })),
});
let found = new Map<string, string[]>();

beforeAll(async () => {
  cpSync('oxlint.config.js', join(folder, 'oxlint.config.js'));
  cpSync('lint', join(folder, 'lint'), { recursive: true });
  for (const [file, target] of forbidden)
    plant(file, `import { planted } from '${target}';\nexport const again = planted;\n`);
  plant('core/air/air.ts', `import { convert } from '../units/units.ts';\nexport const planted = convert;\n`);
  plant('server/allowed.ts', `import { planted } from '../core/air/air.ts';\nexport const again = planted;\n`);
  plant('contract/allowed.ts', `import { convert } from '../core/units/units.ts';\nexport const again = convert;\n`);
  plant(
    'core/machine.ts',
    `import fs from 'node:fs';\nexport const planted = [fs, Math.random(), Date.now(), process.pid];\n`,
  );
  plant('web/absent.ts', `export const planted = (list: number[], one?: number) => [list[0]!, one!];\n`);
  const { out } = await runTool(['oxlint/bin/oxlint', '-c', 'oxlint.config.js', '-f', 'json', '.'], {}, folder);
  const written: unknown = JSON.parse(out);
  found = new Map();
  for (const { filename, message, help } of report.parse(written).diagnostics)
    found.set(filename, [...(found.get(filename) ?? []), `${message} ${help ?? ''}`]);
});

test.each(forbidden)('%s may not import %s', (file, _, sentence) => {
  expect(found.get(file)?.join()).toContain(sentence);
});

test('what the design allows is allowed', () => {
  for (const file of ['core/air/air.ts', 'server/allowed.ts', 'contract/allowed.ts'])
    expect(found.get(file)).toBeUndefined();
});

test('the core has no machine, no clock and no chance', () => {
  expect(found.get('core/machine.ts')).toHaveLength(4);
});

test('an absence may not be hidden but where an index reaches', () => {
  expect(found.get('web/absent.ts')).toEqual([expect.stringContaining('hides an absence')]);
});

test('a circle between two folders is found, and a way back between files', async () => {
  plant('a/one.ts', "import { two } from '../b/two.ts';\nexport const one = two;\n");
  plant('b/two.ts', 'export const two = 2;\n');
  plant('b/three.ts', "import { four } from '../a/four.ts';\nexport const three = four;\n");
  plant('a/four.ts', 'export const four = 4;\n');
  plant(
    'tsconfig.json',
    '{"include": ["a", "b"], "compilerOptions": {"allowImportingTsExtensions": true, "noEmit": true}}',
  );
  cpSync('.dependency-cruiser.cjs', join(folder, '.dependency-cruiser.cjs'));
  const { code, out } = await runTool(
    ['dependency-cruiser/bin/dependency-cruise.mjs', '--config', '.dependency-cruiser.cjs', 'a', 'b'],
    {},
    folder,
  );
  expect(code).not.toBe(0);
  expect(out).toContain('no-circles-of-folders');
  expect(out).not.toContain('no-circles-of-files');
});
