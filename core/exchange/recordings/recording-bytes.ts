import type { Recording } from '../../recording/recording.ts';

/**
 * A recording as bytes, as the server sends it to the page: a little-endian
 * uint32 with the length of a JSON header padded to eight bytes, the header
 * ({samples, channels}), then one block of float64 a column, time first.
 */
export function recordingToBytes({ time, channels }: Recording): Uint8Array {
  const header = new TextEncoder().encode(
    JSON.stringify({ samples: time.length, channels: channels.map(({ name, unit }) => ({ name, unit })) }),
  );
  const headerLength = Math.ceil((header.length + 4) / 8) * 8 - 4;
  const columns = [time, ...channels.map(({ values }) => values)];
  const bytes = new Uint8Array(4 + headerLength + columns.length * time.length * 8);
  new DataView(bytes.buffer).setUint32(0, headerLength, true);
  bytes.fill(0x20, 4, 4 + headerLength);
  bytes.set(header, 4);
  columns.forEach((column, index) => {
    bytes.set(
      new Uint8Array(column.buffer, column.byteOffset, column.byteLength),
      4 + headerLength + index * time.byteLength,
    );
  });
  return bytes;
}

/**
 * The recording in the bytes that `recordingToBytes` made. Its columns share their memory.
 * @param from where it begins in the bytes; a multiple of eight
 * @throws RangeError when the bytes are cut short, SyntaxError or TypeError when they are something else
 */
export function recordingFromBytes(bytes: ArrayBuffer, from = 0): Recording {
  const headerLength = new DataView(bytes).getUint32(from, true);
  const header = JSON.parse(new TextDecoder().decode(new Uint8Array(bytes, from + 4, headerLength))) as {
    samples: number;
    channels: { name: string; unit: string }[];
  };
  const column = (index: number) =>
    new Float64Array(bytes, from + 4 + headerLength + index * header.samples * 8, header.samples);
  return {
    time: column(0),
    channels: header.channels.map(({ name, unit }, index) => ({ name, unit, values: column(index + 1) })),
  };
}

/** Whose samples: a run's own, or those of a logger beside it (`source` 1, 2 …). The run is named by its key. */
export interface SampleSource {
  run: string;
  source: number;
}

/** A run's key for its own samples, with `-1` after it for those of the first logger beside it. */
export function sourceKey({ run, source }: SampleSource): string {
  return source === 0 ? run : `${run}-${source}`;
}

const keyLength = 36;

/** What `sourceKey` wrote. */
export function sourceOfKey(key: string): SampleSource {
  return { run: key.slice(0, keyLength), source: Number(key.slice(keyLength + 1)) };
}

const blockHeaderBytes = 24;

/** A run's key as 16 bytes, and back. */
const keyBytes = (key: string) =>
  Uint8Array.from(key.replaceAll('-', '').match(/../g) ?? [], (pair) => parseInt(pair, 16));
const keyOfBytes = (bytes: Uint8Array) =>
  Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0'))
    .join('')
    .replace(/^(.{8})(.{4})(.{4})(.{4})/, '$1-$2-$3-$4-');

/**
 * Several recordings one after the other, by `sourceKey`: of each its run's key as 16 bytes, its source and
 * its length as little-endian uint32, then its bytes.
 */
export function recordingsToBytes(recordings: ReadonlyMap<string, Recording>): Uint8Array {
  const blocks = Array.from(recordings, ([key, recording]) => [key, recordingToBytes(recording)] as const);
  const bytes = new Uint8Array(blocks.reduce((sum, [, block]) => sum + blockHeaderBytes + block.length, 0));
  const view = new DataView(bytes.buffer);
  let at = 0;
  for (const [key, block] of blocks) {
    const { run, source } = sourceOfKey(key);
    bytes.set(keyBytes(run), at);
    view.setUint32(at + 16, source, true);
    view.setUint32(at + 20, block.length, true);
    bytes.set(block, at + blockHeaderBytes);
    at += blockHeaderBytes + block.length;
  }
  return bytes;
}

/**
 * The recordings in the bytes that `recordingsToBytes` made, by `sourceKey`.
 * @throws RangeError when the bytes are cut short
 */
export function recordingsFromBytes(bytes: ArrayBuffer): Map<string, Recording> {
  const view = new DataView(bytes);
  const recordings = new Map<string, Recording>();
  for (let at = 0; at < bytes.byteLength; at += blockHeaderBytes + view.getUint32(at + 20, true)) {
    const run = keyOfBytes(new Uint8Array(bytes, at, 16));
    const key = sourceKey({ run, source: view.getUint32(at + 16, true) });
    recordings.set(key, recordingFromBytes(bytes, at + blockHeaderBytes));
  }
  return recordings;
}
