/** Something on a strip: shares of its width, and a name that stands over its beginning. */
interface OnStrip {
  name: string;
  from: number;
  to: number;
}

/** The row of one, and where it lies on the strip, px: its whole, its name and its bar. */
interface Placed {
  row: number;
  startPx: number;
  widthPx: number;
  namePx: number;
  barPx: number;
  barWidthPx: number;
}

/** A letter of the strip's names is about so wide, and its mark and the room after it, px. */
const letterPx = 7;
const besidesPx = 28;
/** A bar is never narrower, so that it can be pressed. */
const leastBarPx = 6;

/**
 * Puts each into the first row in which neither its bar nor its name runs into another's.
 * @param width of the strip, px
 */
export function inRows<T extends OnStrip>(all: readonly T[], width: number): (T & Placed)[] {
  const endsPx: number[] = [];
  return [...all]
    .sort((a, b) => a.from - b.from)
    .map((one) => {
      const wordsPx = one.name.length * letterPx + besidesPx;
      const barPx = one.from * width;
      const barWidthPx = Math.max(leastBarPx, (one.to - one.from) * width);
      // A name that would run out at the right moves to the left with its end.
      const namePx = Math.max(0, Math.min(barPx, width - wordsPx));
      const startPx = Math.min(namePx, barPx);
      const endPx = Math.max(namePx + wordsPx, barPx + barWidthPx);
      const free = endsPx.findIndex((end) => end <= startPx);
      const row = free < 0 ? endsPx.length : free;
      endsPx[row] = endPx;
      return {
        ...one,
        row,
        startPx,
        widthPx: endPx - startPx,
        namePx: namePx - startPx,
        barPx: barPx - startPx,
        barWidthPx,
      };
    });
}
