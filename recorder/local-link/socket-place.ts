import { createHash } from 'node:crypto';
import { createServer, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

/** Longest address of a local socket that every system takes, bytes. */
const longestPlace = 100;

const nameOf = (folder: string) => createHash('sha256').update(resolve(folder)).digest('hex').slice(0, 16);

/** Where the recorder of a folder listens for servers: in the folder, or where its name fits. */
export const socketPlace = (folder: string): string => placeOf(folder, 'recorder');

/** Where it listens for whoever takes lines of instruments. */
export const linesPlace = (folder: string): string => placeOf(folder, 'lines');

function placeOf(folder: string, whose: string): string {
  const inside = join(resolve(folder), `${whose}.sock`);
  return Buffer.byteLength(inside) <= longestPlace ? inside : join(tmpdir(), `suvok-${nameOf(folder)}-${whose}.sock`);
}

/**
 * Makes sure that one process alone writes a folder. The system lets go of it
 * with the process, however that ends.
 * @returns gives the folder up
 * @throws Error with code EADDRINUSE while another one has it
 */
export async function claimRecorder(folder: string): Promise<() => Promise<void>> {
  // A name of Linux's own, outside of every folder: no file is left behind.
  const claim: Server = createServer((socket) => socket.destroy());
  await new Promise<void>((settle, reject) => {
    claim.once('error', reject);
    claim.listen(`\0suvok-recorder-${nameOf(folder)}`, settle);
  });
  claim.unref();
  return () => new Promise<void>((settle) => claim.close(() => settle()));
}
