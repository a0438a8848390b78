import type { SpoolFile, SpoolFiles } from '../spool/spool-files.ts';

/** What may be asked of the files, in the order in which it is counted. */
export type FileAct = 'write' | 'sync' | 'syncNames' | 'open' | 'rename' | 'remove';

interface Written {
  bytes: Buffer;
  position: number;
}

/** A file's bytes; they grow, and are written in place. */
class Bytes {
  all: Buffer = Buffer.alloc(0);

  put({ bytes, position }: Written): void {
    if (position + bytes.length > this.all.length) {
      const grown = Buffer.alloc(position + bytes.length);
      this.all.copy(grown);
      this.all = grown;
    }
    bytes.copy(this.all, position);
  }
}

interface Stored {
  /** As the process sees it, and as a power cut would leave it. */
  seen: Bytes;
  kept: Bytes;
  unsynced: Written[];
}

/**
 * A folder in memory that fails where it is told to, and that forgets on a
 * power cut what was not synced: contents since their last sync, of which some
 * part may have come through, and names since the last sync of names.
 */
export class MemoryFiles implements SpoolFiles {
  private files = new Map<string, Stored>();
  private keptNames = new Map<string, Stored>();
  /** Called before every act; what it throws fails the act. */
  before: (act: FileAct, count: number) => void = () => undefined;
  acts = 0;
  /** What all files together may hold, bytes. */
  room = Infinity;
  free = 10 * 2 ** 30;
  /** A place that the disk does not give back. */
  unreadable: { name: string; from: number; to: number } | undefined;

  get names(): string[] {
    return [...this.files.keys()];
  }

  sizeOf(name: string): number {
    return this.files.get(name)?.seen.all.length ?? 0;
  }

  /** The same files as they are on the disk now. */
  copy(): MemoryFiles {
    const copy = new MemoryFiles();
    for (const [name, { seen }] of this.files) {
      const bytes = () => Object.assign(new Bytes(), { all: Buffer.from(seen.all) });
      copy.files.set(name, { seen: bytes(), kept: bytes(), unsynced: [] });
    }
    copy.keptNames = new Map(copy.files);
    return copy;
  }

  /** The disk holds something else than was written there. */
  spoil(name: string, position: number, make: (bytes: Buffer) => void, length: number): void {
    const stored = this.files.get(name);
    for (const bytes of stored ? [stored.seen, stored.kept] : []) make(bytes.all.subarray(position, position + length));
  }

  private readable(name: string, from: number, to: number): void {
    const place = this.unreadable;
    if (place?.name === name && from < place.to && to > place.from)
      throw Object.assign(new Error('i/o error, read'), { code: 'EIO' });
  }

  /** Forgets what was not synced. @param share of what was written and not synced that came through, from its beginning, 0 to 1 */
  cutPower(share = 0): void {
    this.files = new Map(this.keptNames);
    for (const stored of this.files.values()) {
      let left = Math.floor(share * stored.unsynced.reduce((sum, { bytes }) => sum + bytes.length, 0));
      for (const { bytes, position } of stored.unsynced) {
        stored.kept.put({ bytes: bytes.subarray(0, left), position });
        left = Math.max(0, left - bytes.length);
      }
      stored.unsynced = [];
      stored.seen.all = Buffer.from(stored.kept.all);
    }
  }

  private act(act: FileAct): void {
    this.before(act, ++this.acts);
  }

  list(): Promise<string[]> {
    return Promise.resolve([...this.files.keys()]);
  }

  async open(name: string): Promise<SpoolFile> {
    await Promise.resolve();
    this.act('open');
    const stored = this.files.get(name) ?? { seen: new Bytes(), kept: new Bytes(), unsynced: [] };
    this.files.set(name, stored);
    return {
      write: async (bytes, position) => {
        await Promise.resolve();
        this.act('write');
        const others =
          [...this.files.values()].reduce((sum, { seen }) => sum + seen.all.length, 0) - stored.seen.all.length;
        if (others + Math.max(stored.seen.all.length, position + bytes.length) > this.room)
          throw Object.assign(new Error('no space left on device'), { code: 'ENOSPC' });
        const written = { bytes: Buffer.from(bytes), position };
        stored.seen.put(written);
        stored.unsynced.push(written);
      },
      sync: async () => {
        const count = stored.unsynced.length;
        await Promise.resolve();
        this.act('sync');
        for (const written of stored.unsynced.splice(0, count)) stored.kept.put(written);
      },
      read: async (length, position) => {
        await Promise.resolve();
        this.readable(name, position, position + length);
        return Buffer.from(stored.seen.all.subarray(position, position + length));
      },
      close: () => Promise.resolve(),
    };
  }

  async readWhole(name: string): Promise<Buffer> {
    await Promise.resolve();
    this.readable(name, 0, Infinity);
    return Buffer.from(this.files.get(name)?.seen.all ?? Buffer.alloc(0));
  }

  async rename(from: string, to: string): Promise<void> {
    await Promise.resolve();
    this.act('rename');
    const stored = this.files.get(from);
    if (!stored) throw Object.assign(new Error('no such file'), { code: 'ENOENT' });
    this.files.delete(from);
    this.files.set(to, stored);
  }

  async remove(name: string): Promise<void> {
    await Promise.resolve();
    this.act('remove');
    this.files.delete(name);
  }

  async syncNames(): Promise<void> {
    const names = new Map(this.files);
    await Promise.resolve();
    this.act('syncNames');
    this.keptNames = names;
  }

  freeBytes(): Promise<number> {
    return Promise.resolve(this.free);
  }
}

/** The files as one life of a process has them: after its death nothing that it asks is done. */
export class FilesOfALife implements SpoolFiles {
  dead = false;

  constructor(private readonly files: SpoolFiles) {}

  private async alive<T>(ask: () => Promise<T>): Promise<T> {
    if (this.dead) return new Promise(() => undefined);
    const given = await ask();
    return this.dead ? new Promise(() => undefined) : given;
  }

  list = () => this.alive(() => this.files.list());
  readWhole = (name: string) => this.alive(() => this.files.readWhole(name));
  rename = (from: string, to: string) => this.alive(() => this.files.rename(from, to));
  remove = (name: string) => this.alive(() => this.files.remove(name));
  syncNames = () => this.alive(() => this.files.syncNames());
  freeBytes = () => this.alive(() => this.files.freeBytes());

  async open(name: string): Promise<SpoolFile> {
    const file = await this.alive(() => this.files.open(name));
    return {
      write: (bytes, position) => this.alive(() => file.write(bytes, position)),
      sync: () => this.alive(() => file.sync()),
      read: (length, position) => this.alive(() => file.read(length, position)),
      close: () => this.alive(() => file.close()),
    };
  }
}
