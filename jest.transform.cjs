// What Jest runs is run in a context of its own, where each look at a global name such as Math or Number is a call:
// inner loops took three times as long. Here every module is given those names of its own, once.
'use strict';
const { createHash } = require('node:crypto');
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
const keyed = (key) => createHash('sha256').update(header).update(key).digest('hex');

/** For the project's own sources: from TypeScript. For packages, without options: as they are written. */
exports.createTransformer = (options) => {
  if (!options.jsc) {
    const process = (code) => withNames({ code });
    return { process, processAsync: (code) => Promise.resolve(process(code)), getCacheKey: (code) => keyed(code) };
  }
  const swc = createTransformer(options);
  return {
    ...swc,
    process: (...asked) => withNames(swc.process(...asked)),
    processAsync: async (...asked) => withNames(await swc.processAsync(...asked)),
    getCacheKey: (...asked) => keyed(swc.getCacheKey(...asked)),
  };
};
