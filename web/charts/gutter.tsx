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
  let lowest = Math.min(4, Math.max(0, height - sorted.length * apart));
  const placed = sorted.map((entry) => {
    const top = Math.max(lowest, heightOf(entry.value, range, height) - 9);
    lowest = top + apart;
    return { ...entry, top };
  });
  // Where they run out at the bottom, all move up together.
  const excess = Math.max(0, lowest - height);
  return (
    <div ref={ref} className={classes.gutter}>
      {height > 0 &&
        placed.map((entry) => (
          <div key={entry.id} className={classes.value} style={{ top: entry.top - excess, color: entry.colour }}>
            <span>{entry.label}</span>
            <b className="number">{entry.text}</b>
          </div>
        ))}
    </div>
  );
}
