import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { silentLog } from '../../contract/values/service-log.ts';
import { plainSettings } from '../../contract/instruments/recording.ts';
import { MemoryFiles } from '../testing/memory-files.ts';
import { rollerHello } from '../testing/test-instrument.ts';
import { Journal } from './journal.ts';
import { newRun } from '../../store/testing/new-run.ts';

const opened = (files: MemoryFiles, options = {}) => Journal.open(files, silentLog, { segmentBytes: 4000, ...options });

/** Gives a session rows whose first value is their number. */
function give(journal: Journal, session: number, from: number, to: number): void {
  for (let at = from; at < to; at++) journal.row(session, at, Float64Array.of(at, at * 2, NaN), 100 + at);
}

async function readAll(journal: Journal, session: number, from: number, to: number): Promise<number[]> {
  const found: number[] = [];
  for (let at = from; at < to;) {
    const rows = await journal.rows(session, at, to);
    if (!rows) break;
    found.push(...rows.map((row) => row[0]!));
    at += rows.length;
  }
  return found;
}

const count = (from: number, to: number) => Array.from({ length: to - from }, (_, index) => from + index);

test('rows come back as they were given, from any row on, in this life and in the next', async () => {
  const files = new MemoryFiles();
  const journal = await opened(files);
  const session = journal.openSession(rollerHello, plainSettings);
  for (let at = 0; at < 600; at += 60) {
    give(journal, session, at, at + 60);
    await journal.flush();
  }
  expect(await readAll(journal, session, 37, 599)).toEqual(count(37, 599));
  files.cutPower();
  const next = await opened(files);
  expect(await readAll(next, session, 0, 600)).toEqual(count(0, 600));
  expect(next.sessions).toMatchObject([{ session, rows: 600, lastSequence: 699, closed: false }]);
});

test('rows that come while a commit is going on are safe a moment later, without anything after them', async () => {
  const journal = await opened(new MemoryFiles());
  const safe: number[] = [];
  journal.on('safe', (_session, sequence) => safe.push(sequence));
  const session = journal.openSession(rollerHello, plainSettings);
  give(journal, session, 0, 10);
  const flushed = journal.flush();
  give(journal, session, 10, 20);
  await flushed;
  await new Promise((resolve) => setTimeout(resolve, 150));
  expect(safe.at(-1)).toBe(119);
});

test('a run is there in the next life until it was stored, with its rows however old, and never again after that', async () => {
  const files = new MemoryFiles();
  const journal = await opened(files, { keepMs: 0 });
  const session = journal.openSession(rollerHello, plainSettings);
  const run = newRun();
  give(journal, session, 0, 100);
  journal.begin(run, [{ source: 0, session, from: 20 }]);
  journal.end({ key: run.key, as: 'sealed', remarks: ['one'], to: [90] });
  // Much later: its segments are far behind, and kept.
  for (let at = 100; at < 2000; at += 100) {
    give(journal, session, at, at + 100);
    await journal.flush();
  }
  files.cutPower();
  const next = await opened(files, { keepMs: 0 });
  expect(next.unstored).toMatchObject([{ run: { key: run.key }, end: { to: [90], remarks: ['one'] } }]);
  expect(await readAll(next, session, 20, 90)).toEqual(count(20, 90));
  const before = (await files.list()).length;
  next.stored(run.key);
  for (let at = 2000; at < 4000; at += 100) {
    give(next, session, at, at + 100);
    await next.flush();
  }
  await new Promise((resolve) => setTimeout(resolve, 20));
  // Given up and used again.
  expect((await files.list()).length).toBeLessThan(before + 3);
  files.cutPower();
  const last = await opened(files);
  expect(last.unstored).toEqual([]);
  // The session began in a segment that has gone long since.
  expect(last.sessions).toMatchObject([{ session, rows: 4000, lastSequence: 4099 }]);
});

describe('how long rows are kept that no run has taken', () => {
  beforeEach(() => void jest.useFakeTimers({ doNotFake: ['setImmediate'] }));
  afterEach(() => void jest.useRealTimers());

  /** A slow instrument whose segment is open for minutes before it is full. */
  async function slowly(seconds: number) {
    const journal = await opened(new MemoryFiles(), { segmentBytes: 12_000 });
    const session = journal.openSession(rollerHello, plainSettings);
    for (let second = 0; second < seconds; second++) {
      give(journal, session, second, second + 1);
      await jest.advanceTimersByTimeAsync(1000);
    }
    return { journal, session };
  }

  test('a minute after they came, however long their segment was open; not for ever', async () => {
    const { journal, session } = await slowly(1200);
    const ageS = 1200 - journal.oldestRow(session);
    expect(ageS).toBeGreaterThanOrEqual(60);
    expect(ageS).toBeLessThan(600);
    expect(await readAll(journal, session, journal.oldestRow(session), 1200)).toEqual(count(1200 - ageS, 1200));
  });

  test('none less than a minute, though more comes all the time', async () => {
    const journal = await opened(new MemoryFiles(), { segmentBytes: 4000 });
    const session = journal.openSession(rollerHello, plainSettings);
    let row = 0;
    const comes = async (seconds: number) => {
      for (let second = 0; second < seconds; second++) {
        give(journal, session, row, (row += 50));
        await jest.advanceTimersByTimeAsync(1000);
      }
    };
    await comes(55);
    expect(journal.oldestRow(session)).toBe(0);
    await comes(25);
    expect(journal.oldestRow(session)).toBeGreaterThan(0);
    expect(row - journal.oldestRow(session)).toBeGreaterThanOrEqual(60 * 50);
  });

  test('those of a run that begins from that moment on, though the disk does not have its beginning yet', async () => {
    const files = new MemoryFiles();
    const journal = await opened(files, { segmentBytes: 4000 });
    const session = journal.openSession(rollerHello, plainSettings);
    for (let at = 0; at < 300; at += 50) {
      give(journal, session, at, at + 50);
      await journal.flush();
    }
    await jest.advanceTimersByTimeAsync(58_000);
    journal.begin(newRun(), [{ source: 0, session, from: 0 }]);
    // The disk takes nothing for a while, and segments grow older.
    files.before = (act) => {
      if (act === 'write') throw new Error('busy');
    };
    await jest.advanceTimersByTimeAsync(30_000);
    expect(journal.oldestRow(session)).toBe(0);
    files.before = () => undefined;
    await jest.advanceTimersByTimeAsync(100_000);
    expect(await readAll(journal, session, 0, 300)).toEqual(count(0, 300));
  });
});

test('a run whose dyno was lost, and whose end a power cut took, has ended with what is there', async () => {
  const files = new MemoryFiles();
  const journal = await opened(files);
  const session = journal.openSession(rollerHello, plainSettings);
  const run = newRun();
  give(journal, session, 0, 40);
  journal.begin(run, [{ source: 0, session, from: 10 }]);
  journal.closeSession(session);
  await journal.flush();
  files.cutPower();
  const next = await opened(files);
  await next.flush();
  expect(next.unstored).toMatchObject([
    { end: { key: run.key, as: 'interrupted', to: [40], remarks: [expect.stringMatching(/stopped during this run/)] } },
  ]);
});

test('of a run whose last rows a power cut took, those are kept that were safe', async () => {
  const files = new MemoryFiles();
  const journal = await opened(files, { segmentBytes: 100_000 });
  const session = journal.openSession(rollerHello, plainSettings);
  const run = newRun();
  give(journal, session, 0, 100);
  journal.begin(run, [{ source: 0, session, from: 0 }]);
  await journal.flush();
  give(journal, session, 100, 150);
  journal.end({ key: run.key, as: 'sealed', remarks: [], to: [150] });
  files.before = (act) => {
    if (act === 'sync') throw new Error('power');
  };
  await journal.flush();
  files.cutPower(0);
  files.before = () => undefined;
  const next = await opened(files);
  expect(next.unstored).toMatchObject([{ end: undefined }]);
  expect(next.sessions[0]!.rows).toBe(100);
});

test('on a full disk what the database has is given up, and what waited in memory is safe at last', async () => {
  const files = new MemoryFiles();
  const journal = await opened(files, { keepMs: 0 });
  const session = journal.openSession(rollerHello, plainSettings);
  const run = newRun();
  journal.begin(run, [{ source: 0, session, from: 0 }]);
  let at = 0;
  const more = async () => {
    give(journal, session, at, (at += 50));
    await journal.flush();
  };
  const problems: (string | null)[] = [];
  journal.on('problem', (problem) => problems.push(problem));
  files.room = 40_000;
  while (problems.length === 0) await more();
  const safe = journal.rowsOf(session);
  const names = (await files.list()).length;
  for (let more50 = 0; more50 < 5; more50++) await more();
  expect(journal.rowsOf(session)).toBe(safe);
  // Trying again fills the folder with nothing.
  expect((await files.list()).length).toBeLessThanOrEqual(names + 1);
  expect(await readAll(journal, session, 0, safe)).toEqual(count(0, safe));
  // Until now its run needs it all; then the database has it.
  const another = newRun();
  journal.begin(another, [{ source: 0, session, from: safe }]);
  journal.end({ key: run.key, as: 'sealed', remarks: [], to: [safe] });
  journal.stored(run.key);
  await new Promise((resolve) => setTimeout(resolve, 20));
  await journal.flush();
  await new Promise((resolve) => setTimeout(resolve, 20));
  await journal.flush();
  expect(problems.at(-1)).toBeNull();
  expect(journal.rowsOf(session)).toBe(at);
  expect(await readAll(journal, session, safe, at)).toEqual(count(safe, at));
  files.cutPower();
  const next = await opened(files);
  expect(next.unstored).toMatchObject([{ run: { key: another.key } }]);
  expect(next.sessions).toMatchObject([{ session, rows: at }]);
});
