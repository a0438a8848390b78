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

/** Bytes as they are laid down: a header and what follows it. */
function laidDown(told: object, columns: readonly number[]): ArrayBuffer {
  const header = new TextEncoder().encode(JSON.stringify(told));
  const padded = Math.ceil((header.length + 4) / 8) * 8 - 4;
  const bytes = new Uint8Array(4 + padded + columns.length).fill(32);
  new DataView(bytes.buffer).setUint32(0, padded, true);
  bytes.set(header, 4);
  bytes.set(columns, 4 + padded);
  return bytes.buffer;
}

test('a recording is read out of bytes as they are laid down, and cut ones are refused', () => {
  const told = { samples: 2, channels: [{ name: 'rollerSpeed', unit: 'rad/s' }] };
  const recorded = {
    time: Float64Array.of(0, 0.5),
    channels: [{ name: 'rollerSpeed', unit: 'rad/s', values: Float64Array.of(60, 61) }],
  };
  // As a browser may have kept them from before columns had forms: float64.
  const plain = laidDown(told, [...new Uint8Array(Float64Array.of(0, 0.5, 60, 61).buffer)]);
  expect(recordingFromBytes(plain)).toEqual(recorded);
  expect(() => recordingFromBytes(plain.slice(0, -8))).toThrow(/length|bytes of a column/);
  // 0, 5 tenths more; 60, 1 more: twice the step, and 1.
  const forms = [
    { digits: 1, length: 2 },
    { digits: 0, length: 2 },
  ];
  const decimals = laidDown({ ...told, forms }, [1, 11, 0, 0, 0, 0, 0, 0, 121, 3, 0, 0, 0, 0, 0, 0]);
  expect(recordingFromBytes(decimals)).toEqual(recorded);
  expect(() => recordingFromBytes(decimals.slice(0, -1))).toThrow(/length|bytes of a column/);
  // More samples than there are bytes: nothing is made room for.
  const many = laidDown({ ...told, samples: 1e9, forms }, [1, 11, 0, 0, 0, 0, 0, 0, 121, 3, 0, 0, 0, 0, 0, 0]);
  expect(() => recordingFromBytes(many)).toThrow(/length|bytes of a column/);
});
