import { buffer } from 'node:stream/consumers';
import yauzl from 'yauzl';
import yazl from 'yazl';

/** The files of a .zip, by their paths, in its order. */
export async function filesIn(bytes: Buffer): Promise<Map<string, Buffer>> {
  const zip = await yauzl.fromBufferPromise(bytes, { lazyEntries: true });
  const files = new Map<string, Buffer>();
  for await (const entry of zip.eachEntry())
    files.set(entry.fileName, await buffer(await zip.openReadStreamPromise(entry)));
  return files;
}

/** A .zip with other files in it. */
export async function changedZip(bytes: Buffer, change: (files: Map<string, Buffer>) => void): Promise<Buffer> {
  const files = await filesIn(bytes);
  change(files);
  const zip = new yazl.ZipFile();
  for (const [path, content] of files) zip.addBuffer(content, path);
  zip.end();
  return buffer(zip.outputStream);
}
