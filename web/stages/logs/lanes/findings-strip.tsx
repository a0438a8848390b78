import { useOwnUnits } from '../../../units/use-own-units.tsx';
import { useElementSize } from '@mantine/hooks';
import type { ShownEvent } from '../../../../core/log/view/log-view.ts';
import type { LaneAxisId } from '../../../../core/scene/lane-axis.ts';
import type { AxisRange } from '../../../../core/scene/scene.ts';
import { SeverityMark } from '../../../ui/severity.tsx';
import classes from './findings-strip.module.css';
import { placeOf } from './log-scene.ts';
import { inRows } from './strip-rows.ts';

interface FindingsStripProps {
  label: string;
  events: readonly ShownEvent[];
  axis: LaneAxisId;
  startS: number;
  whole: AxisRange;
  /** What the lanes show of it. */
  range: AxisRange;
  chosen: ShownEvent | undefined;
  onChoose: (event: ShownEvent) => void;
}

/** What was found, each where it happened over the whole axis. */
export function FindingsStrip({ label, events, axis, startS, whole, range, chosen, onChoose }: FindingsStripProps) {
  const { ref, width } = useElementSize();
  const { write } = useOwnUnits();
  const share = (x: number) => Math.min(1, Math.max(0, (x - whole[0]) / (whole[1] - whole[0])));
  const placed = inRows(
    events.map((event) => {
      const [from, to] = placeOf(event, axis, startS).map(share) as [number, number];
      return { event, name: event.name, from, to };
    }),
    width,
  );
  const rows = 1 + Math.max(0, ...placed.map(({ row }) => row));
  const zoomed = range[0] !== whole[0] || range[1] !== whole[1];
  return (
    <section className={classes.strip} aria-label={`Found in ${label}`}>
      <div ref={ref} className={classes.marks} style={{ height: rows * 26 + 4 }}>
        {zoomed && (
          <div
            className={classes.window}
            style={{ left: `${100 * share(range[0])}%`, right: `${100 * (1 - share(range[1]))}%` }}
          />
        )}
        {width > 0 &&
          placed.map(({ event, name, row, startPx, widthPx, namePx, barPx, barWidthPx }) => (
            <button
              key={`${event.id}-${event.fromS}`}
              className={classes.mark}
              data-severity={event.severity}
              data-chosen={event === chosen || undefined}
              style={{ top: row * 26, left: startPx, width: widthPx }}
              aria-label={write(event.message)}
              title={write(event.message)}
              onClick={() => onChoose(event)}
            >
              <span className={classes.bar} style={{ left: barPx, width: barWidthPx }} />
              <span className={classes.name} style={{ left: namePx }}>
                <SeverityMark severity={event.severity} />
                {name}
              </span>
            </button>
          ))}
        {events.length === 0 && <p className={classes.clean}>Nothing stands out in what was logged.</p>}
      </div>
    </section>
  );
}
