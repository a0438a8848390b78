import { useEffect, useMemo, useRef, useState } from 'react';
import type { VehicleFuelling } from '../../contract/shop/vehicles.ts';
import type { FuellingAxes } from '../../core/setup/fuel-table.ts';
import type { FittedCell } from '../../core/fuelling/corner-fit.ts';
import { emptyAxes } from '../../core/fuelling/fuelling-of-runs.ts';
import { settingsOf } from '../../core/fuelling/layout.ts';
import { LiveFuelling } from '../../core/fuelling/live-fuelling.ts';
import { nearestIndex, nextCell, type CellVisit } from '../../core/fuelling/next-cell.ts';
import { Refusal } from '../../core/refusal.ts';
import { onRow, useLive } from '../state/live.ts';

/** The table as it stands while it is driven. */
export interface LiveTable {
  axes: FuellingAxes;
  /** undefined before the first readings. */
  cells?: readonly FittedCell[];
  /** Where the engine is now; undefined off the table. */
  present?: number | undefined;
  /** Where it is to go; undefined once every cell is settled. */
  next?: CellVisit | undefined;
  /** Why nothing comes, as a sentence. */
  problem?: string;
}

/** Looked at anew so often, ms. */
const everyMs = 400;

/** Gathers the watched bay's rows while a run at part load is recorded, and says where its table stands. */
export function useLiveFuelling(layout: VehicleFuelling | null | undefined, going: boolean): LiveTable {
  const axes = layout?.axes ?? emptyAxes;
  const [table, setTable] = useState<LiveTable>({ axes });
  const columns = useLastColumns();
  const offset = useLive(
    (state) => state.bay?.devices.find(({ kind }) => kind === 'engine-logger')?.settings.probe.offset ?? 0,
  );
  const live = useMemo(
    () => new LiveFuelling(columns, axes, settingsOf(layout, offset)),
    [columns, axes, layout, offset],
  );
  const target = useRef<number>(undefined);
  useEffect(() => {
    if (!going) return undefined;
    target.current = undefined;
    const stop = onRow((row) => live.push(row));
    const timer = setInterval(() => {
      try {
        const made = live.table();
        if (!made) return;
        const place = placeOf(live, axes);
        const next = nextCell(axes, made.cells, made.delay, place, target.current);
        target.current = next?.cell;
        setTable({ axes, cells: made.cells, present: place && cellAt(axes, place), next });
      } catch (error) {
        if (!(error instanceof Refusal)) throw error;
        setTable({ axes, problem: error.message });
      }
    }, everyMs);
    return () => {
      stop();
      clearInterval(timer);
    };
  }, [going, live, axes]);
  return table.axes === axes ? table : { axes };
}

/** The columns of the rows, those of before while new ones are on their way: a table is not begun anew for the same. */
function useLastColumns(): readonly string[] {
  const told = useLive((state) => state.columns);
  const [kept, setKept] = useState(told);
  if (told.length > 0 && told !== kept && told.join() !== kept.join()) setKept(told);
  return kept;
}

type Place = { across: number; down: number | null };

function placeOf(live: LiveFuelling, { across, down }: FuellingAxes): Place | undefined {
  const [x, y] = [readingOf(live, across.channel), down ? readingOf(live, down.channel) : null];
  return x === undefined || y === undefined ? undefined : { across: x, down: y };
}

function readingOf(live: LiveFuelling, channel: FuellingAxes['across']['channel']): number | undefined {
  if (channel !== 'airMassPerCycle') return live.latest(channel);
  const [flow, rpm] = [live.latest('airMassFlow'), live.latest('engineSpeed')];
  return flow === undefined || !rpm ? undefined : (120 * flow) / rpm;
}

function cellAt({ across, down }: FuellingAxes, place: Place): number {
  const row = down && place.down !== null ? nearestIndex(down.breakpoints, place.down) : 0;
  return row * across.breakpoints.length + nearestIndex(across.breakpoints, place.across);
}
