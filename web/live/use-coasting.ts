import { useEffect, useState } from 'react';
import { Coasting } from '../../core/readiness/coasting.ts';
import { motionReader, useDyno } from '../state/dyno.ts';
import { onRow, useLive } from '../state/live.ts';

/** A page that is opened longer after a run's end, ms, need not look: the drum has stopped. */
const longestMs = 120_000;
/** A dyno that has been silent for so long, ms, is not said to turn any more. */
const silentMs = 2000;

/** Whether a run has just ended and the drum still slows down. @param endedMs when the last run ended */
export function useCoasting(endedMs: number): boolean {
  const state = useLive((live) => live.bay?.recorder.state);
  const columns = useLive((live) => live.columns);
  const dyno = useDyno();
  const machine = JSON.stringify({ dyno: dyno?.dyno ?? null, engineToDrumRatio: dyno?.engineToDrumRatio ?? null });
  const [recorded, setRecorded] = useState(() => Date.now() - endedMs < longestMs);
  if (state === 'recording' && !recorded) setRecorded(true);
  if (state === 'armed' && recorded) setRecorded(false);
  const watching = recorded && state !== 'recording';
  useEffect(() => {
    if (!watching) return undefined;
    const motion = motionReader(columns, JSON.parse(machine) as Parameters<typeof motionReader>[1]);
    const coasting = new Coasting();
    const end = () => setRecorded(false);
    // A dyno that says nothing cannot be said to turn.
    let silence = setTimeout(end, silentMs);
    const stop = onRow((row) => {
      clearTimeout(silence);
      silence = setTimeout(end, silentMs);
      const { drumRadS } = motion(row);
      if (!Number.isNaN(drumRadS)) coasting.push(row[0]!, drumRadS);
      if (!coasting.goesOn) end();
    });
    return () => {
      clearTimeout(silence);
      stop();
    };
  }, [watching, columns, machine]);
  return watching;
}
