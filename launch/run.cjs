// `node launch/run.cjs server/main.ts WORDS…`: runs one of the project's programs.
'use strict';
const { builtProgram } = require('./programs.cjs');

// Where something fails, the place in the source is told.
process.setSourceMapsEnabled(true);
process.argv.splice(1, 1);
builtProgram(process.argv[1])
  .then((program) => import(program))
  .catch((error) => {
    process.stderr.write(`suvok: ${error && error.message ? error.message : String(error)}\n`);
    process.exit(1);
  });
