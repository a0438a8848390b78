import { expect, test } from '@jest/globals';
import { chance } from '../../core/testing/chance.ts';
import { addJob } from '../jobs/jobs.ts';
import { addSetup, setupsOfJob } from '../jobs/setups.ts';
import { newRun } from '../testing/new-run.ts';
import { fileDatabase } from '../testing/file-database.ts';
import { keepPower, nextWithoutPower, powerVersion } from './run-power.ts';
import { addRun, moveRun, runById } from './runs.ts';

const database = fileDatabase();

/** What is wanted by looking through all runs there are, which a shop of many years has no time for. */
async function wantedByLooking(): Promise<number | undefined> {
  const { rows } = await database().query<{ id: string }>(
    `select run.id from run
     where run.kind = 'power' and run.state <> 'recording' and run.set_aside_reason is null and run.setup_id is not null
       and not exists (select from run_power where run_id = run.id and version = $1)
       and exists (select from run other where other.setup_id = run.setup_id and other.id <> run.id
         and other.kind = 'power' and other.set_aside_reason is null)
     order by run.id desc limit 1`,
    [powerVersion],
  );
  return rows[0] && Number(rows[0].id);
}

test('whatever is done to runs, the next power that is wanted is that of the latest run without one', async () => {
  const jobId = await addJob(database(), { vehicle: 'A car', owner: '', question: '', gear: null });
  for (const change of ['ignition +1°', 'boost +10 kPa'])
    await addSetup(database(), jobId, { parentId: null, change, items: [] });
  const setups = await setupsOfJob(database(), jobId);
  const draw = chance(41);
  const any = <T>(list: readonly T[]): T => list[Math.floor(draw() * list.length)]!;
  const ids: number[] = [];
  const set = (id: number, what: string) => database().query(`update run set ${what} where id = $1`, [id]);
  const acts: ((id: number) => Promise<unknown>)[] = [
    (id) => set(id, "state = 'sealed', ended_at = now()"),
    (id) => set(id, "state = 'sealed', ended_at = now()"),
    (id) => set(id, "set_aside_reason = 'slipped'"),
    (id) => set(id, 'set_aside_reason = null'),
    (id) => set(id, "kind = 'step'"),
    (id) => set(id, "kind = 'power'"),
    (id) => set(id, 'engine_to_drum_ratio = engine_to_drum_ratio + 0.01'),
    async (id) => moveRun(database(), (await runById(database(), id))!, any(setups).id),
  ];
  let found = 0;
  for (let step = 0; step < 400; step++) {
    if (ids.length < 3 || draw() < 0.1) {
      const run = newRun({ setup: draw() < 0.9 ? { id: any(setups).id, jobId } : null });
      ids.push((await addRun(database(), run)).id);
    } else if (draw() < 0.25) {
      const id = await nextWithoutPower(database());
      if (id !== undefined) await keepPower(database(), id, null);
    } else await any(acts)(any(ids));
    const wanted = await wantedByLooking();
    if (wanted !== undefined) found++;
    expect([step, await nextWithoutPower(database())]).toEqual([step, wanted]);
  }
  expect(found).toBeGreaterThan(50);
});

test('a power of an older version is made anew', async () => {
  for (let id = await nextWithoutPower(database()); id !== undefined; id = await nextWithoutPower(database()))
    await keepPower(database(), id, null);
  const { rows } = await database().query<{ run_id: string }>(
    'update run_power set version = version - 1 where run_id = (select max(run_id) from run_power) returning run_id',
  );
  const id = await nextWithoutPower(database());
  expect(id).toBe(Number(rows[0]!.run_id));
  await keepPower(database(), id!, null);
  expect(await nextWithoutPower(database())).toBeUndefined();
});
