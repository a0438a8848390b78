import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

/** A stand-in for npm: notes when it begins and ends, and takes a while to put two packages there. */
const npm = `
const fs = require('fs');
fs.appendFileSync('log', 'begin ');
fs.rmSync('node_modules', { recursive: true, force: true });
fs.mkdirSync('node_modules/first', { recursive: true });
fs.writeFileSync('node_modules/first/package.json', '{}');
setTimeout(() => {
  if (fs.existsSync('broken')) { console.error('no network'); process.exit(1); }
  fs.mkdirSync('node_modules/second', { recursive: true });
  fs.writeFileSync('node_modules/second/package.json', '{}');
  fs.appendFileSync('log', 'end ');
}, 300);
`;

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'suvok-install-'));
  const packages = {
    '': {},
    'node_modules/first': {},
    'node_modules/second': {},
    'node_modules/mac': { optional: true },
  };
  writeFileSync(join(folder, 'package-lock.json'), JSON.stringify({ packages }));
  writeFileSync(join(folder, 'npm.cjs'), npm);
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

/** Installs as a command does. */
function install() {
  const script = `require(${JSON.stringify(resolve('launch/install.cjs'))})((text) => process.stderr.write(text)).catch((error) => { console.error(error.message); process.exit(1); })`;
  const child = spawn(process.execPath, ['-e', script], {
    cwd: folder,
    env: { ...process.env, NODE_OPTIONS: '', npm_execpath: join(folder, 'npm.cjs') },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  let said = '';
  child.stdout.on('data', (text: Buffer) => (said += text.toString()));
  child.stderr.on('data', (text: Buffer) => (said += text.toString()));
  const ended = new Promise<number | null>((done) => child.once('close', done));
  return { child, ended, said: () => said };
}

const log = () => readFileSync(join(folder, 'log'), 'utf8').trim();

test('two commands at once install once; a third finds everything there', async () => {
  const both = [install(), install()];
  expect(await Promise.all(both.map(({ ended }) => ended))).toEqual([0, 0]);
  expect(log()).toBe('begin end');
  expect(both.map(({ said }) => said()).join('')).toMatch(/Another command is installing.*waiting/);
  const third = install();
  expect(await third.ended).toBe(0);
  expect(third.said()).toBe('');
  expect(log()).toBe('begin end');
});

test.each(['SIGINT', 'SIGKILL'] as const)('after %s in the middle the next command installs anew', async (signal) => {
  const first = install();
  // The file is there a moment before its first word is.
  const hasBegun = () => existsSync(join(folder, 'log')) && log() !== '';
  while (!hasBegun()) await new Promise((resolve) => setTimeout(resolve, 20));
  first.child.kill(signal);
  await first.ended;
  const second = install();
  expect(await second.ended).toBe(0);
  expect(
    log()
      .split(' ')
      .filter((word) => word === 'begin'),
  ).toHaveLength(2);
  expect(existsSync(join(folder, 'node_modules/second/package.json'))).toBe(true);
  expect(existsSync(join(folder, '.suvok-installing'))).toBe(false);
});

test('a package that went missing is noticed; one for another machine is not missed', async () => {
  await install().ended;
  rmSync(join(folder, 'node_modules/second'), { recursive: true });
  expect(await install().ended).toBe(0);
  expect(log()).toBe('begin end begin end');
});

test('a stamp of another lock file, as after a half-done install before there was a lock, is not believed', async () => {
  mkdirSync(join(folder, 'node_modules'));
  writeFileSync(join(folder, 'node_modules/.suvok-installed'), 'of another lock file');
  expect(await install().ended).toBe(0);
  expect(log()).toBe('begin end');
});

test('a failed install says why in a sentence, leaves no stamp and no lock', async () => {
  writeFileSync(join(folder, 'broken'), '');
  const failed = install();
  expect(await failed.ended).toBe(1);
  expect(failed.said()).toMatch(/could not be installed: no network\. Check the network/);
  rmSync(join(folder, 'broken'));
  expect(await install().ended).toBe(0);
});
