// First thing that runs in a bare clone: plain old JavaScript, so that an old Node can still say what it lacks.
'use strict';
var childProcess = require('child_process');
var crypto = require('crypto');
var fs = require('fs');
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
installPackages();
run();

function installPackages() {
  var lock = fs.readFileSync('package-lock.json');
  var wanted = crypto.createHash('sha256').update(lock).digest('hex');
  var stamp = path.join('node_modules', '.suvok-installed');
  if (fs.existsSync(stamp) && fs.readFileSync(stamp, 'utf8') === wanted) return;
  if (command !== 'cli') process.stdout.write('Installing npm packages (once)\n');
  var npm = process.env.npm_execpath;
  var words = ['ci', '--include=dev', '--loglevel=error', '--no-progress'];
  var done = npm
    ? childProcess.spawnSync(process.execPath, [npm].concat(words), {
        stdio: ['ignore', 'ignore', 'pipe'],
        encoding: 'utf8',
      })
    : childProcess.spawnSync('npm', words, { stdio: ['ignore', 'ignore', 'pipe'], encoding: 'utf8' });
  if (done.status !== 0) {
    var said = String(done.stderr || (done.error && done.error.message) || '')
      .trim()
      .split('\n')
      .filter(Boolean);
    giveUp(
      'the npm packages could not be installed: ' +
        (said[0] || 'npm gave no reason') +
        '. Check the network and the folder, then try again.',
    );
  }
  fs.writeFileSync(stamp, wanted);
}

function run() {
  var programs = {
    start: './start.ts',
    test: './test.ts',
    bench: '../bench/main.ts',
    cli: '../cli/main.ts',
    simulator: '../simulator/main.ts',
  };
  if (!programs[command]) giveUp('there is no command "' + command + '".');
  process.argv.splice(2, 1);
  import('tsx/esm/api')
    .then(function (tsx) {
      tsx.register();
      return import(require('url').pathToFileURL(path.join(__dirname, programs[command])).href);
    })
    .catch(function (error) {
      giveUp(error && error.message ? error.message : String(error));
    });
}
