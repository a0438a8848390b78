import { useEffect, useState } from 'react';
import { dynoFile, type DynoFile } from '../../../contract/files.ts';
import { LivePower } from '../../../core/reduction/live-power.ts';
import { onRow, useLive } from '../../state/live.ts';

/** The curve of the pull going on, growing as samples come; empty before one. */
export interface LiveCurve {
  rpm: number[];
  /** Uncorrected. */
  powerKw: number[];
}

/** Points are kept this far apart, s: more than the eye or the screen can tell is waste. */
const pointEveryS = 0.04;
/** Below this the pull has not begun, or has ended, %. */
const openThrottle = 80;
/** After the throttle opens the driveline winds up for this long; what is read then is not the engine, s. */
const windUpS = 0.7;

/** Gathers the live curve of the dyno in the bay, a new one for each pull. */
export function useLiveCurve(dyno: DynoFile | undefined): LiveCurve {
  const [curve, setCurve] = useState<LiveCurve>({ rpm: [], powerKw: [] });
  const recorderState = useLive((state) => state.bay?.recorder.state);
  const columns = useLive((state) => state.columns);
  // Every state of the bay brings its own copy of the dyno; only a different one begins anew.
  const dynoText = dyno && JSON.stringify(dyno);
  const gathering = recorderState === 'armed' || recorderState === 'recording';

  useEffect(() => {
    if (!gathering || !dynoText) return undefined;
    const gathered: LiveCurve = { rpm: [], powerKw: [] };
    let frame = 0;
    const show = () => {
      frame ||= requestAnimationFrame(() => {
        frame = 0;
        setCurve({ rpm: [...gathered.rpm], powerKw: [...gathered.powerKw] });
      });
    };
    const stop = onRow(pointGatherer(dynoFile.parse(JSON.parse(dynoText)), columns, gathered, show));
    show();
    return () => {
      stop();
      cancelAnimationFrame(frame);
    };
  }, [gathering, dynoText, columns]);

  return curve;
}

/** Turns sample rows into points of a rising curve. */
function pointGatherer(dyno: DynoFile, columns: readonly string[], gathered: LiveCurve, onPoint: () => void) {
  const live = new LivePower(dyno);
  const speedAt = Math.max(columns.indexOf('rollerSpeed'), columns.indexOf('hubSpeed'));
  const engineAt = columns.indexOf('engineSpeed');
  const throttleAt = columns.indexOf('throttle');
  const absorberAt = columns.indexOf('absorberTorque');
  let latest = -Infinity;
  let openedS: number | undefined;
  return (row: Float64Array) => {
    const point = live.push(row[0]!, row[speedAt]!, row[engineAt]!, absorberAt < 0 ? 0 : row[absorberAt]!);
    const open = throttleAt < 0 || row[throttleAt]! >= openThrottle;
    openedS = open ? (openedS ?? row[0]!) : undefined;
    if (!point || openedS === undefined || row[0]! - openedS < windUpS || row[0]! - latest < pointEveryS) return;
    // After the lift nothing belongs to the curve.
    if (gathered.rpm.length > 0 && point.rpm <= gathered.rpm.at(-1)!) return;
    latest = row[0]!;
    gathered.rpm.push(point.rpm);
    gathered.powerKw.push(point.powerKw);
    onPoint();
  };
}
