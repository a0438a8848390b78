import { decimalColumn, decimalsOf } from './decimal-column.ts';
import type { Recording } from '../../recording/recording.ts';

/** How a column stands in the bytes: as decimals with so many digits, in so many bytes; null as float64. */
type ColumnForm = { digits: number; length: number } | null;

interface Header {
  samples: number;
  /** Of time, then of each channel. Absent in what a browser kept before there were forms: all are float64. */
  forms?: ColumnForm[];
  channels: { name: string; unit: string }[];
}

const toEight = (length: number) => Math.ceil(length / 8) * 8;

/**
 * A recording as bytes, as the server sends it to the page: a little-endian
 * uint32 with the length of a JSON header padded to eight bytes, the header, then each
 * column, time first, at a multiple of eight bytes: as decimals where it is one (`decimalColumn`), else as float64.
 */
export function recordingToBytes({ time, channels }: Recording): Uint8Array {
  const columns = [time, ...channels.map(({ values }) => values)].map((values) => {
    const decimals = decimalColumn(values);
    if (!decimals) return { form: null, bytes: new Uint8Array(values.buffer, values.byteOffset, values.byteLength) };
    return { form: { digits: decimals.digits, length: decimals.bytes.length }, bytes: decimals.bytes };
  });
  const told: Header = {
    samples: time.length,
    forms: columns.map(({ form }) => form),
    channels: channels.map(({ name, unit }) => ({ name, unit })),
  };
  const header = new TextEncoder().encode(JSON.stringify(told));
  const headerLength = toEight(header.length + 4) - 4;
  const length = columns.reduce((sum, { bytes }) => sum + toEight(bytes.length), 4 + headerLength);
  const bytes = new Uint8Array(length);
  new DataView(bytes.buffer).setUint32(0, headerLength, true);
  bytes.fill(0x20, 4, 4 + headerLength);
  bytes.set(header, 4);
  let at = 4 + headerLength;
  for (const column of columns) {
    bytes.set(column.bytes, at);
    at += toEight(column.bytes.length);
  }
  return bytes;
}

/**
 * The recording in the bytes that `recordingToBytes` made. Columns of float64 share their memory.
 * @param from where it begins in the bytes; a multiple of eight
 * @throws RangeError when the bytes are cut short, SyntaxError or TypeError when they are something else
 */
export function recordingFromBytes(bytes: ArrayBuffer, from = 0): Recording {
  const headerLength = new DataView(bytes).getUint32(from, true);
  const header = JSON.parse(new TextDecoder().decode(new Uint8Array(bytes, from + 4, headerLength))) as Header;
  let at = from + 4 + headerLength;
  const forms = header.forms ?? Array.from({ length: header.channels.length + 1 }, () => null);
  const columns = forms.map((form) => {
    const length = form?.length ?? header.samples * 8;
    // Taken with the bytes that fill it up to eight, so that bytes cut short within those are refused as well.
    const column = new Uint8Array(bytes, at, toEight(length)).subarray(0, length);
    at += toEight(length);
    return form
      ? decimalsOf(column, form.digits, header.samples)
      : new Float64Array(bytes, column.byteOffset, header.samples);
  });
  return {
    time: columns[0]!,
    channels: header.channels.map((channel, index) => ({ ...channel, values: columns[index + 1]! })),
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
