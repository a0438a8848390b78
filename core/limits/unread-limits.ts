import { knownChannels, type KnownChannel } from '../recording/channels.ts';
import { limitChannel, type LimitQuantity } from './limit.ts';
import type { WatchedLimit } from './watched.ts';

/** A limited reading that has not come for so long is not read, ms: whoever reads channels holds none back for longer. */
export const unreadAfterMs = 500;
/** One that is missing in a row or two is waited for, ms. */
const heldOverMs = 150;

/** A time in a run in which a limited reading did not come: what was not read was not watched. */
export interface UnreadGap {
  quantity: LimitQuantity;
  /** What was not read. */
  label: string;
  /** The longest so far. */
  seconds: number;
  /** It goes on. */
  now: boolean;
}

/** What is read of a limit: its channel, or torque and power that are made of several. */
function readLabel({ quantity, label }: WatchedLimit): string {
  const channel = limitChannel(quantity);
  return channel in knownChannels ? knownChannels[channel as KnownChannel].label : label;
}

/** Tells which limits are not read any more, though they were, or though something beside the dyno reads them. */
export class UnreadLimits {
  private readonly read = new Map<LimitQuantity, { reading: number | undefined; atMs: number }>();
  /** By what is read: several limits may be of one reading. */
  private readonly found = new Map<string, UnreadGap>();

  /**
   * @param expected whether something is there that reads it
   * @param heard called once for each that is not read any more, with what is not read
   */
  constructor(
    private readonly expected: (quantity: LimitQuantity) => boolean,
    private readonly heard: (label: string) => void,
  ) {}

  get gaps(): UnreadGap[] {
    return [...this.found.values()];
  }

  /** The limits of a moment, with those marked that nobody watches. @param nowMs of a clock that nobody sets */
  in(limits: readonly WatchedLimit[], nowMs: number): WatchedLimit[] {
    return limits.map((limit) => {
      const { quantity, reading } = limit;
      const before = this.read.get(quantity);
      const label = readLabel(limit);
      const gap = this.found.get(label);
      if (reading !== undefined) {
        this.read.set(quantity, { reading, atMs: nowMs });
        if (gap?.now) this.found.set(label, { ...gap, now: false });
        return limit;
      }
      if (!before) {
        // Its channel is there, and has not spoken yet.
        if (this.expected(quantity)) this.read.set(quantity, { reading: undefined, atMs: nowMs });
        return limit;
      }
      const silentMs = nowMs - before.atMs;
      // Whoever tells that a logger is silent has waited already.
      if (silentMs < heldOverMs) return { ...limit, reading: before.reading };
      const seconds = (unreadAfterMs + silentMs) / 1000;
      if (!gap) this.heard(label);
      this.found.set(label, {
        quantity,
        label,
        seconds: Math.max(seconds, gap?.seconds ?? 0),
        now: true,
      });
      return { ...limit, reading: before.reading, unread: true };
    });
  }
}
