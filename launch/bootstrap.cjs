// First thing that runs in a bare clone: plain old JavaScript, so that an old Node can still say what it lacks.
'use strict';
var path = require('path');

var root = path.join(__dirname, '..');
var command = process.argv[2] || 'start';

function giveUp(sentence) {
  process.stderr.write('suvok: ' + sentence + '\n');
  process.exit(1);
}

var version = process.versions.node.split('.').map(Number);
if (version[0] < 20 || (version[0] === 20 && version[1] < 11)) {
  giveUp('Node ' + process.versions.node + ' is too old; Suvok needs Node 20.11 or newer.');
}

process.chdir(root);
require('./install.cjs')(function (text) {
  // What the command line prints is its answer; everything else goes beside it.
  (command === 'cli' ? process.stderr : process.stdout).write(text);
}).then(run, function (error) {
  giveUp(error.message);
});

/** Of the command line: what is done to the data as a whole, and to accounts. */
var operations = ['backup', 'verify', 'restore', 'account'];

function run() {
  var programs = {
    start: 'launch/start.ts',
    test: 'launch/test.ts',
    bench: 'bench/main.ts',
    mutants: 'launch/mutants.ts',
    cli: operations.indexOf(process.argv[3]) < 0 ? 'cli/main.ts' : 'operations/main.ts',
    simulator: 'simulator/main.ts',
  };
  if (!programs[command]) giveUp('there is no command "' + command + '".');
  process.argv.splice(2, 1, programs[command]);
  require('./run.cjs');
}
