import { expect, test } from '@jest/globals';
import type { DrumPlace } from '../../dyno/dyno-profile.ts';
import { drumMeans } from './drum-means.ts';
import type { RunFigures } from './figured-run.ts';

const speeds = Float64Array.of(2000, 2025, 2050, 2075);
const run = (powers: Partial<Record<DrumPlace, number>>, engineSpeedRpm = speeds) =>
  ({
    curve: {
      engineSpeedRpm,
      drums: Object.entries(powers).map(([place, kw]) => ({
        place,
        powerKw: engineSpeedRpm.map((rpm) => kw + rpm / 1000),
      })),
    },
  }) as unknown as Pick<RunFigures, 'curve'>;
const one = run({ frontLeft: 10, frontRight: 11, rearLeft: 20, rearRight: 22 });
const two = run({ frontLeft: 12, frontRight: 13, rearLeft: 22, rearRight: 24 }, speeds.subarray(1));
const at = (means: ReturnType<typeof drumMeans>) =>
  Object.fromEntries(means.map(({ name, values }) => [name, values[0]]));

test('the sum of a group’s drums, then the mean of the runs over the speeds that all cover', () => {
  const axles = drumMeans([one, two], 'axle');
  expect([...axles[0]!.engineSpeedRpm]).toEqual([2025, 2050, 2075]);
  expect(at(axles)).toEqual({ front: expect.closeTo(23 + 2 * 2.025, 9), rear: expect.closeTo(44 + 2 * 2.025, 9) });
  expect(at(drumMeans([one], 'side'))).toEqual({ left: 34, right: 37 });
  expect(Object.keys(at(drumMeans([one], 'wheel')))).toEqual(['front left', 'front right', 'rear left', 'rear right']);
});

test('runs that do not tell their drums apart so say nothing of it', () => {
  const whole = { curve: { engineSpeedRpm: speeds, drums: undefined } } as unknown as Pick<RunFigures, 'curve'>;
  expect(at(drumMeans([whole, one], 'axle'))).toEqual(at(drumMeans([one], 'axle')));
  expect(drumMeans([run({ left: 1, right: 2 })], 'axle')).toEqual([]);
  expect(drumMeans([whole], 'wheel')).toEqual([]);
});
