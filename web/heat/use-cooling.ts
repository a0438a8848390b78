import { useEffect, useState } from 'react';
import { coolingCurve, timeToReady, type CoolingReading, type TimeToReady } from '../../core/heat/cooling-curve.ts';
import { tellsHeat, type StartWindow } from '../../core/heat/start-window.ts';
import { latestReading, useLive } from '../state/live.ts';

const everyMs = 1000;
/** Older readings tell little of what comes, and cost time. */
const mostReadings = 900;

/** Readings since the last run ended, kept while the page is open whatever stage is shown. */
const gathered = new Map<string, CoolingReading[]>();
let beganAt = 0;
let watching = false;

function watch(): void {
  if (watching) return;
  watching = true;
  beganAt = performance.now();
  setInterval(gather, everyMs);
  // A run heats: what was seen before it tells nothing of the cooling after it.
  useLive.subscribe((state, before) => {
    const over = before.bay?.recorder.state === 'recording' && state.bay?.recorder.state !== 'recording';
    const begins = state.bay?.recorder.state === 'recording' && before.bay?.recorder.state !== 'recording';
    if (over || begins || state.dynoDevice !== before.dynoDevice) {
      gathered.clear();
      beganAt = performance.now();
    }
  });
}

function gather(): void {
  const { columns, bay } = useLive.getState();
  if (bay?.recorder.state === 'recording') return;
  const atS = (performance.now() - beganAt) / 1000;
  for (const channel of columns.filter(tellsHeat)) {
    const valueC = latestReading(channel);
    if (valueC === undefined) continue;
    const readings = gathered.get(channel) ?? [];
    readings.push({ atS, valueC });
    if (readings.length > mostReadings) readings.shift();
    gathered.set(channel, readings);
  }
}

/** The window to return to, and when each channel will be back in it. */
export interface HeatToReady {
  window: StartWindow;
  times: Record<string, TimeToReady>;
}

/** When each channel will be back in the window, by the cooling observed so far; made anew every few seconds. */
export function useHeatToReady(window: StartWindow): HeatToReady {
  const air = useLive((state) => state.bay?.air?.temperatureC);
  const [times, setTimes] = useState<Record<string, TimeToReady>>({});
  const wanted = JSON.stringify(window);
  useEffect(() => {
    watch();
    const make = () =>
      setTimes(
        Object.fromEntries(
          Object.entries(JSON.parse(wanted) as StartWindow).flatMap(([channel, band]) => {
            const now = latestReading(channel);
            if (now === undefined) return [];
            return [[channel, timeToReady(coolingCurve(gathered.get(channel) ?? [], air ?? -Infinity), now, band)]];
          }),
        ),
      );
    make();
    const timer = setInterval(make, 3000);
    return () => clearInterval(timer);
  }, [wanted, air]);
  return { window, times };
}
