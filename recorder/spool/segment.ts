import { crc32 } from 'node:zlib';
import { kinds } from './records.ts';

/**
 * The form of a spool segment: records one after the other. A record's
 * checksum covers the number of its segment too, so that what a reused file
 * still holds of its earlier life never passes for a record.
 *
 * 4 bytes length of the content · 4 bytes checksum · 8 bytes record number · 1 byte kind · content
 */
const recordHeadBytes = 17;
/** No record is longer; a length beyond it is rubbish. */
export const longestRecord = 8 * 2 ** 20;

export interface SpoolRecord {
  /** Rises by one from record to record, over all segments; 0 for a checkpoint's copies. */
  number: number;
  kind: number;
  content: Buffer;
}

/** Where a record lies: a segment, a place in it, and how long it is there. */
export interface Place {
  segment: number;
  position: number;
  length: number;
}

/** Where a record lies in its segment, and how long it is with its head. */
export interface PlacedRecord extends SpoolRecord {
  position: number;
  length: number;
}

function checksum(segment: number, head: Buffer, content: Buffer): number {
  const own = Buffer.alloc(8);
  own.writeBigUInt64LE(BigInt(segment));
  return crc32(content, crc32(head.subarray(8), crc32(own)));
}

/** A record as it stands in a segment. */
export function recordBytes(segment: number, { number, kind, content }: SpoolRecord): Buffer {
  const head = Buffer.alloc(recordHeadBytes);
  head.writeUInt32LE(content.length, 0);
  head.writeBigUInt64LE(BigInt(number), 8);
  head.writeUInt8(kind, 16);
  head.writeUInt32LE(checksum(segment, head, content), 4);
  return Buffer.concat([head, content]);
}

/** Bytes that a record takes in a segment. */
export const bytesTaken = (content: Buffer): number => recordHeadBytes + content.length;

/** The record at a position; undefined where none is whole. */
export function recordAt(segment: number, bytes: Buffer, position: number): PlacedRecord | undefined {
  if (position + recordHeadBytes > bytes.length) return undefined;
  const head = bytes.subarray(position, position + recordHeadBytes);
  const length = head.readUInt32LE(0);
  const end = position + recordHeadBytes + length;
  if (length > longestRecord || end > bytes.length) return undefined;
  const content = bytes.subarray(position + recordHeadBytes, end);
  if (checksum(segment, head, content) !== head.readUInt32LE(4)) return undefined;
  return {
    number: Number(head.readBigUInt64LE(8)),
    kind: head.readUInt8(16),
    content,
    position,
    length: recordHeadBytes + length,
  };
}

const kindNumbers: ReadonlySet<number> = new Set(Object.values(kinds));
/** A record that is searched for has a number no further from the latest than this. */
const nearNumbers = 1_000_000;

/**
 * The sound records of a segment. Where one is damaged the next sound one is searched for, byte by byte; where none
 * follows its tail was torn.
 * @param latest number of the record before, 0 where none is known
 */
export function recordsOf(segment: number, bytes: Buffer, latest = 0): PlacedRecord[] {
  const records: PlacedRecord[] = [];
  let position = 0;
  let near = latest;
  for (;;) {
    const record = recordAt(segment, bytes, position) ?? nextSound(segment, bytes, position + 1, near);
    if (!record) return records;
    records.push(record);
    position = record.position + record.length;
    near = Math.max(near, record.number);
  }
}

/** The first sound record from a position on. */
function nextSound(segment: number, bytes: Buffer, from: number, near: number): PlacedRecord | undefined {
  for (let position = from; position + recordHeadBytes <= bytes.length; position++) {
    // Cheap to tell, and almost every place is none.
    if (!kindNumbers.has(bytes[position + 16]!)) continue;
    const number = bytes.readUInt32LE(position + 8) + 2 ** 32 * bytes.readUInt32LE(position + 12);
    if (number > Number.MAX_SAFE_INTEGER) continue;
    if (near > 0 && number !== 0 && Math.abs(number - near) > nearNumbers) continue;
    const record = recordAt(segment, bytes, position);
    if (record) return record;
  }
  return undefined;
}
