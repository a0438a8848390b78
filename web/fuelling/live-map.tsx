import { Switch } from '@mantine/core';
import { useEffect, useState } from 'react';
import { progressOf } from '../../core/fuelling/standing.ts';
import { progressWords, visitWords } from '../../core/wording/fuelling-words.ts';
import { api } from '../state/api.ts';
import { useLive } from '../state/live.ts';
import { CellGrid } from './cell-grid.tsx';
import classes from './live-map.module.css';
import type { LiveTable } from './use-live-fuelling.ts';

/** The fuel table while it is driven: how well each cell is known, where the engine is, and where to go next. Read from two metres. */
export function LiveMap({ table, children }: { table: LiveTable; children?: React.ReactNode }) {
  const { axes, cells, present, next, problem } = table;
  return (
    <section className={classes.map} aria-label="Fuel table while driving">
      <p className={classes.next} role="status" data-testid="next-cell">
        {problem ?? (cells ? nextWords(table) : 'Waiting for λ, speed and load…')}
      </p>
      {cells && (
        <>
          <div className={classes.grid}>
            <CellGrid axes={axes} cells={cells} present={present} next={next?.cell} large />
          </div>
          <p className={classes.progress}>
            {progressWords(progressOf(cells))}. Heavy frame: now. Dashed: next. {children}
          </p>
        </>
      )}
    </section>
  );
}

/** What the driver does now. */
export function nextWords({ axes, next, present }: LiveTable): string {
  if (!next) return 'Every cell is settled: end the run';
  return present === next.cell ? `Hold ${visitWords(next, axes, ' for')}` : `Go to ${visitWords(next, axes, ', hold')}`;
}

/** Sends a stand-in to the cell that is named; a real dyno is set by its operator. */
export function StandInDriver({ table }: { table: LiveTable }) {
  const [drives, setDrives] = useState(true);
  const bay = useLive((state) => state.watched);
  const standIn = useLive(({ bay: watched }) =>
    watched?.devices.some(
      ({ commands, faults, connected }) => connected && commands.includes('hold') && faults.offered.length > 0,
    ),
  );
  const { axes, next } = table;
  const commands = axes.across.channel === 'engineSpeed' && axes.down?.channel === 'manifoldPressure';
  const wanted = standIn && commands && drives && next ? `${next.across} ${next.down}` : undefined;
  const holdS = next?.holdS ?? 4;
  useEffect(() => {
    if (wanted === undefined) return;
    const [engineSpeedRpm = NaN, manifoldKpa = NaN] = wanted.split(' ').map(Number);
    // What is refused is said by the recorder's own state; the map goes on.
    void api.hold(bay, { engineSpeedRpm, manifoldKpa, holdS }).catch(() => undefined);
    // Another length of the same hold is no other set point.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [wanted, bay]);
  if (!standIn || !commands) return <>Suvok sets no load here: set speed and pedal by the dyno’s own controls.</>;
  return (
    <Switch
      className={classes.drives}
      label="The stand-in goes there by itself"
      checked={drives}
      onChange={(event) => setDrives(event.currentTarget.checked)}
    />
  );
}
