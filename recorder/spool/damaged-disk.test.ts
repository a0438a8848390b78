import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { silentLog } from '../../contract/values/service-log.ts';
import { plainSettings } from '../../contract/instruments/recording.ts';
import { shortOrWhole } from '../../core/testing/short-or-whole.ts';
import { MemoryFiles } from '../testing/memory-files.ts';
import { newRun } from '../../store/testing/new-run.ts';
import { rollerHello } from '../testing/test-instrument.ts';
import { Journal } from './journal.ts';

/**
 * A disk that lies: what it gives back is not what was written. The bytes are spoilt from outside, whatever the spool
 * makes of its files, and what each life finds is held against what was taken.
 */
const segmentBytes = 4000;
const open = (files: MemoryFiles) => Journal.open(files, silentLog, { segmentBytes });

const key = '5d1ff5a0-7a30-4cbb-9e62-0f0b58a5bd11';

/** A run of so many commits of ten rows, with its beginning and its end. */
async function recorded(files: MemoryFiles, commits = 60): Promise<{ rows: number }> {
  const journal = await open(files);
  const session = journal.openSession(rollerHello, plainSettings);
  await journal.flush();
  journal.begin(newRun({ key }), [{ source: 0, session, from: 0 }]);
  let at = 0;
  for (let commit = 0; commit < commits; commit++) {
    for (let row = 0; row < 10; row++, at++) journal.row(session, at, Float64Array.of(at / 100, at, -at), at);
    await journal.flush();
  }
  journal.end({ key, as: 'sealed', remarks: [], to: [at] });
  await journal.close();
  return { rows: at };
}

/** Rows of the only session that can be read back, by their places; each must be what was taken. */
async function readBack(files: MemoryFiles) {
  const journal = await open(files);
  const [kept] = journal.sessions;
  const found: number[] = [];
  for (const { first, count } of kept?.extents ?? []) {
    const rows = await journal.rows(kept!.session, first, first + count);
    for (const [index, row] of rows!.entries()) {
      const at = first + index;
      if (row[0] !== at / 100 || row[1] !== at || row[2] !== -at)
        throw new Error(`row ${at} is another: ${row.join(' ')}`);
      found.push(at);
    }
  }
  const told = { lost: journal.lost, runs: journal.unstored, rows: found };
  await journal.close();
  return told;
}

test('with nothing spoilt all of it is there, and nothing is said to be lost', async () => {
  const files = new MemoryFiles();
  const { rows } = await recorded(files);
  const { lost, runs, rows: found } = await readBack(files);
  expect(lost).toBe(0);
  expect(found).toEqual(Array.from({ length: rows }, (_, at) => at));
  expect(runs).toMatchObject([{ run: { key }, end: { as: 'sealed', to: [rows] } }]);
});

test('one flipped bit, wherever it is, costs ten rows at most; the run keeps its beginning and its end', async () => {
  const files = new MemoryFiles();
  const { rows } = await recorded(files);
  const places = files.names.flatMap((name) =>
    Array.from({ length: files.sizeOf(name) }, (_, position) => ({ name, position })),
  );
  await fc.assert(
    fc.asyncProperty(fc.constantFrom(...places), fc.integer({ min: 0, max: 7 }), async ({ name, position }, bit) => {
      const spoilt = files.copy();
      spoilt.spoil(name, position, (bytes) => (bytes[0]! ^= 1 << bit), 1);
      const { lost, runs, rows: found } = await readBack(spoilt);
      expect(found.length).toBeGreaterThanOrEqual(rows - 10);
      expect(found).toEqual([...new Set(found)].sort((a, b) => a - b));
      // What is missing is told, unless it was the last record of all, or a copy.
      if (found.length < rows && found.at(-1) === rows - 1) expect(lost).toBe(1);
      expect(runs).toMatchObject([{ run: { key }, end: { as: 'sealed', to: [rows] } }]);
    }),
    { numRuns: shortOrWhole(150, 3000) },
  );
});

test('zeros over a part of a segment, or a segment that is gone, cost what lay there and nothing after it', async () => {
  const files = new MemoryFiles();
  const { rows } = await recorded(files, 120);
  const [, , third, fourth] = files.names.filter((name) => name.endsWith('.seg')).sort();
  const zeroed = files.copy();
  zeroed.spoil(third!, 700, (bytes) => bytes.fill(0), 1500);
  const gone = files.copy();
  await gone.remove(fourth!);
  for (const spoilt of [zeroed, gone]) {
    const { lost, runs, rows: found } = await readBack(spoilt);
    expect(lost).toBeGreaterThan(0);
    expect(rows - found.length).toBe(10 * lost);
    expect(found).toContain(rows - 1);
    expect(runs).toMatchObject([{ run: { key }, end: { as: 'sealed', to: [rows] } }]);
  }
});

test('a disk that does not give a place back is read around it', async () => {
  const files = new MemoryFiles();
  const { rows } = await recorded(files, 120);
  const [, second] = files.names.filter((name) => name.endsWith('.seg')).sort();
  files.unreadable = { name: second!, from: 0, to: 100 };
  const { runs, rows: found } = await readBack(files);
  expect(found).toContain(rows - 1);
  expect(found).toContain(0);
  expect(runs).toMatchObject([{ run: { key }, end: { to: [rows] } }]);
});

test('a life after the damage writes on, and the next one reads both', async () => {
  const files = new MemoryFiles();
  await recorded(files);
  const [, second] = files.names.filter((name) => name.endsWith('.seg')).sort();
  files.spoil(second!, 900, (bytes) => bytes.fill(0xff), 300);
  const before = await readBack(files);
  expect(before.lost).toBeGreaterThan(0);
  const journal = await open(files);
  const session = journal.openSession({ ...rollerHello, device: 'other' }, plainSettings);
  journal.row(session, 0, Float64Array.of(1, 2, 3), 7);
  await journal.close();
  const after = await open(files);
  expect(after.sessions.map(({ hello, rows }) => [hello.device, rows])).toEqual([
    ['roller', 600],
    ['other', 1],
  ]);
  expect(after.unstored).toHaveLength(1);
  expect(await after.rows(session, 0, 1)).toEqual([Float64Array.of(1, 2, 3)]);
  await after.close();
});
