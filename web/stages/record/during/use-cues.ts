import { useEffect, useRef } from 'react';
import type { Run } from '../../../../contract/job/records.ts';
import { sound } from '../../../state/cues.ts';
import { latestReading, onRow, useLive } from '../../../state/live.ts';

/** Lets the run be heard: armed, going, lift, done. @param liftRpm where the driver should lift @param result the run just ended */
export function useCues(liftRpm: number | undefined, result: Run | undefined): void {
  const state = useLive((live) => live.bay?.recorder.state);
  const before = useRef(state);
  useEffect(() => {
    if (state === 'armed' && before.current !== 'armed') sound('ready', 'Ready');
    if (state === 'recording' && before.current !== 'recording' && before.current !== undefined) sound('go', 'Go');
    before.current = state;
  }, [state]);
  const lifts = useRef(false);
  useEffect(() => {
    lifts.current = false;
    if (state !== 'recording' || liftRpm === undefined) return undefined;
    return onRow(() => {
      if (lifts.current || (latestReading('engineSpeed') ?? 0) < liftRpm) return;
      lifts.current = true;
      sound('lift', 'Lift');
    });
  }, [state, liftRpm]);
  const told = useRef(result?.id);
  useEffect(() => {
    if (result && result.id !== told.current) sound('result', `${result.label ?? 'The run'} is recorded`);
    told.current = result?.id;
  }, [result]);
}
