import { expect, test } from '@jest/globals';
import { ESLint } from 'eslint';

/** Plants an import in a file that is not there and asks lint what it thinks. */
async function verdictOn(filePath: string, code: string): Promise<string[]> {
  const [result] = await new ESLint().lintText(code, { filePath });
  return result!.messages.filter((message) => message.severity === 2).map((message) => message.message);
}

test.each([
  ['core/planted.ts', '../server/loopback.ts', 'isOwnHost', 'core must not import server'],
  ['core/units/planted.ts', '../air/air.ts', 'densityKgM3', 'core-units must not import core'],
  ['contract/planted.ts', '../core/air/air.ts', 'densityKgM3', 'contract must not import core'],
  ['simulator/planted.ts', '../core/units/units.ts', 'convert', 'simulator must not import core-units'],
  ['web/planted.ts', '../server/loopback.ts', 'isOwnHost', 'web must not import server'],
  ['server/planted.ts', '../web/state/api.ts', 'api', 'server must not import web'],
  ['cli/planted.ts', '../simulator/car.ts', 'cars', 'cli must not import simulator'],
])('%s may not import %s', async (file, target, name, sentence) => {
  const found = await verdictOn(file, `import { ${name} } from '${target}';\nexport const planted = ${name};\n`);
  expect(found.join()).toContain(sentence);
});

test('what the design allows is allowed', async () => {
  expect(
    await verdictOn(
      'server/planted.ts',
      `import { densityKgM3 } from '../core/air/air.ts';\nexport const planted = densityKgM3;\n`,
    ),
  ).toEqual([]);
  expect(
    await verdictOn(
      'contract/planted.ts',
      `import { convert } from '../core/units/units.ts';\nexport const planted = convert;\n`,
    ),
  ).toEqual([]);
});

test('the core has no machine, no clock and no chance', async () => {
  const found = await verdictOn(
    'core/planted.ts',
    `import fs from 'node:fs';\nexport const planted = [fs, Math.random(), Date.now(), process.pid];\n`,
  );
  expect(found).toHaveLength(4);
});
