// What Jest runs is run in a context of its own, where each look at a global name such as Math or Number is a call:
// inner loops took three times as long. Here every module is given those names of its own, once.
'use strict';
const { createHash } = require('node:crypto');
const { relative } = require('node:path');
const { createTransformer } = require('@swc/jest');

/** Names that no test replaces: Date and timers stay the context's own. */
const names = [
  'Array',
  'Boolean',
  'Float32Array',
  'Float64Array',
  'Int32Array',
  'JSON',
  'Map',
  'Math',
  'Number',
  'Object',
  'Set',
  'String',
  'Uint8Array',
  'Uint32Array',
];
// On the first line, so that all others keep their numbers.
const header = `const ${names.map((name) => `${name} = globalThis.${name}`).join(', ')}, NaN = 0 / 0, Infinity = 1 / 0; `;
const withNames = (made) => ({ ...made, code: header + made.code });
/** Files of tests that are run together (launch/tests-together.ts) are a part each, with hooks of its own. */
const together = process.env.SUVOK_TESTS_TOGETHER === '1';
const keyed = (key) => createHash('sha256').update(header).update(String(together)).update(key).digest('hex');

const testFile = /\.test\.tsx?$/;
const groupFile = /[\\/]tests-together[\\/]/;
/** Comments and imports, which come first. */
const head = /^(?:\s+|\/\/[^\n]*\n|\/\*[^]*?\*\/|import\s[^;]*;)*/;

/** A file of tests as one part of a group; its lines stay where they are. */
function asPart(made, path) {
  if (!together || !testFile.test(path) || groupFile.test(path)) return made;
  const at = head.exec(made.code)[0].length;
  const name = JSON.stringify(relative(__dirname, path));
  const code = `import { describe as partOfTests } from '@jest/globals'; ${made.code.slice(0, at)}partOfTests(${name}, () => {${made.code.slice(at)}\n});`;
  return { ...made, code };
}

/** For the project's own sources: from TypeScript. For packages, without options: as they are written. */
exports.createTransformer = (options) => {
  if (!options.jsc) {
    const process = (code) => withNames({ code });
    return { process, processAsync: (code) => Promise.resolve(process(code)), getCacheKey: (code) => keyed(code) };
  }
  const swc = createTransformer(options);
  return {
    ...swc,
    process: (source, path, ...asked) => withNames(asPart(swc.process(source, path, ...asked), path)),
    processAsync: async (source, path, ...asked) =>
      withNames(asPart(await swc.processAsync(source, path, ...asked), path)),
    getCacheKey: (...asked) => keyed(swc.getCacheKey(...asked)),
  };
};
