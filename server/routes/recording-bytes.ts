import type { Recording } from '../../core/recording/recording.ts';

/**
 * A recording as bytes: a little-endian uint32 with the length of a JSON
 * header padded to eight bytes, the header ({samples, channels}), then one
 * block of float64 a column, time first. Read by web/workers/recording-bytes.ts.
 */
export function recordingBytes(recording: Recording): Buffer {
  const header = JSON.stringify({
    samples: recording.time.length,
    channels: recording.channels.map(({ name, unit }) => ({ name, unit })),
  });
  const headerBytes = Buffer.from(header, 'utf8');
  const padded = Buffer.alloc(Math.ceil((headerBytes.length + 4) / 8) * 8 - 4, ' ');
  headerBytes.copy(padded);
  const length = Buffer.alloc(4);
  length.writeUInt32LE(padded.length);
  const columns = [recording.time, ...recording.channels.map((channel) => channel.values)];
  return Buffer.concat([
    length,
    padded,
    ...columns.map((column) => Buffer.from(column.buffer, column.byteOffset, column.byteLength)),
  ]);
}
