import type { Log } from '../../contract/values/service-log.ts';
import { EarlierRecords, type FoundRecord } from './earlier-records.ts';
import {
  bytesTaken,
  longestRecord,
  recordAt,
  recordBytes,
  type Place,
  type PlacedRecord,
  type SpoolRecord,
} from './segment.ts';
import { readAround, type SpoolFile, type SpoolFiles } from './spool-files.ts';

/** What is given to the spool is on the disk within about this time, ms; all bays share one sync. */
const commitEveryMs = 50;
/** After a failure writing is tried again this often, ms. */
const retryMs = 300;
/** So many used segments are kept to be written over: their blocks are there already, and a sync is short. */
const mostSpare = 2;

/** A record that is to be written; `twice`: once more in the commit after, so that one damaged place does not lose it. */
type TakenRecord = SpoolRecord & { twice: boolean };

export interface SpoolSettings {
  segmentBytes?: number;
  log: Log;
  /** Appends what has been gathered since the last commit; called as one begins. */
  gather: () => void;
  /** What a new segment begins with, so that the ones before it are needed for their rows alone. */
  checkpoint: () => Pick<SpoolRecord, 'kind' | 'content'>[];
  /** Called when records are on the disk, in their order. */
  onSafe: (records: readonly { record: SpoolRecord; place: Place }[]) => void;
  /** A sentence while nothing can be written; null once it can. */
  onProblem: (problem: string | null) => void;
}

const nameOf = (segment: number) => `${String(segment).padStart(12, '0')}.seg`;
const isSegment = (name: string) => /^\d{12}\.seg$/.test(name);
const isSpare = (name: string) => name.endsWith('.spare');

/**
 * An append-only store of records in segment files. A record counts as kept
 * once `onSafe` has named it: it was written and synced. Whenever a write or a
 * sync fails, its segment is left as it is and all that was not yet safe goes
 * into a new one: after a failed sync nobody knows what a disk holds.
 */
export class Spool {
  private readonly open = new Map<number, SpoolFile>();
  private current: { number: number; file: SpoolFile; position: number } | undefined;
  private waiting: TakenRecord[] = [];
  /** Bytes of content that are not on the disk yet. */
  waitingBytes = 0;
  /** Records of an earlier life that the disk did not give back, though others after them were. */
  lost = 0;
  /** What the next commit writes once more, under the number it has. */
  private again: SpoolRecord[] = [];
  private nextRecord = 1;
  private nextSegment = 1;
  /** Where the batch begins that is being written: nobody knows yet what lies from there on. */
  private batchFrom = Infinity;
  private timer: NodeJS.Timeout | undefined;
  private committing: Promise<void> | undefined;
  private failing = false;
  /** Something was gathered that no commit has fetched. */
  private touched = false;
  private closed = false;
  private spares: string[] = [];

  private constructor(
    private readonly files: SpoolFiles,
    private readonly settings: SpoolSettings,
  ) {}

  /**
   * Opens the spool and hands every whole record over that an earlier life
   * left, in order and once, with its place.
   */
  static async open(
    files: SpoolFiles,
    settings: SpoolSettings,
    onRecord: (record: PlacedRecord, place: Place) => void,
  ): Promise<Spool> {
    const spool = new Spool(files, settings);
    const names = await files.list();
    spool.spares = names.filter(isSpare);
    const earlier = new EarlierRecords();
    const hand = (ready: readonly FoundRecord[]) => {
      for (const { record, place } of ready) onRecord(record, place);
    };
    for (const name of names.filter(isSegment).sort()) {
      const number = Number(name.slice(0, 12));
      spool.nextSegment = Math.max(spool.nextSegment, number + 1);
      const bytes = await spool.wholeOf(name);
      if (!bytes) continue;
      const { sound, ready } = earlier.take(number, bytes);
      // Begun, and cut off before anything was in it.
      if (sound === 0) spool.spares.push(name);
      else spool.open.set(number, await files.open(name));
      hand(ready);
    }
    hand(earlier.end());
    spool.nextRecord = earlier.latest + 1;
    spool.lost = earlier.lost;
    return spool;
  }

  /** A segment as far as the disk gives it back; undefined where it gives nothing, and the segment stays where it is. */
  private async wholeOf(name: string): Promise<Buffer | undefined> {
    try {
      return await this.files.readWhole(name);
    } catch (error) {
      this.settings.log.error(
        { err: error, name },
        'a segment of the spool cannot be read whole; what is sound is taken',
      );
    }
    try {
      return await readAround(await this.files.open(name), this.segmentBytes + longestRecord);
    } catch (error) {
      this.settings.log.error({ err: error, name }, 'a segment of the spool cannot be opened');
      return undefined;
    }
  }

  /** The first segment that is not closed: whatever lies in those before it has been called safe. */
  get segment(): number {
    return Math.min(this.batchFrom, this.current?.number ?? this.nextSegment);
  }

  /** Segments that are kept, the oldest first. */
  get segments(): number[] {
    return [...this.open.keys()].sort((a, b) => a - b);
  }

  /** Takes a record; it is on the disk within a moment. @param twice and once more in the commit after that */
  append(kind: number, content: Buffer, twice = false): void {
    this.waiting.push({ number: this.nextRecord++, kind, content, twice });
    this.waitingBytes += content.length;
    this.plan(commitEveryMs);
  }

  /** Something is there to be gathered. */
  touch(): void {
    this.touched = true;
    this.plan(commitEveryMs);
  }

  /** Settles when all that was taken so far is on the disk, or cannot be brought there. */
  async flush(): Promise<void> {
    clearTimeout(this.timer);
    this.timer = undefined;
    await this.committing;
    await this.commit();
  }

  /** Reads a record back. @throws when it is not whole any more */
  async read(place: Place): Promise<SpoolRecord> {
    const file = this.open.get(place.segment);
    const bytes = await file?.read(place.length, place.position);
    const record = bytes && recordAt(place.segment, bytes, 0);
    if (!record) throw new Error(`the spool's record at ${place.segment}/${place.position} cannot be read`);
    return record;
  }

  /** Gives a closed segment up: nothing in it is needed any more. */
  async release(segment: number): Promise<void> {
    const file = this.open.get(segment);
    if (!file || segment >= this.segment) return;
    this.open.delete(segment);
    await file.close();
    const name = nameOf(segment);
    if (this.spares.length >= mostSpare) return this.files.remove(name);
    const spare = `${name.slice(0, 12)}.spare`;
    await this.files.rename(name, spare);
    this.spares.push(spare);
  }

  /** Bytes free where the spool is, its own spare segments included. */
  async freeBytes(): Promise<number> {
    return (await this.files.freeBytes()) + this.spares.length * this.segmentBytes;
  }

  async close(): Promise<void> {
    await this.flush();
    // The second copies of what has just been written.
    await this.flush();
    this.closed = true;
    clearTimeout(this.timer);
    for (const file of this.open.values()) await file.close();
    this.open.clear();
  }

  private get segmentBytes(): number {
    return this.settings.segmentBytes ?? 8 * 2 ** 20;
  }

  private plan(inMs: number): void {
    if (this.timer || this.committing || this.closed) return;
    this.timer = setTimeout(() => {
      this.timer = undefined;
      void this.commit();
    }, inMs);
  }

  /** Never rejects: what could not be written is tried again. */
  private async commit(): Promise<void> {
    if (this.committing) return this.committing;
    this.committing = this.writeAll();
    await this.committing;
    this.committing = undefined;
    if (this.waiting.length > 0 || this.again.length > 0 || this.touched)
      this.plan(this.failing ? retryMs : commitEveryMs);
  }

  private async writeAll(): Promise<void> {
    this.touched = false;
    if (!this.closed) this.settings.gather();
    // What is taken while this is written goes into the next commit.
    const batch = [...this.waiting];
    const { again } = this;
    if (batch.length === 0 && again.length === 0) return;
    this.batchFrom = this.segment;
    try {
      const safe = (await this.write([...again, ...batch])).slice(again.length);
      this.waiting = this.waiting.slice(batch.length);
      this.again = batch.filter(({ twice }) => twice);
      for (const { content } of batch) this.waitingBytes -= content.length;
      if (this.failing) this.settings.onProblem(null);
      this.failing = false;
      this.settings.onSafe(safe);
    } catch (error) {
      // The segment is trusted as far as it was synced, and written no further.
      this.current = undefined;
      if (!this.failing) this.settings.log.error({ err: error }, 'the spool cannot be written; it is tried again');
      this.failing = true;
      const { message } = error as Error;
      this.settings.onProblem(
        `The recorder's disk takes nothing (${message}). What is read meanwhile is held in memory; it is tried again.`,
      );
    } finally {
      this.batchFrom = Infinity;
    }
  }

  private async write(batch: readonly SpoolRecord[]): Promise<{ record: SpoolRecord; place: Place }[]> {
    const safe: { record: SpoolRecord; place: Place }[] = [];
    for (let at = 0; at < batch.length;) {
      const current = this.roomFor(batch[at]!) ?? (await this.begin());
      const parts: Buffer[] = [];
      const from = current.position;
      do {
        const record = batch[at]!;
        const bytes = recordBytes(current.number, record);
        safe.push({ record, place: { segment: current.number, position: current.position, length: bytes.length } });
        current.position += bytes.length;
        parts.push(bytes);
        at++;
      } while (at < batch.length && this.roomFor(batch[at]!));
      await current.file.write(Buffer.concat(parts), from);
      await current.file.sync();
    }
    return safe;
  }

  /** The segment at hand, if a record fits into it; a new one takes a record of any length. */
  private roomFor({ content }: SpoolRecord): typeof this.current {
    const { current } = this;
    if (!current) return undefined;
    return current.position + bytesTaken(content) <= this.segmentBytes ? current : undefined;
  }

  /** A segment that could not be begun takes no room on a disk that may be full: a spare one is a spare again. Never rejects. */
  private async abandon(name: string, spare: string | undefined): Promise<void> {
    try {
      if (spare) {
        await this.files.rename(name, spare);
        this.spares.push(spare);
      } else await this.files.remove(name);
    } catch {
      // Its name stays: the next life finds nothing in it, and uses it again.
    }
  }

  /** Begins a segment: the checkpoint first, and its name made safe. */
  private async begin(): Promise<NonNullable<typeof this.current>> {
    const number = this.nextSegment++;
    const name = nameOf(number);
    const spare = this.spares.pop();
    if (spare) await this.files.rename(spare, name);
    const file = await this.files.open(name);
    try {
      // Blocks that are there already make every later sync a short one.
      if (!spare) await file.write(Buffer.alloc(this.segmentBytes), 0);
      const bytes = Buffer.concat(
        this.settings.checkpoint().map((part) => recordBytes(number, { number: 0, ...part })),
      );
      await file.write(bytes, 0);
      await file.sync();
      await this.files.syncNames();
      this.current = { number, file, position: bytes.length };
    } catch (error) {
      await file.close();
      await this.abandon(name, spare);
      throw error;
    }
    this.open.set(number, file);
    return this.current;
  }
}
