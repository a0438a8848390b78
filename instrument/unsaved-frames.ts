import type { Frame } from '../contract/instruments/bench-link.ts';

/** So many frames are kept at most: two minutes of a thousand a second. */
const mostKept = 120_000;

/** Frames that Suvok has not yet called safe: what an instrument sends again after a broken connection. */
export class UnsavedFrames {
  private frames: Frame[] = [];

  push(frame: Frame): void {
    this.frames.push(frame);
    // Cut in steps, or every frame would move all others.
    if (this.frames.length > mostKept * 1.25) this.frames = this.frames.slice(-mostKept);
  }

  /** Every frame up to a number is safe. */
  safe(sequence: number): void {
    const first = this.frames[0]?.sequence;
    if (first !== undefined && sequence >= first) this.frames = this.frames.slice(sequence - first + 1);
  }

  /** Those from a number on, oldest first. */
  from(sequence: number): readonly Frame[] {
    return this.frames.filter((frame) => frame.sequence >= sequence);
  }
}
