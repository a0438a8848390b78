/**
 * The form of what server and recorder say on their local socket: blocks of
 * 4 bytes length, 1 byte kind, content. Words are JSON; rows are their width
 * and their bay, 4 bytes each, and the values.
 */
const kinds = { words: 0, rows: 1 } as const;
const headBytes = 5;
const rowsHeadBytes = 8;
/** No block is longer; a length beyond it is rubbish. */
const longestBlock = 64 * 2 ** 20;

function block(kind: number, content: Buffer): Buffer {
  const head = Buffer.alloc(headBytes);
  head.writeUInt32LE(content.length, 0);
  head.writeUInt8(kind, 4);
  return Buffer.concat([head, content]);
}

export const wordsBlock = (message: object): Buffer => block(kinds.words, Buffer.from(JSON.stringify(message)));

/** Rows of one bay and width, one after the other. */
export function rowsBlock(bay: number, rows: readonly Float64Array[]): Buffer {
  const width = rows[0]!.length;
  const content = Buffer.alloc(rowsHeadBytes + 8 * width * rows.length);
  content.writeUInt32LE(width, 0);
  content.writeUInt32LE(bay, 4);
  let at = rowsHeadBytes;
  for (const row of rows) {
    Buffer.from(row.buffer, row.byteOffset, row.byteLength).copy(content, at);
    at += row.byteLength;
  }
  return block(kinds.rows, content);
}

/** Puts blocks together from what a socket gives. @throws Error on what is no block */
export class BlockReader {
  private rest: Buffer = Buffer.alloc(0);

  constructor(
    private readonly onWords: (message: unknown) => void,
    private readonly onRows: (bay: number, rows: Float64Array[]) => void,
  ) {}

  push(bytes: Buffer): void {
    this.rest = this.rest.length > 0 ? Buffer.concat([this.rest, bytes]) : bytes;
    while (this.rest.length >= headBytes) {
      const length = this.rest.readUInt32LE(0);
      if (length > longestBlock) throw new Error('what came on the local socket is no block');
      if (this.rest.length < headBytes + length) return;
      const kind = this.rest.readUInt8(4);
      const content = this.rest.subarray(headBytes, headBytes + length);
      this.rest = this.rest.subarray(headBytes + length);
      if (kind === kinds.words) this.onWords(JSON.parse(content.toString()));
      else this.onRows(content.readUInt32LE(4), rowsIn(content));
    }
  }
}

function rowsIn(content: Buffer): Float64Array[] {
  const width = content.readUInt32LE(0);
  const values = new Float64Array(Uint8Array.from(content.subarray(rowsHeadBytes)).buffer);
  return Array.from({ length: values.length / width }, (_, row) => values.subarray(row * width, (row + 1) * width));
}
