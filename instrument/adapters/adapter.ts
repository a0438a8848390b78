import type { Frame, Hello } from '../../contract/instruments/bench-link.ts';

/** Where a line stands among those that came together. */
export interface Among {
  of: number;
  at: number;
}

/**
 * Brings an instrument in that does not speak the bench link: what it is, and
 * how its own words become readings. One small file each; semicolon-lines.ts
 * is an example, docs/bench-link.md says how one is written.
 */
export interface Adapter {
  /** As it is named in SUVOK_ADAPTERS. */
  name: string;
  /** What the instrument is; its device name is made from the adapter's and the place. */
  hello: Omit<Hello, 'type' | 'protocol' | 'instance' | 'device'>;
  /**
   * Makes a reader for one connection, which keeps what it must remember from line to line.
   * @returns turns a line into readings in the order of the hello's channels; undefined where it holds none
   */
  reader(): (line: string, among: Among) => Pick<Frame, 'time' | 'values'> | undefined;
  /** Sent to the instrument once it is connected, where it must be asked; a line end is added. */
  greeting?: string;
}
