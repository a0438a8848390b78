import { useLayoutEffect } from 'react';
import type { BayState } from '../../contract/bays/live.ts';
import { useLive, watchBay } from './live.ts';

/** Watches a bay while the caller is shown. @param number undefined leaves the choice as it is */
export function useWatchedBay(number: number | undefined): void {
  useLayoutEffect(() => {
    if (number !== undefined) watchBay(number);
  }, [number]);
}

/** The bay on whose dyno a job is, if it is on one. */
export function useBayOfJob(jobId: number | undefined): BayState | undefined {
  return useLive(({ bays }) => bayWithJob(bays, jobId));
}

function bayWithJob(bays: readonly BayState[], jobId: number | undefined): BayState | undefined {
  return bays.find(({ mounted }) => mounted !== null && mounted.jobId === jobId);
}

/**
 * The bay in which a job is recorded: where it is; else the one that was
 * asked for; else the first with an empty dyno that is heard, an empty one, any.
 */
export function bayForJob(bays: readonly BayState[], jobId: number, asked: number | undefined): BayState | undefined {
  const empty = bays.filter(({ mounted }) => mounted === null);
  return (
    bayWithJob(bays, jobId) ??
    bays.find(({ bay }) => bay === asked) ??
    empty.find(({ devices }) => devices.some(({ dyno, heard }) => dyno && heard)) ??
    empty[0] ??
    bays[0]
  );
}
