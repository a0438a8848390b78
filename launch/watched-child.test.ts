import { spawn } from 'node:child_process';
import { expect, test } from '@jest/globals';
import { Missed, watchChild } from './watched-child.ts';

/** Asks every second for so long. @returns when it counted as hung, s; undefined where it did not */
function hungAfter(
  missed: Missed,
  seconds: number,
  of: { answers?: boolean; processor?: (s: number) => number; pace?: number },
) {
  const { answers = false, processor = () => 5, pace = 1 } = of;
  for (let s = 0; s <= seconds; s += pace) {
    const next = missed.next(1000 * s, processor(s));
    if (next === 'hung') return s;
    if (answers) missed.answer(next);
  }
  return undefined;
}

test('a part that answers is never hung; one that does not is after ten questions', () => {
  expect(hungAfter(new Missed(false), 600, { answers: true })).toBeUndefined();
  expect(hungAfter(new Missed(false), 600, {})).toBe(10);
  const missed = new Missed(false);
  hungAfter(missed, 8, {});
  // It comes back at the last moment.
  missed.answer(9);
  expect(missed.next(9000, 5)).toBe(10);
});

test('long work of the server is waited for while its processor time goes on, not for ever; the recorder has none', () => {
  const works = { processor: (s: number) => 100 * s };
  expect(hungAfter(new Missed(true), 600, works)).toBe(60);
  expect(hungAfter(new Missed(true), 600, {})).toBe(10);
  expect(hungAfter(new Missed(false), 600, works)).toBe(10);
});

test('a machine that stands still between two questions proves nothing', () => {
  expect(hungAfter(new Missed(false), 6000, { pace: 5 })).toBeUndefined();
});

test('a process that hangs is ended, one that lives is not', async () => {
  const start = (script: string) =>
    spawn(process.execPath, ['-e', script], { stdio: ['ignore', 'ignore', 'ignore', 'ipc'] });
  const lives = start("process.on('message', (m) => process.send(m))");
  const hangs = start(
    "process.on('message', () => { for (;;) Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 1000) })",
  );
  const told: string[] = [];
  watchChild(lives, false, () => told.push('lives'));
  watchChild(hangs, false, () => told.push('hangs'));
  const [, signal] = await new Promise<[number | null, NodeJS.Signals | null]>((resolve) =>
    hangs.once('close', (...how) => resolve(how)),
  );
  expect(signal).toBe('SIGKILL');
  expect(told).toEqual(['hangs']);
  expect(lives.exitCode).toBeNull();
  lives.kill('SIGKILL');
}, 60_000);
