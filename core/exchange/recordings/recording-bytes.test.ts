import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Recording } from '../../recording/recording.ts';
import {
  recordingFromBytes,
  recordingsFromBytes,
  recordingsToBytes,
  recordingToBytes,
  sourceKey,
} from './recording-bytes.ts';

const recordings = fc
  .tuple(
    fc.nat({ max: 40 }),
    fc.array(fc.tuple(fc.string({ maxLength: 12 }), fc.string({ maxLength: 6 })), { maxLength: 5 }),
  )
  .chain(([samples, names]) => {
    const column = fc.float64Array({ minLength: samples, maxLength: samples });
    return fc.record({
      time: column,
      channels: fc.tuple(...names.map(([name, unit]) => column.map((values) => ({ name, unit, values })))),
    });
  });

const bufferOf = (recording: Recording) => recordingToBytes(recording).buffer as ArrayBuffer;

test('whatever was recorded comes back bit for bit, names in any script and values that are no number included', () => {
  fc.assert(
    fc.property(recordings, (recording) => {
      expect(recordingFromBytes(bufferOf(recording))).toEqual(recording);
    }),
  );
});

/** What instruments and files give: few digits, missing values, steps of any size; and what only looks like it. */
const decimals = fc
  .tuple(
    fc.nat({ max: 7 }),
    fc.array(fc.option(fc.integer({ min: -(2 ** 31), max: 2 ** 31 }), { nil: NaN }), { maxLength: 30 }),
  )
  .map(([digits, wholes]) => Float64Array.from(wholes, (whole) => Number(`${whole}e-${digits}`)));

test('decimals come back bit for bit, whatever their steps, zeros of either sign and missing values', () => {
  fc.assert(
    fc.property(decimals, fc.boolean(), (values, negativeZero) => {
      if (negativeZero && values.length > 0) values[0] = -0;
      const back = recordingFromBytes(bufferOf({ time: values, channels: [] })).time;
      expect([...back].every((value, index) => Object.is(value, values[index]))).toBe(true);
      expect(back).toHaveLength(values.length);
    }),
    { numRuns: 500 },
  );
});

test('what an instrument sends takes less than a third of its float64', () => {
  const time = Float64Array.from({ length: 1000 }, (_, index) => index / 200);
  const rpm = time.map((at) => Math.round(20_000 + 6000 * at + 30 * Math.sin(200 * at)) / 10);
  const recording = { time, channels: [{ name: 'engineSpeed', unit: 'rpm', values: rpm }] };
  expect(recordingToBytes(recording).length).toBeLessThan(16_000 / 3);
});

test('a column that is a slice of larger memory is taken as the slice', () => {
  const time = Float64Array.of(9, 0, 1, 2, 9).subarray(1, 4);
  expect([...recordingFromBytes(bufferOf({ time, channels: [] })).time]).toEqual([0, 1, 2]);
});

test('bytes that are cut short are refused, never read as a shorter recording', () => {
  const bytes = bufferOf({
    time: Float64Array.of(0, 1),
    channels: [{ name: 'x', unit: '', values: Float64Array.of(3, 4) }],
  });
  for (const length of [0, 3, 20, bytes.byteLength - 8, bytes.byteLength - 1])
    expect(() => recordingFromBytes(bytes.slice(0, length))).toThrow();
});

test('several recordings come back by run and logger, in their order', () => {
  const key = fc.record({ run: fc.uuid(), source: fc.nat({ max: 3 }) }).map((source) => sourceKey(source));
  fc.assert(
    fc.property(fc.array(fc.tuple(key, recordings), { maxLength: 4 }), (pairs) => {
      const sent = new Map(pairs);
      const bytes = recordingsToBytes(sent).buffer as ArrayBuffer;
      expect([...recordingsFromBytes(bytes)]).toEqual([...sent]);
      if (bytes.byteLength > 24) expect(() => recordingsFromBytes(bytes.slice(0, -1))).toThrow();
    }),
    { numRuns: 40 },
  );
});
