import { expect, test } from '@jest/globals';
import { silentLog } from '../../contract/values/service-log.ts';
import { testDyno } from '../../core/testing/test-car.ts';
import { openDatabase } from '../../store/database/database.ts';
import { migrate } from '../../store/database/migrate.ts';
import { unclaimedRuns } from '../../store/runs/runs.ts';
import { recordingOf } from '../../store/runs/samples.ts';
import { freshDatabase } from '../../store/testing/test-database.ts';
import { eventually, startHere } from '../testing/test-server.ts';

test('a run that an earlier version left open is ended with all that was stored of it', async () => {
  const { url, drop } = await freshDatabase();
  await migrate(url);
  const database = openDatabase(url, silentLog);
  const { rows } = await database.query<{ id: number }>(
    `insert into run (state, started_at, dyno, channels, source) values ('recording', '2026-05-04T09:00:00Z', $1, $2, 'old') returning id`,
    [testDyno, JSON.stringify([{ name: 'rollerSpeed', unit: 'rad/s' }])],
  );
  // As they stood there: numbered one by one.
  for (const sequence of [0, 1, 2]) {
    const data = Buffer.from(Float64Array.of(sequence * 2, sequence * 2 + 1, 50, 60).buffer);
    await database.query('insert into run_chunk (run_id, sequence, samples, data) values ($1, $2, 2, $3)', [
      rows[0]!.id,
      sequence,
      data,
    ]);
  }
  const { server, recorder } = await startHere(url, silentLog);
  const run = await eventually('its end', async () =>
    (await unclaimedRuns(database)).find(({ state }) => state === 'interrupted'),
  );
  expect(run).toMatchObject({ samples: 6, remarks: [expect.stringMatching(/stored until then was kept/)] });
  expect([...(await recordingOf(database, run)).time]).toEqual([0, 1, 2, 3, 4, 5]);
  await server.close();
  await recorder.close();
  await database.end();
  await drop();
});
