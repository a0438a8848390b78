import type { Reading } from '../../core/scene/lane.ts';
import { useElementSize } from '@mantine/hooks';
import classes from './gutter.module.css';
import { heightOf } from './lane.tsx';
import type { ValueRange } from '../../core/scene/nice-range.ts';

/** A value's own height, px; many in a low lane stand closer. */
const line = 18;

/** The values at the crosshair, each beside its line, moved apart where they would overlap. */
export function Gutter({ values, range }: { values: Reading[]; range: ValueRange }) {
  const { ref, height } = useElementSize();
  const sorted = values.filter((entry) => Number.isFinite(entry.value)).sort((a, b) => b.value - a.value);
  const apart = Math.min(line, Math.max(12, (height - 2) / Math.max(1, sorted.length)));
  const highest = Math.min(4, Math.max(0, height - sorted.length * apart));
  const tops = sorted.reduce<number[]>((above, { value }) => {
    const free = above.length > 0 ? above[above.length - 1]! + apart : highest;
    return [...above, Math.max(free, heightOf(value, range, height) - 9)];
  }, []);
  // Where the last ones would run out at the bottom, all of them move up together.
  const excess = Math.max(0, (tops.at(-1) ?? 0) + apart - height);
  return (
    <div ref={ref} className={classes.gutter}>
      {height > 0 &&
        sorted.map((entry, row) => (
          <div key={entry.id} className={classes.value} style={{ top: tops[row]! - excess, color: entry.colour }}>
            <span>{entry.label}</span>
            <b className="number">{entry.text}</b>
          </div>
        ))}
    </div>
  );
}
