import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { testDyno } from '../../core/testing/test-car.ts';
import { silentLog } from '../../recorder/log.ts';
import { openDatabase, type Database } from '../store/database.ts';
import { migrate } from '../store/migrate.ts';
import { recorderStore } from '../store/recorder-store.ts';
import { recordingOf } from '../store/samples.ts';
import { runById } from '../store/runs.ts';
import { eventually, freshDatabase } from '../testing/test-server.ts';
import { RunWriter } from '../../recorder/run-writer.ts';

let database: Database;
let drop: () => Promise<void>;
beforeAll(async () => {
  const fresh = await freshDatabase();
  drop = fresh.drop;
  await migrate(fresh.url);
  database = openDatabase(fresh.url, silentLog);
});
afterAll(async () => {
  await database.end();
  await drop();
});

const beginning = {
  setup: null,
  gear: null,
  startedAt: new Date(),
  dyno: testDyno,
  engineToDrumRatio: null,
  air: null,
  airTakenAt: null,
  startTemperatures: {},
  channels: [{ name: 'rollerSpeed', unit: 'rad/s' }],
  source: 'test',
  kind: 'power' as const,
  device: 'test',
  plan: null,
  logs: [],
  recorderId: null,
};
const rows = (from: number, count: number) =>
  Array.from({ length: count }, (_, index) => Float64Array.of((from + index) / 100, from + index));

/** A database that refuses its next writes, and one whose answer to a write is lost though it was done. */
function troubled(): { database: Database; refuse: (count: number) => void; loseAnswers: (count: number) => void } {
  let refusals = 0;
  let lost = 0;
  const query = async (...words: Parameters<Database['query']>) => {
    const writes = String(words[0]).includes('run_chunk');
    if (writes && refusals > 0) {
      refusals--;
      throw new Error('the database has gone');
    }
    const result = await (database.query as (...all: unknown[]) => Promise<unknown>)(...words);
    if (writes && lost > 0) {
      lost--;
      throw new Error('the answer was lost');
    }
    return result;
  };
  return {
    database: { query, connect: () => database.connect() } as unknown as Database,
    refuse: (count) => (refusals = count),
    loseAnswers: (count) => (lost = count),
  };
}

test('while the database refuses, samples wait and are told of; afterwards all are there, once and in order', async () => {
  const trouble = troubled();
  const problems: (string | null)[] = [];
  const writer = new RunWriter(recorderStore(trouble.database), beginning, (problem) => problems.push(problem));
  writer.push(rows(0, 50));
  await eventually('the first samples', async () => (await database.query('select 1 from run_chunk')).rowCount === 1);
  trouble.refuse(1);
  writer.push(rows(50, 50));
  await eventually('the problem', () => problems.some((problem) => problem?.includes('50 samples wait in memory')));
  trouble.loseAnswers(1);
  writer.push(rows(100, 50));
  writer.end('sealed', ['a remark']);
  const run = await writer.sealed;
  const stored = (await runById(database, run.id))!;
  expect(stored).toMatchObject({ state: 'sealed', samples: 150, remarks: ['a remark'] });
  const recording = await recordingOf(database, stored);
  expect([...recording.channels[0]!.values]).toEqual(Array.from({ length: 150 }, (_, index) => index));
  expect(problems.at(-1)).toBeNull();
  expect((await database.query('select 1 from run_chunk')).rowCount).toBe(0);
}, 20_000);

test('a run that ends before anything was stored is sealed all the same', async () => {
  const writer = new RunWriter(recorderStore(database), beginning, () => undefined);
  writer.end('interrupted', []);
  const run = await writer.sealed;
  expect(await runById(database, run.id)).toMatchObject({ state: 'interrupted', samples: 0 });
});
