import { expect, test } from '@jest/globals';
import { testDyno } from '../../core/testing/test-car.ts';
import { recordingFromBytes } from '../../core/exchange/recordings/recording-bytes.ts';
import { takeFiles } from './taken-files.ts';

const file = (name: string, content: unknown) =>
  new File([typeof content === 'string' ? content : JSON.stringify(content)], name);

test('files are sorted by what they hold, and a later one takes the place of the last of its kind', async () => {
  const first = await takeFiles({ recordings: [], problems: [] }, [
    file('run.csv', 'time [s]'),
    file('machine.json', testDyno),
    file('day.json', { temperatureC: 20, pressureHpa: 1000, relativeHumidityPct: 50 }),
  ]);
  expect(first.recordings.map(({ name }) => name)).toEqual(['run.csv']);
  expect(first.dyno!.content.inertiaKgM2).toBe(50);
  expect(first.air!.content.temperatureC).toBe(20);
  expect(first.problems).toEqual([]);
  const second = await takeFiles(first, [file('other.json', { ...testDyno, inertiaKgM2: 60 })]);
  expect(second.dyno!.content.inertiaKgM2).toBe(60);
  expect(second.air).toEqual(first.air);
  // A recording is handed on once.
  expect(second.recordings).toEqual([]);
});

test.each([
  ['broken.json', '{', /broken\.json .*it is not JSON/],
  ['air.json', { temperatureC: 20, pressureHpa: 10, relativeHumidityPct: 50 }, /air\.json .*pressureHpa/],
  ['dyno.json', { ...testDyno, kind: 'treadmill' }, /dyno\.json .*kind/],
])('%s is named with its fault', async (name, content, sentence) => {
  expect((await takeFiles({ recordings: [], problems: [] }, [file(name, content)])).problems.join()).toMatch(sentence);
});

test('a recording is read out of bytes as they are laid down, and cut ones are refused', () => {
  const header = new TextEncoder().encode(
    JSON.stringify({ samples: 2, channels: [{ name: 'rollerSpeed', unit: 'rad/s' }] }),
  );
  const padded = Math.ceil((header.length + 4) / 8) * 8 - 4;
  const bytes = new Uint8Array(4 + padded + 32).fill(32);
  new DataView(bytes.buffer).setUint32(0, padded, true);
  bytes.set(header, 4);
  bytes.set(new Uint8Array(Float64Array.of(0, 0.5, 60, 61).buffer), 4 + padded);
  expect(recordingFromBytes(bytes.buffer)).toEqual({
    time: Float64Array.of(0, 0.5),
    channels: [{ name: 'rollerSpeed', unit: 'rad/s', values: Float64Array.of(60, 61) }],
  });
  expect(() => recordingFromBytes(bytes.buffer.slice(0, 4 + padded + 24))).toThrow(RangeError);
});
