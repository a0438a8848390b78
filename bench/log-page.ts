import type { Recording } from '../core/recording/recording.ts';
import { chance, normal } from '../core/testing/chance.ts';
import { crowdedJob } from './crowded-job.ts';
import type { Figure } from './figure.ts';
import { withPage } from './page-bench.ts';

const channels = [
  'lambda',
  'lambdaTarget',
  'boost',
  'boostTarget',
  'boostDuty',
  'ignitionAdvance',
  'knockRetard',
  'injectorDuty',
  'injectorPulse',
  'fuelPressure',
  'manifoldPressure',
  'fuelTrimShort',
  'fuelTrimLong',
  'airMassFlow',
  'intakeTemperature',
  'coolantTemperature',
  'oilTemperature',
  'exhaustTemperature',
  'oilPressure',
  'batteryVoltage',
];

/** Twenty channels, noisy, at the rate of the pull. */
function logged(recording: Recording): Recording {
  const scatter = normal(chance(recording.time.length));
  const read = (at: number) => recording.time.map(() => 10 * (at + 1) + 0.2 * scatter());
  return {
    ...recording,
    channels: [...recording.channels, ...channels.map((name, at) => ({ name, unit: '', values: read(at) }))],
  };
}

/** A log opened by its address, of two setups of three runs with twenty channels each. */
export function logPageFigures(): Promise<Figure[]> {
  return withPage(async ({ server, page }) => {
    const origin = `http://127.0.0.1:${server.port}`;
    const job = await crowdedJob(`${origin}/api`, 2, 3, logged);
    const times: number[] = [];
    for (const label of ['B3', 'B2', 'B1']) {
      await page.goto('about:blank');
      const began = performance.now();
      await page.goto(`${origin}/jobs/${job.id}/logs?run=${label}`);
      await page
        .getByRole('img', { name: new RegExp(`of ${label} and`) })
        .first()
        .waitFor();
      await page.getByRole('region', { name: 'All other channels' }).waitFor();
      times.push((performance.now() - began) / 1000);
    }
    return [
      {
        name: 'log of 20 channels, opened by its address',
        value: times.sort((a, b) => a - b)[1]!,
        unit: 's',
        budget: 1,
      },
    ];
  });
}
