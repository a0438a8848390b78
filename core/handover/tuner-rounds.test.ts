import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { roundsWords, tunerRounds, turnWords, type TunedJob } from './tuner-rounds.ts';

const begin = Date.parse('2026-05-20T09:00:00Z');
const at = (minutes: number) => new Date(begin + 60_000 * minutes).toISOString();
const sent = (minutes: number, runs = 3) => ({ setupId: 1, runs, createdAt: at(minutes) });
const file = (minutes: number, setupId: number, returned = true) => ({
  setupId,
  name: `r${setupId}.bin`,
  returned,
  createdAt: at(minutes),
});
const job = (over: Partial<TunedJob>): TunedJob => ({
  tunerPackages: [],
  tuneFiles: [],
  setups: [1, 2, 3].map((id) => ({ id, letter: 'ABC'[id - 1]! })),
  runs: [],
  ...over,
});
const rounds = (over: Partial<TunedJob>) => tunerRounds(job(over))!;

test('nothing is counted while nothing was sent; the file it arrived with came from nobody', () => {
  expect(tunerRounds(job({ tuneFiles: [file(0, 1, false)] }))).toBeUndefined();
});

test('after a package the shop waits; a second package goes on with the same wait', () => {
  const found = rounds({ tunerPackages: [sent(0), sent(20, 1)] });
  expect(found).toMatchObject({ turn: 'tuner', packages: 2, runs: 4, sinceMs: begin });
  expect(turnWords(found, begin + 45 * 60_000)).toBe('Waiting for the tuner for 45 min');
  expect(roundsWords(found)).toBe('2 packages with 4 runs sent, no file back yet.');
});

test('after a file the tuner waits, for its runs and then for the next package', () => {
  const back = { tunerPackages: [sent(0), sent(100)], tuneFiles: [file(70, 2), file(130, 3)] };
  const found = rounds(back);
  expect(found).toMatchObject({ turn: 'shop', tunerTookS: [4200, 1800], shopTookS: [1800], hasRun: false });
  expect(turnWords(found, begin + 140 * 60_000)).toBe('The tuner waits for runs of C for 10 min');
  expect(roundsWords(found)).toBe(
    '2 packages with 6 runs sent, 2 files back (r2.bin, B and r3.bin, C). The tuner took 1 h 10 min and 30 min. The shop took 30 min.',
  );
  const ran = rounds({
    ...back,
    runs: [
      { setupId: 3, startedAt: at(135) },
      { setupId: 2, startedAt: at(80) },
    ],
  });
  expect(turnWords(ran, begin + 140 * 60_000)).toBe('The tuner waits for the next runs for 10 min');
  // A run before the file came is none with it.
  expect(rounds({ ...back, runs: [{ setupId: 3, startedAt: at(120) }] }).hasRun).toBe(false);
});

test('all waits together are the time from the first act to the last change of turns, in any order of the lists', () => {
  const minutes = fc.uniqueArray(fc.integer({ min: 0, max: 5000 }), { minLength: 1, maxLength: 12 });
  fc.assert(
    fc.property(minutes, fc.infiniteStream(fc.boolean()), (times, kinds) => {
      const isSent = times.map(() => kinds.next().value as boolean);
      const found = rounds({
        tunerPackages: times.filter((_, index) => isSent[index]).map((time) => sent(time)),
        tuneFiles: times.filter((_, index) => !isSent[index]).map((time) => file(time, 2)),
      });
      const sum = [...found.tunerTookS, ...found.shopTookS].reduce((total, s) => total + s, 0);
      expect(sum).toBeCloseTo((found.sinceMs - (begin + 60_000 * Math.min(...times))) / 1000, 6);
      expect(Math.abs(found.tunerTookS.length - found.shopTookS.length)).toBeLessThanOrEqual(1);
    }),
  );
});
