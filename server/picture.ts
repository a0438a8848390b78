import sharp from 'sharp';

/** What pages show; nothing else is even looked into. */
const loaders = {
  jpeg: 'VipsForeignLoadJpegBuffer',
  png: 'VipsForeignLoadPngBuffer',
  webp: 'VipsForeignLoadWebpBuffer',
};
sharp.block({ operation: ['VipsForeignLoad'] });
sharp.unblock({ operation: Object.values(loaders) });
// Each picture is looked at once, beside other work.
sharp.cache(false);
sharp.concurrency(1);

/** More than any camera of a shop makes; a file of a few bytes may claim to be larger, pixels. */
const mostPixels = 120e6;
const longestS = 20;

/**
 * What a picture is, by decoding all of it, whatever its name or its first bytes say.
 * @returns its MIME type; undefined where it is none that pages show, is broken or cut short, or is larger than 120 megapixels
 */
export async function pictureKind(content: Buffer): Promise<string | undefined> {
  try {
    const picture = sharp(content, { limitInputPixels: mostPixels, failOn: 'error', sequentialRead: true }).timeout({
      seconds: longestS,
    });
    const { format } = await picture.metadata();
    // Every row is read for the mean of each colour; none of them is kept.
    await picture.stats();
    return Object.hasOwn(loaders, format) ? `image/${format}` : undefined;
  } catch {
    return undefined;
  }
}
