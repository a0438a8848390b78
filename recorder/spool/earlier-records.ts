import { recordsOf, type Place, type PlacedRecord } from './segment.ts';

export interface FoundRecord {
  record: PlacedRecord;
  place: Place;
}

/** A record that is missing is looked for in so many segments more: its second copy is in the next commit. */
const searchedSegments = 2;
/** So many missing records are looked for at most. */
const mostMissing = 1_000_000;

/**
 * What an earlier life left, segment by segment: each record once and in the order of their numbers. Numbers rise by
 * one, so one that is passed over is a record that the disk did not give back; what follows it waits until its second
 * copy has been found, or is not to be found.
 */
export class EarlierRecords {
  latest = 0;
  /** Records that were looked for and not found. */
  lost = 0;
  private missing = new Set<number>();
  private held: { order: number; found: FoundRecord }[] = [];
  private heldFor = 0;

  /** @returns how many sound records the segment has, and those that are next, in their order */
  take(segment: number, bytes: Buffer): { sound: number; ready: FoundRecord[] } {
    const records = recordsOf(segment, bytes, this.latest);
    for (const record of records) {
      const { number, position, length } = record;
      // Written again after a failed sync, or for safety's sake: the first copy stands.
      if (number !== 0 && number <= this.latest && !this.missing.delete(number)) continue;
      this.pass(number);
      this.held.push({
        order: number === 0 ? this.latest : number,
        found: { record, place: { segment, position, length } },
      });
    }
    this.heldFor = this.missing.size > 0 ? this.heldFor + 1 : 0;
    const waits = this.missing.size > 0 && this.heldFor <= searchedSegments;
    return { sound: records.length, ready: waits ? [] : this.end() };
  }

  /** What still waits: nothing more comes. */
  end(): FoundRecord[] {
    this.lost += this.missing.size;
    this.missing.clear();
    this.heldFor = 0;
    const ready = this.held;
    this.held = [];
    // A checkpoint's copies stay where they were found: sorting is stable.
    return ready.sort((one, other) => one.order - other.order).map(({ found }) => found);
  }

  private pass(number: number): void {
    if (number <= this.latest) return;
    // What lies before the first that is kept was given up.
    const from = this.latest === 0 ? number : Math.max(this.latest + 1, number - mostMissing);
    for (let passed = from; passed < number; passed++) this.missing.add(passed);
    this.latest = number;
  }
}
