import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { silentLog } from '../../contract/values/service-log.ts';
import { databaseStore } from '../../recorder/database/database-store.ts';
import type { RecorderStore } from '../../recorder/database/recorder-store.ts';
import { startRecorder } from '../../recorder/start-recorder.ts';
import { openDatabase, type Database } from '../../store/database/database.ts';
import { migrate } from '../../store/database/migrate.ts';
import { recordingOf } from '../../store/runs/samples.ts';
import { runById } from '../../store/runs/runs.ts';
import { freshDatabase } from '../../store/testing/test-database.ts';
import { BenchClient } from '../testing/bench-client.ts';
import { eventually } from '../testing/test-server.ts';
import { someInShort } from '../../core/testing/short-or-whole.ts';

let database: Database;
let url: string;
let drop: () => Promise<void>;
beforeAll(async () => {
  ({ url, drop } = await freshDatabase());
  await migrate(url);
  database = openDatabase(url, silentLog);
});
afterAll(async () => {
  await database.end();
  await drop();
});

type Fate =
  | 'fails before it is done'
  | 'is done, and its answer is lost'
  | 'is done, and hangs until nobody waits any more';
const written = ['takePlace', 'addRun', 'rowsKept', 'appendChunk', 'sealRun'] as const;

/** The real store, whose n-th call of those that bring a run into the database meets a fate. */
function troubled(store: RecorderStore, nth: number, fate: Fate): { store: RecorderStore; calls: () => number } {
  let calls = 0;
  const meets =
    <Words extends unknown[], T>(call: (...words: Words) => Promise<T>) =>
    async (...words: Words): Promise<T> => {
      const hit = ++calls === nth;
      if (hit && fate === 'fails before it is done') throw new Error('the database has gone');
      const answer = await call(...words);
      if (hit && fate.includes('hangs')) await new Promise((resolve) => setTimeout(resolve, 700));
      if (hit) throw new Error('no answer came');
      return answer;
    };
  const wrapped = Object.fromEntries(
    written.map((name) => [name, meets(store[name] as (...words: unknown[]) => Promise<unknown>)]),
  );
  return { store: { ...store, ...wrapped }, calls: () => calls };
}

/** Records one pull by a recorder of its own. @returns how many calls were made, and what was stored */
async function pull(nth: number, fate: Fate) {
  const calls = { count: () => 0 };
  const recorder = await startRecorder({
    databaseUrl: url,
    folder: mkdtempSync(join(tmpdir(), 'suvok-recorder-')),
    benchLinkPort: 0,
    floorBytes: 0,
    log: silentLog,
    store: (name) => {
      const made = troubled(databaseStore(database, name), nth, fate);
      calls.count = made.calls;
      return made.store;
    },
  });
  const client = await BenchClient.connect(recorder.benchLinkPort);
  client.hello({ device: `roller-${nth}` });
  client.pull({}, 0, 6);
  await new Promise((resolve) => setTimeout(resolve, 120));
  client.rest({}, 0, 6);
  const id = await eventually('the run', () => recorder.bays.state().bays[0]!.recorder.lastRunId ?? undefined);
  client.close();
  await recorder.close();
  const { rows } = await database.query<{ id: number }>('select id from run where device = $1', [`roller-${nth}`]);
  const run = (await runById(database, id))!;
  const { time } = await recordingOf(database, run);
  return { calls: calls.count(), runs: rows.length, run, time };
}

test.each<Fate>([
  'fails before it is done',
  'is done, and its answer is lost',
  'is done, and hangs until nobody waits any more',
])(
  'every call to the database of a recorded pull, one after the other, %s: the run is there once and whole',
  async (fate) => {
    await database.query('truncate run, run_chunk, run_channel cascade');
    const usual = await pull(0, fate);
    expect(usual.calls).toBeGreaterThan(5);
    const all = Array.from({ length: usual.calls }, (_, index) => index + 1);
    const tried = someInShort(all, 4);
    for (let at = 0; at < tried.length; at += 4) {
      const those = tried.slice(at, at + 4);
      for (const { run, runs, time } of await Promise.all(those.map((one) => pull(one, fate)))) {
        expect(runs).toBe(1);
        expect(run).toMatchObject({ state: 'sealed', remarks: [], samples: usual.run.samples });
        expect([...time]).toEqual([...usual.time]);
      }
    }
    expect((await database.query('select 1 from run_chunk')).rowCount).toBe(0);
  },
);
