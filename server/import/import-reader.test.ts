import { afterEach, expect, test } from '@jest/globals';
import { writeRecordingCsv } from '../../core/exchange/write-csv.ts';
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
const bytesOf = (text: string) => new TextEncoder().encode(text);
const run = writeRecordingCsv(generatedRun({ speedNoise: 0.01 }));

test('a file is read as it would be read here', async () => {
  expect(await reader().read(bytesOf(run), as)).toEqual(readImport(bytesOf(run), as));
});

test('what is wrong with a file comes as its sentence; the next file is read all the same', async () => {
  const one = reader();
  await expect(one.read(bytesOf('a,b\n1,2\n'), as)).rejects.toThrow(Refusal);
  await expect(one.read(bytesOf(run), { dyno: null as never, engineToDrumRatio: null })).rejects.not.toThrow(Refusal);
  expect((await one.read(bytesOf(run), as)).recording.time.length).toBeGreaterThan(100);
});

test('the server goes on while a large file is read', async () => {
  const one = reader();
  await one.read(bytesOf(run), as);
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
  await one.read(bytesOf([head, ...rows].join('\n')), as);
  reading = false;
  // Read on the server's own thread it would not have had a single turn in between.
  expect(turns).toBeGreaterThan(50);
});

test('a reader that has died is replaced; what it was reading fails', async () => {
  const one = reader();
  await one.read(bytesOf(run), as);
  const lost = expect(one.read(bytesOf(run.repeat(1)), as)).rejects.toThrow(/ended before it had answered/);
  await one.close();
  await lost;
  expect((await one.read(bytesOf(run), as)).remarks).toEqual([]);
});
