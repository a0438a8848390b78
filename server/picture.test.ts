import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { pictureKind } from './picture.ts';

/** A picture of noise, so that no row is like another. */
const noise = (width: number, height: number) =>
  sharp(Buffer.from(Array.from({ length: width * height * 3 }, (_, at) => (at * 7919 * (at % 97)) % 256)), {
    raw: { width, height, channels: 3 },
  });
const kinds = ['jpeg', 'png', 'webp'] as const;
const madeAs = (kind: (typeof kinds)[number]) => noise(120, 80)[kind]().toBuffer();

describe('what a picture is', () => {
  test.each(kinds)('%s', async (kind) => {
    expect(await pictureKind(await madeAs(kind))).toBe(`image/${kind}`);
  });

  test.each(kinds)('a %s that was cut short anywhere is none', async (kind) => {
    const content = await madeAs(kind);
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 0, max: Math.floor(content.length * 0.9) }), async (length) => {
        expect(await pictureKind(content.subarray(0, length))).toBeUndefined();
      }),
      { numRuns: 40 },
    );
  });

  test('first bytes with anything after them are none; nor are other kinds, or a page', async () => {
    const made = await Promise.all(kinds.map(madeAs));
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...made),
        fc.integer({ min: 3, max: 24 }),
        fc.uint8Array({ maxLength: 4000 }),
        async (like, first, rest) => {
          expect(await pictureKind(Buffer.concat([like.subarray(0, first), rest]))).toBeUndefined();
        },
      ),
      { numRuns: 100 },
    );
    for (const other of [
      await noise(20, 20).gif().toBuffer(),
      await noise(20, 20).tiff().toBuffer(),
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"><rect width="9" height="9"/></svg>'),
      Buffer.from('<html><script>alert(1)</script></html>'),
      Buffer.alloc(0),
    ])
      expect(await pictureKind(other)).toBeUndefined();
  });

  test('a few bytes that claim to be a picture of 40,000 × 40,000 are none, at once and in little memory', async () => {
    const chunk = (kind: string, data: Buffer) => {
      const body = Buffer.concat([Buffer.from(kind), data]);
      const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
      length.writeUInt32BE(data.length);
      sum.writeUInt32BE(crc32(body));
      return Buffer.concat([length, body, sum]);
    };
    const head = Buffer.alloc(13);
    head.writeUInt32BE(40_000, 0);
    head.writeUInt32BE(40_000, 4);
    head[8] = 8;
    const claims = Buffer.concat([
      (await madeAs('png')).subarray(0, 8),
      chunk('IHDR', head),
      chunk('IDAT', deflateSync(Buffer.alloc(50_000_000))),
      chunk('IEND', Buffer.alloc(0)),
    ]);
    expect(claims.length).toBeLessThan(100_000);
    const before = process.memoryUsage().rss;
    expect(await pictureKind(claims)).toBeUndefined();
    expect(process.memoryUsage().rss - before).toBeLessThan(100e6);
  });
});

/** As PNG sums its chunks. */
function crc32(bytes: Buffer): number {
  let sum = 0xffffffff;
  for (const byte of bytes) {
    sum ^= byte;
    for (let bit = 0; bit < 8; bit++) sum = sum & 1 ? (sum >>> 1) ^ 0xedb88320 : sum >>> 1;
  }
  return (sum ^ 0xffffffff) >>> 0;
}
