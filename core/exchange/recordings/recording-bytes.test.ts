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
