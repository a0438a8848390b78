import { z } from 'zod';
import { helloMessage } from '../../contract/instruments/bench-link.ts';
import { newRun } from '../../contract/bays/recorded-run.ts';
import { deviceSettings } from '../../contract/instruments/recording.ts';

/** What the spool's records are. A kind's number is never given to another. */
export const kinds = { session: 1, rows: 2, break: 3, begin: 4, end: 5, stored: 6, closed: 7, ending: 8 } as const;

const count = z.int().nonnegative();

/** An instrument as it was when its rows began: rows of one session have the same channels and one rising clock or more. */
export const sessionRecord = z.object({
  session: count,
  hello: helloMessage,
  settings: deviceSettings,
  /** Rows that were safe when this was written, and the instrument's number of the last of their frames. */
  rows: count,
  lastSequence: count.nullable(),
  /** Rows before this one belong to runs that have ended, or to none. */
  doneTo: count,
});
export type SessionRecord = z.infer<typeof sessionRecord>;

/** Frames that are missing, or a clock that has gone back, on the instrument's clock. */
const discontinuity = z.union([
  z.object({ missing: count, atS: z.number() }),
  z.object({ backFromS: z.number(), atS: z.number() }),
]);
export type Discontinuity = z.infer<typeof discontinuity>;

/** A discontinuity before a row. */
export const breakRecord = z.object({
  session: count,
  /** Rows of the session before it. */
  row: count,
  found: discontinuity,
});

/** Rows of a session that belong to a run: `from` is the first. */
export const sourceOfRun = z.object({ source: count, session: count, from: count });
export type SourceOfRun = z.infer<typeof sourceOfRun>;

export const beginRecord = z.object({ run: newRun, sources: z.array(sourceOfRun).min(1) });
export type BeginRecord = z.infer<typeof beginRecord>;

export const endRecord = z.object({
  key: z.uuid(),
  as: z.enum(['sealed', 'interrupted']),
  remarks: z.array(z.string()),
  /** The row after the last of each source, in the order of the beginning's. */
  to: z.array(count).min(1),
});
export type EndRecord = z.infer<typeof endRecord>;

/** The dyno's part of a run has ended; of loggers a little more may be waited for. `to` is the row after the dyno's last. */
export const endingRecord = endRecord.extend({ to: count });
export type EndingRecord = z.infer<typeof endingRecord>;

/** The database has a run whole. */
export const storedRecord = z.object({ key: z.uuid() });
/** Nothing more comes of a session. */
export const closedRecord = z.object({ session: count });

export const jsonContent = (value: object): Buffer => Buffer.from(JSON.stringify(value));
export const readJson = <T>(schema: z.ZodType<T>, content: Buffer): T => schema.parse(JSON.parse(content.toString()));

/** Consecutive rows of a session, each time first, then its channels. */
export interface Rows {
  session: number;
  /** Rows of the session before the first of these. */
  first: number;
  /** The instrument's number of the last frame among them. */
  lastSequence: number;
  rows: Float64Array[];
}

const rowsHeadBytes = 24;

/** session, width: 4 bytes each · first, last sequence: 8 bytes each · rows of float64 */
export function rowsContent({ session, first, lastSequence, rows }: Rows): Buffer {
  const width = rows[0]!.length;
  const bytes = Buffer.alloc(rowsHeadBytes + 8 * width * rows.length);
  bytes.writeUInt32LE(session, 0);
  bytes.writeUInt32LE(width, 4);
  bytes.writeDoubleLE(first, 8);
  bytes.writeDoubleLE(lastSequence, 16);
  let at = rowsHeadBytes;
  for (const row of rows) {
    Buffer.from(row.buffer, row.byteOffset, row.byteLength).copy(bytes, at);
    at += 8 * width;
  }
  return bytes;
}

/** What rows are, without reading them. */
export function rowsHead(content: Buffer): Omit<Rows, 'rows'> & { count: number } {
  const width = content.readUInt32LE(4);
  return {
    session: content.readUInt32LE(0),
    first: content.readDoubleLE(8),
    lastSequence: content.readDoubleLE(16),
    count: (content.length - rowsHeadBytes) / 8 / width,
  };
}

export function readRows(content: Buffer): Rows {
  const width = content.readUInt32LE(4);
  // On memory of its own: a view of float64 has to begin at a multiple of eight.
  const values = new Float64Array(Uint8Array.from(content.subarray(rowsHeadBytes)).buffer);
  const { count, ...head } = rowsHead(content);
  return { ...head, rows: Array.from({ length: count }, (_, row) => values.subarray(row * width, (row + 1) * width)) };
}
