// Plain old JavaScript: it runs before any package is there.
'use strict';
var childProcess = require('child_process');
var crypto = require('crypto');
var fs = require('fs');
var path = require('path');

/** Where npm's packages are, and the stamp that says which lock file they were installed from, whole. */
var packages = 'node_modules';
var stamp = path.join(packages, '.suvok-installed');
/** Held while packages are being installed: the process that does, and its npm. */
var lock = '.suvok-installing';
/** How often a command that waits for another one's installing looks again, ms. */
var lookMs = 200;

/**
 * Installs the npm packages of the current folder if they are not there, not
 * those of its lock file, or damaged. One command at a time: others wait. The
 * stamp is written last, so whatever interrupts this is noticed by the next.
 *
 * @param say {(text: string) => void} is told when it takes long
 * @returns {Promise<void>} rejects with a sentence
 */
module.exports = async function install(say) {
  if (isWhole()) return;
  await takeLock(say);
  try {
    // Another command may have done it meanwhile.
    if (isWhole()) return;
    say('Installing npm packages (once)\n');
    fs.rmSync(stamp, { force: true });
    await npmCi();
    fs.writeFileSync(stamp, wantedStamp());
  } finally {
    fs.rmSync(lock, { force: true });
  }
};

function wantedStamp() {
  return crypto.createHash('sha256').update(fs.readFileSync('package-lock.json')).digest('hex');
}

/** The stamp fits, and every package that it promises is there. */
function isWhole() {
  if (!fs.existsSync(stamp) || fs.readFileSync(stamp, 'utf8') !== wantedStamp()) return false;
  var listed = JSON.parse(fs.readFileSync('package-lock.json', 'utf8')).packages;
  return Object.keys(listed).every(function (folder) {
    // Those for other machines are left out by npm.
    return folder === '' || listed[folder].optional || fs.existsSync(path.join(folder, 'package.json'));
  });
}

async function takeLock(say) {
  var told = false;
  while (!tryLock()) {
    if (!told) say('Another command is installing the npm packages; waiting for it\n');
    told = true;
    await new Promise(function (resolve) {
      setTimeout(resolve, lookMs);
    });
  }
}

function tryLock() {
  try {
    fs.writeFileSync(lock, String(process.pid), { flag: 'wx' });
    return true;
  } catch (error) {
    if (error.code !== 'EEXIST') throw new Error('the folder cannot be written to: ' + error.message + '.');
  }
  var holders = readHolders();
  if (holders === undefined || holders.some(isAlive)) return false;
  // Whoever held it is gone. Only one of those who find out may take it away.
  var aside = lock + '.' + process.pid;
  try {
    fs.renameSync(lock, aside);
    fs.rmSync(aside, { force: true });
  } catch {
    // Another one was faster.
  }
  return false;
}

/** The processes that hold the lock; undefined where it has just been let go of, or is just being written. */
function readHolders() {
  try {
    var text = fs.readFileSync(lock, 'utf8');
    return text === '' ? undefined : text.split(' ').map(Number);
  } catch {
    return undefined;
  }
}

function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
}

function npmCi() {
  var words = ['ci', '--include=dev', '--loglevel=error', '--no-progress'];
  var npm = process.env.npm_execpath;
  var child = npm
    ? childProcess.spawn(process.execPath, [npm].concat(words), { stdio: ['ignore', 'ignore', 'pipe'] })
    : childProcess.spawn('npm', words, { stdio: ['ignore', 'ignore', 'pipe'] });
  // An npm that outlives us still writes: the lock is its as well.
  if (child.pid !== undefined) fs.writeFileSync(lock, process.pid + ' ' + child.pid);
  var end = function () {
    child.kill('SIGTERM');
    process.exit(1);
  };
  process.once('SIGINT', end);
  process.once('SIGTERM', end);
  var said = '';
  child.stderr.on('data', function (text) {
    said += text;
  });
  return new Promise(function (resolve, reject) {
    var fail = function (reason) {
      reject(
        new Error(
          'the npm packages could not be installed: ' + reason + '. Check the network and the folder, then try again.',
        ),
      );
    };
    child.once('error', function (error) {
      fail(error.message);
    });
    child.once('close', function (code) {
      process.off('SIGINT', end);
      process.off('SIGTERM', end);
      if (code === 0) return resolve();
      fail(said.trim().split('\n').filter(Boolean)[0] || 'npm gave no reason');
    });
  });
}
