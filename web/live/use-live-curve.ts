import { useEffect, useState } from 'react';
import type { z } from 'zod';
import { deviceState } from '../../contract/bays/live.ts';
import { dynoFile } from '../../contract/files/machine-and-air.ts';
import { liveDrums, LivePower, type LiveDrum } from '../../core/reduction/live-power.ts';
import { motionReader, useDyno } from '../state/dyno.ts';
import { onRow, useLive } from '../state/live.ts';

/** The curve of the pull going on, growing as samples come; empty before one. */
export interface LiveCurve {
  rpm: number[];
  /** Uncorrected. */
  powerKw: number[];
}

/** The newest point of the pull going on, for what watches it; undefined while none goes on. */
let newest: { rpm: number; powerKw: number } | undefined;
export const newestLivePoint = () => newest;

const machineForm = deviceState.pick({ engineToDrumRatio: true }).extend({ dyno: dynoFile });
type Machine = z.infer<typeof machineForm>;

/** Points are kept this far apart, s: more than the eye or the screen can tell is waste. */
const pointEveryS = 0.04;
/** Below this the pull has not begun, or has ended, %. */
const openThrottle = 80;
/** After the throttle opens the driveline winds up for this long; what is read then is not the engine, s. */
const windUpS = 0.7;

/** Gathers the live curve of the dyno in the bay, a new one for each pull. */
export function useLiveCurve(): LiveCurve {
  const dyno = useDyno();
  const [curve, setCurve] = useState<LiveCurve>({ rpm: [], powerKw: [] });
  const recorderState = useLive((state) => state.bay?.recorder.state);
  const columns = useLive((state) => state.columns);
  // The server sends a new copy of the dyno with every state of the bay. Only one that differs begins the curve anew.
  const machine = dyno?.dyno
    ? JSON.stringify({ dyno: dyno.dyno, engineToDrumRatio: dyno.engineToDrumRatio })
    : undefined;
  const gathering = recorderState === 'armed' || recorderState === 'recording';

  useEffect(() => {
    if (!gathering || !machine) return undefined;
    const gathered: LiveCurve = { rpm: [], powerKw: [] };
    newest = undefined;
    let frame = 0;
    const show = () => {
      frame ||= requestAnimationFrame(() => {
        frame = 0;
        setCurve({ rpm: [...gathered.rpm], powerKw: [...gathered.powerKw] });
      });
    };
    const stop = onRow(pointGatherer(machineForm.parse(JSON.parse(machine)), columns, gathered, show));
    show();
    return () => {
      stop();
      newest = undefined;
      cancelAnimationFrame(frame);
    };
  }, [gathering, machine, columns]);

  return curve;
}

/** Turns sample rows into points of a rising curve. */
function pointGatherer(machine: Machine, columns: readonly string[], gathered: LiveCurve, onPoint: () => void) {
  const drums = liveDrums(columns, machine.dyno);
  const live = new LivePower(machine.dyno, drums);
  const motion = motionReader(columns, machine);
  const throttleAt = columns.indexOf('throttle');
  const loadAt = columns.indexOf('absorberTorque');
  const read = (row: Float64Array, drumRadS: number): LiveDrum[] =>
    drums?.map(({ speedAt, torqueAt }) => ({ speed: row[speedAt]!, absorber: row[torqueAt] ?? 0 })) ?? [
      { speed: drumRadS, absorber: row[loadAt] ?? 0 },
    ];
  let latest = -Infinity;
  let openedS: number | undefined;
  return (row: Float64Array) => {
    const { drumRadS, engineRpm } = motion(row);
    const point = live.push(row[0]!, engineRpm, read(row, drumRadS));
    const open = throttleAt < 0 || row[throttleAt]! >= openThrottle;
    openedS = open ? (openedS ?? row[0]!) : undefined;
    if (
      !point ||
      Number.isNaN(point.rpm) ||
      openedS === undefined ||
      row[0]! - openedS < windUpS ||
      row[0]! - latest < pointEveryS
    )
      return;
    // What comes after the lift is not part of the curve.
    if (point.rpm <= (gathered.rpm.at(-1) ?? -Infinity)) return;
    latest = row[0]!;
    gathered.rpm.push(point.rpm);
    gathered.powerKw.push(point.powerKw);
    newest = point;
    onPoint();
  };
}
