import { useEffect, useRef, useState } from 'react';
import type { Job } from '../../../contract/records.ts';
import { limitQuantityNames, type Limit, type LimitQuantity } from '../../../core/limits/limit.ts';
import { watchedLimits, type WatchedLimit } from '../../../core/limits/watched.ts';
import { sound } from '../../state/cues.ts';
import { latestReading, useLive } from '../../state/live.ts';

const everyMs = 100;
/** Full load counts from here, %, once it has lasted so long, ms: probes are late. */
const openThrottle = 80;
const loadedAfterMs = 600;
/** A reading must lie beyond a limit for so long before it shouts, ms: one wild sample is no excursion. */
const crossedForMs = 150;

const channels: Partial<Record<LimitQuantity, string>> = { smokeLambda: 'lambda' };

export interface LiveLimits {
  limits: WatchedLimit[];
  /** Crossed since the run began, the worst last. */
  shouts: WatchedLimit[];
}

/** The job's limits against what is read now; one that is crossed is remembered until the next run, and heard once. */
export function useWatchedLimits(job: Job | undefined): LiveLimits {
  const recording = useLive((state) => state.bay?.recorder.state === 'recording');
  const [found, setFound] = useState<LiveLimits>({ limits: [], shouts: [] });
  const shouted = useRef(new Map<LimitQuantity, WatchedLimit>());
  const wanted = JSON.stringify(limitsOf(job));
  useEffect(() => {
    if (recording) shouted.current.clear();
  }, [recording]);
  useEffect(() => {
    const limits = JSON.parse(wanted) as Limit[];
    let loadedSince = Infinity;
    const beyondSince = new Map<LimitQuantity, number>();
    const timer = setInterval(() => {
      const now = performance.now();
      const throttle = latestReading('throttle');
      if (throttle === undefined ? !recording : throttle < openThrottle) loadedSince = Infinity;
      else loadedSince = Math.min(loadedSince, now);
      const loaded = recording && now - loadedSince > loadedAfterMs;
      const watched = watchedLimits(limits, (quantity) => latestReading(channels[quantity] ?? quantity), loaded);
      for (const limit of watched) {
        if (!limit.crossed) beyondSince.delete(limit.quantity);
        else if (!beyondSince.has(limit.quantity)) beyondSince.set(limit.quantity, now);
        const lasts = now - (beyondSince.get(limit.quantity) ?? now);
        if (!recording || lasts < crossedForMs) continue;
        const before = shouted.current.get(limit.quantity);
        if (!before) sound('stop', `Stop. ${limit.label} ${limit.reading!.toPrecision(3)}`);
        if (!before || limit.left! < before.left!) shouted.current.set(limit.quantity, limit);
      }
      setFound({ limits: watched, shouts: [...shouted.current.values()] });
    }, everyMs);
    return () => clearInterval(timer);
  }, [wanted, recording]);
  return found;
}

function limitsOf(job: Job | undefined): Limit[] {
  return (job?.limits ?? []).flatMap(({ quantity, value, scale }) =>
    (limitQuantityNames as readonly string[]).includes(quantity)
      ? [{ quantity: quantity as LimitQuantity, value, scale }]
      : [],
  );
}
