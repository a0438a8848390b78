import { writeRecordingCsv } from '../../core/exchange/recordings/write-csv.ts';
import { generatedRun } from '../../core/testing/generated-run.ts';
import { testDyno, usualTorque } from '../../core/testing/test-car.ts';
import type { Run } from '../../contract/job/records.ts';
import type { TestServer } from './test-server.ts';

/** Has a generated pull taken in as a file. @param seed of its noise, and its place in the day @param factor of the usual torque */
export async function importRun(server: TestServer, setupId: number, seed: number, factor: number): Promise<Run> {
  const recording = generatedRun({ seed, speedNoise: 0.006, drumTorque: (rpm) => factor * usualTorque(rpm) });
  const form = new FormData();
  form.append('file', new Blob([writeRecordingCsv(recording)]), 'run.csv');
  form.append(
    'settings',
    JSON.stringify({
      setupId,
      dyno: testDyno,
      air: { temperatureC: 21, pressureHpa: 1000, relativeHumidityPct: 40 },
      engineToDrumRatio: null,
      startedAt: new Date(Date.UTC(2026, 4, 14, 9, 8 * seed)).toISOString(),
    }),
  );
  const response = await fetch(`${server.origin}/api/imports`, { method: 'POST', body: form });
  if (response.status !== 201) throw new Error(await response.text());
  return ((await response.json()) as { run: Run }).run;
}
