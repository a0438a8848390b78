import { mkdir, open, readdir, readFile, rename, rm, statfs, type FileHandle } from 'node:fs/promises';
import { join } from 'node:path';

/** One open file of the spool. What was written is safe from a power cut only once `sync` has settled. */
export interface SpoolFile {
  write(bytes: Buffer, position: number): Promise<void>;
  sync(): Promise<void>;
  read(length: number, position: number): Promise<Buffer>;
  close(): Promise<void>;
}

/** The folder that the spool is kept in, so that tests can put one there that fails or forgets. */
export interface SpoolFiles {
  list(): Promise<string[]>;
  /** Opens a file for reading and writing; made when it is missing. */
  open(name: string): Promise<SpoolFile>;
  readWhole(name: string): Promise<Buffer>;
  rename(from: string, to: string): Promise<void>;
  remove(name: string): Promise<void>;
  /** Makes names that were given or taken safe from a power cut. */
  syncNames(): Promise<void>;
  /** Bytes that are free where the folder is. */
  freeBytes(): Promise<number>;
}

class DiskFile implements SpoolFile {
  constructor(private readonly handle: FileHandle) {}

  async write(bytes: Buffer, position: number): Promise<void> {
    for (let done = 0; done < bytes.length;) {
      const { bytesWritten } = await this.handle.write(bytes, done, bytes.length - done, position + done);
      done += bytesWritten;
    }
  }

  sync(): Promise<void> {
    return this.handle.datasync();
  }

  async read(length: number, position: number): Promise<Buffer> {
    const bytes = Buffer.allocUnsafe(length);
    const { bytesRead } = await this.handle.read(bytes, 0, length, position);
    return bytes.subarray(0, bytesRead);
  }

  close(): Promise<void> {
    return this.handle.close();
  }
}

/** A folder on a disk, for the owner's eyes only. */
export async function diskFiles(folder: string): Promise<SpoolFiles> {
  await mkdir(folder, { recursive: true, mode: 0o700 });
  const at = (name: string) => join(folder, name);
  return {
    list: () => readdir(folder),
    async open(name) {
      const handle = await open(at(name), 'r+', 0o600).catch((error: NodeJS.ErrnoException) => {
        if (error.code !== 'ENOENT') throw error;
        return open(at(name), 'w+', 0o600);
      });
      return new DiskFile(handle);
    },
    readWhole: (name) => readFile(at(name)),
    rename: (from, to) => rename(at(from), at(to)),
    remove: (name) => rm(at(name), { force: true }),
    async syncNames() {
      const handle = await open(folder, 'r');
      try {
        await handle.sync();
      } finally {
        await handle.close();
      }
    },
    async freeBytes() {
      const { bavail, bsize } = await statfs(folder);
      return bavail * bsize;
    },
  };
}

/** A file is read around what a disk does not give back in pieces of so much, bytes. */
const pieceBytes = 4096;

/** A file piece by piece: zeros stand where the disk gives nothing back. @param most bytes that it can have */
export async function readAround(file: SpoolFile, most: number): Promise<Buffer> {
  const pieces: Buffer[] = [];
  try {
    for (let position = 0; position < most; position += pieceBytes) {
      const piece = await file.read(pieceBytes, position).catch(() => Buffer.alloc(pieceBytes));
      pieces.push(piece);
      if (piece.length < pieceBytes) break;
    }
    return Buffer.concat(pieces);
  } finally {
    await file.close();
  }
}
