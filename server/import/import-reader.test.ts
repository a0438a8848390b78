import { afterEach, expect, test } from '@jest/globals';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeRecordingCsv } from '../../core/exchange/recordings/write-csv.ts';
import { Refusal } from '../../core/refusal.ts';
import { generatedRun } from '../../core/testing/generated-run.ts';
import { testDyno } from '../../core/testing/test-car.ts';
import { ImportReader } from './import-reader.ts';
import { readImport } from './read-import.ts';

const readers: ImportReader[] = [];
const reader = () => {
  const made = new ImportReader();
  readers.push(made);
  return made;
};
afterEach(() => Promise.all(readers.splice(0).map((made) => made.close())));
const as = { dyno: testDyno, engineToDrumRatio: null };
const folder = mkdtempSync(join(tmpdir(), 'suvok-import-'));
let files = 0;
/** A file that holds a text. */
const fileOf = (text: string) => {
  const path = join(folder, String(files++));
  writeFileSync(path, text);
  return path;
};
const run = writeRecordingCsv(generatedRun({ speedNoise: 0.01 }));

test('a file is read as it would be read here', async () => {
  expect(await reader().read(fileOf(run), as)).toEqual(await readImport(fileOf(run), as));
});

test('what is wrong with a file comes as its sentence; the next file is read all the same', async () => {
  const one = reader();
  await expect(one.read(fileOf('a,b\n1,2\n'), as)).rejects.toThrow(Refusal);
  await expect(one.read(fileOf(run), { dyno: null as never, engineToDrumRatio: null })).rejects.not.toThrow(Refusal);
  expect((await one.read(fileOf(run), as)).recording.time.length).toBeGreaterThan(100);
});

test('the server goes on while a large file is read', async () => {
  const one = reader();
  await one.read(fileOf(run), as);
  let turns = 0;
  let reading = true;
  const turn = () => {
    turns++;
    if (reading) setImmediate(turn);
  };
  turn();
  const [head, ...rows] = writeRecordingCsv(generatedRun({ rateHz: 1000, coastS: 60 }))
    .trim()
    .split('\n');
  await one.read(fileOf([head, ...rows].join('\n')), as);
  reading = false;
  // Read on the server's own thread it would not have had a single turn in between.
  expect(turns).toBeGreaterThan(50);
});

test('a reader that has died is replaced; what it was reading fails', async () => {
  const one = reader();
  await one.read(fileOf(run), as);
  const lost = expect(one.read(fileOf(run.repeat(1)), as)).rejects.toThrow(/ended before it had answered/);
  await one.close();
  await lost;
  expect((await one.read(fileOf(run), as)).remarks).toEqual([]);
});

test('what a file says is read the same wherever its pieces end, in any characters', async () => {
  const [head, ...rows] = run.trim().split('\n');
  // Past the first piece, and every heading's signs of two and three bytes somewhere on an edge.
  const long = [`${head},Öl °C €`, ...rows.flatMap((row) => Array.from({ length: 12 }, () => `${row},1`))].join('\n');
  const read = await reader()
    .read(fileOf(long), as)
    .catch((error: Error) => error);
  expect(read).toBeInstanceOf(Refusal);
  expect((read as Error).message).toMatch(/Time does not advance/);
  expect(
    (
      await reader().read(fileOf(`\uFEFF${head},Öl [°C]\n${rows.map((row) => `${row},1`).join('\r\n')}`), as)
    ).recording.channels.at(-1)!.name,
  ).toBe('Öl');
});

test('reading is told as it goes, and ends when nobody waits for it; the next file is read all the same', async () => {
  const one = reader();
  const [head, ...rows] = writeRecordingCsv(generatedRun({ rateHz: 1000, coastS: 60 }))
    .trim()
    .split('\n');
  const long = fileOf(
    [head, ...rows, ...rows.map((row) => row.replace(/^\d+/, (s) => String(Number(s) + 200)))].join('\n'),
  );
  const told: number[] = [];
  await one.read(long, as, { onProgress: (done) => told.push(done) });
  expect(told.length).toBeGreaterThan(2);
  expect(told).toEqual([...told].sort((a, b) => a - b));
  expect(told.at(-1)).toBe(1);
  const cancel = new AbortController();
  const before = told.length;
  const reading = one.read(long, as, {
    signal: cancel.signal,
    onProgress: (done) => {
      told.push(done);
      cancel.abort();
    },
  });
  await expect(reading).rejects.toThrow(/It was cancelled/);
  expect(told.length - before).toBeLessThan(before);
  await expect(one.read(long, as, { signal: AbortSignal.abort() })).rejects.toThrow(/It was cancelled/);
  expect((await one.read(fileOf(run), as)).remarks).toEqual([]);
});
