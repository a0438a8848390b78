/** A line of a lane. Colours are CSS colours, names of the theme such as `var(--ink)` included: who draws knows the theme. */
export interface LaneLine {
  id: string;
  /** Places on the lanes' axis, rising. */
  x: ArrayLike<number>;
  values: ArrayLike<number>;
  colour: string;
  width: number;
  /** Less than 1 for a line behind the others. */
  opacity?: number;
  dash?: number[];
  /** Drawn as points instead of a line. */
  points?: boolean;
}

/** A mark on a line, and why it is there. */
export interface LaneMark {
  x: number;
  value: number;
  why: string;
}

/** What is drawn beneath and above a lane's lines. */
export interface LaneDecoration {
  bands?: readonly { from: number; to: number }[] | undefined;
  /** A grey envelope around the baseline. */
  envelope?: { x: ArrayLike<number>; low: ArrayLike<number>; high: ArrayLike<number>; colour: string } | undefined;
  /** The gain's area: solid above zero, hatched below. */
  gainArea?: { x: ArrayLike<number>; values: ArrayLike<number>; gain: string; loss: string } | undefined;
  zeroColour?: string | undefined;
  /** Dashed lines across the lane: limits. */
  levels?: readonly { value: number; colour: string }[] | undefined;
  /** An upright dashed line with a word. */
  upright?: { x: number; word: string; colour: string } | undefined;
  peak?: { x: number; value: number; colour: string } | undefined;
  /** Where checks found something on a line. */
  marks?: readonly { x: number; value: number; severity: 'note' | 'mind' | 'stop' }[] | undefined;
  markColours?: { mind: string; stop: string; ground: string } | undefined;
  /** The newest point of a line being drawn. */
  head?: { x: number; value: number; colour: string } | undefined;
}

/** What can be read of a line at one place. */
export interface Reading {
  id: string;
  label: string;
  text: string;
  /** Where the line stands, in the lane's unit. */
  value: number;
  colour: string;
}
