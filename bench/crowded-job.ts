import type { Job, Setup } from '../contract/job/records.ts';
import type { Recording } from '../core/recording/recording.ts';
import { writeRecordingCsv } from '../core/exchange/recordings/write-csv.ts';
import { generatedRun } from '../core/testing/generated-run.ts';
import { testDyno, usualTorque } from '../core/testing/test-car.ts';

const air = { temperatureC: 21, pressureHpa: 1004, relativeHumidityPct: 45 };

/**
 * Fills a Suvok with a long day: so many setups, each one step of ignition
 * further, with so many imported runs each.
 *
 * @param api its address, `/api` included
 * @param logged what is recorded beside what a drawn pull holds
 */
export async function crowdedJob(
  api: string,
  setups: number,
  runsEach: number,
  logged: (recording: Recording) => Recording = (recording) => recording,
): Promise<Job> {
  const ask = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
    const headers = { 'content-type': 'application/json' };
    const response = await fetch(api + path, { method, headers, ...(body ? { body: JSON.stringify(body) } : {}) });
    if (!response.ok) throw new Error(`${method} ${path} was answered with ${response.status}`);
    return (await response.json()) as T;
  };
  const job = await ask<Job>('POST', '/jobs', {
    vehicle: 'Long day',
    question: 'How far can the ignition go?',
    gear: '4th',
  });
  let setupId = job.setups[0]!.id;
  for (let step = 0; step < setups; step++) {
    if (step > 0) {
      const items = [{ kind: 'ignition', by: 0.5 }];
      ({ id: setupId } = await ask<Setup>('POST', `/jobs/${job.id}/setups`, {
        parentId: setupId,
        change: 'ignition +0.5°',
        items,
      }));
    }
    // Best after two thirds of the steps.
    const factor = 1 - 0.06 * (step / setups - 0.66) ** 2;
    for (let run = 0; run < runsEach; run++) {
      const recording = generatedRun({
        seed: 1000 * step + run,
        speedNoise: 0.008,
        drumTorque: (rpm) => factor * usualTorque(rpm),
      });
      const form = new FormData();
      form.append('file', new Blob([writeRecordingCsv(asSent(logged(recording)))]), 'run.csv');
      form.append(
        'settings',
        JSON.stringify({ setupId, dyno: testDyno, air, engineToDrumRatio: null, startedAt: new Date().toISOString() }),
      );
      const response = await fetch(`${api}/imports`, { method: 'POST', body: form });
      if (!response.ok) throw new Error(`an import was answered with ${response.status}: ${await response.text()}`);
    }
  }
  return ask<Job>('GET', `/jobs/${job.id}`);
}

/** Values with the digits that an instrument sends, not those of a drawn number. */
function asSent({ time, channels }: Recording): Recording {
  const rounded = (values: Float64Array) => values.map((value) => Number(value.toFixed(5)));
  return {
    time: rounded(time),
    channels: channels.map((channel) => ({ ...channel, values: rounded(channel.values) })),
  };
}
