import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { fileURLToPath } from 'node:url';
import { runner } from 'node-pg-migrate';
import { emptyDatabase } from '../testing/test-database.ts';
import { silentLog } from '../../contract/values/service-log.ts';
import { openDatabase, type Database } from './database.ts';
import { jobWithAll } from '../jobs/jobs.ts';

let database: Database;
let url: string;
let drop: () => Promise<void>;
beforeAll(async () => {
  ({ url, drop } = await emptyDatabase());
  database = openDatabase(url, silentLog);
});
afterAll(async () => {
  await database.end();
  await drop();
});

const step = (direction: 'up' | 'down', count = 1) =>
  runner({
    databaseUrl: url,
    dir: fileURLToPath(new URL('../../migrations', import.meta.url)),
    direction,
    count,
    migrationsTable: 'migration',
    log: () => undefined,
  });

test('jobs written before owners and vehicles were kept come through, and back', async () => {
  await step('up');
  await database.query(`insert into job (vehicle, owner, question) values
    ('Tarrow Six', 'A. Sorrel', 'Does it pay?'), ('Tarrow Six', 'A. Sorrel', 'Again?'), ('Tarrow Six', '', '')`);
  await database.query(`insert into setup (job_id, position, change, items) values
    (1, 0, 'As arrived', '[]'),
    (1, 1, 'ignition', '[{"kind":"ignition","deltaDeg":1.5,"aboveRpm":4000},{"kind":"intake-length","deltaMm":-40}]')`);
  // All that came later, and back to the first.
  const later = await step('up', Infinity);
  const [first, second, third] = [1, 2, 3].map((id) => jobWithAll(database, id));
  expect(await first).toMatchObject({ vehicle: 'Tarrow Six', owner: 'A. Sorrel', state: 'open' });
  expect((await second)!.vehicleId).toBe((await first)!.vehicleId);
  expect((await third)!.vehicleId).not.toBe((await first)!.vehicleId);
  expect((await first)!.setups[1]!.items).toEqual([
    { kind: 'ignition', by: 1.5, aboveRpm: 4000 },
    { kind: 'intake-length', by: -40 },
  ]);
  await step('down', later.length);
  const { rows } = await database.query('select vehicle, owner from job order by id');
  expect(rows).toMatchObject([{ owner: 'A. Sorrel' }, { vehicle: 'Tarrow Six' }, { owner: '' }]);
});
