import { expect, test } from '@jest/globals';
import { existsSync, mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pino from 'pino';
import { putAside, rotatedLog } from './rotated-log.ts';

const folder = () => mkdtempSync(join(tmpdir(), 'suvok-log-'));

test('a log that has grown is put aside, five of them are kept, the newest first', () => {
  const place = folder();
  const file = join(place, 'server.log');
  expect(putAside(file, 3)).toBe(false);
  for (let day = 1; day <= 8; day++) {
    writeFileSync(file, `day ${day}`);
    expect(putAside(file, 3)).toBe(true);
  }
  expect(readdirSync(place).sort()).toEqual([1, 2, 3, 4, 5].map((at) => `server.log.${at}`));
  expect([1, 5].map((at) => readFileSync(`${file}.${at}`, 'utf8'))).toEqual(['day 8', 'day 4']);
  writeFileSync(file, 'ab');
  expect(putAside(file, 3)).toBe(false);
  expect(existsSync(file)).toBe(true);
});

test('one that was left too large by an earlier life is put aside as the next begins, for its owner’s eyes only', async () => {
  const file = join(folder(), 'server.log');
  writeFileSync(file, Buffer.alloc(21 * 2 ** 20));
  const log = pino(rotatedLog(file));
  log.info('here');
  await new Promise((resolve) => setTimeout(resolve, 300));
  expect(readFileSync(file, 'utf8')).toContain('here');
  expect(statSync(file).mode & 0o777).toBe(0o600);
  expect(statSync(`${file}.1`).size).toBe(21 * 2 ** 20);
});
