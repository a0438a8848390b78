import type { OwnUnits } from '../units/own-units.ts';
import { useOwnUnits } from '../units/use-own-units.tsx';
import { useEffect } from 'react';
import { create } from 'zustand';
import type { Job } from '../../contract/job/records.ts';
import { knownLimits, limitChannel, type Limit, type LimitQuantity } from '../../core/limits/limit.ts';
import { UnreadLimits, unreadAfterMs, type UnreadGap } from '../../core/limits/unread-limits.ts';
import { heldLimit, watchedLimits, type WatchedLimit } from '../../core/limits/watched.ts';
import { sound } from '../state/cues.ts';
import { latestReading, rowsOlderThan, useLive } from '../state/live.ts';
import { newestLivePoint } from './use-live-curve.ts';
import { engineTorqueNm } from '../../core/curve/engine-torque.ts';

const everyMs = 100;
/** Full load counts from here, %, once it has lasted so long, ms: probes are late. */
const openThrottle = 80;
const loadedAfterMs = 600;
/** A reading must lie beyond a limit for so long before it shouts, ms: one wild sample is no excursion. */
const crossedForMs = 150;

interface LiveLimits {
  limits: WatchedLimit[];
  /** Crossed since the run began, each at its worst. */
  shouts: WatchedLimit[];
  /** Not read for a while since the run began: what was not read was not watched. */
  gaps: UnreadGap[];
}

/**
 * The limits of the run going on. Kept apart from the stage: they change ten times a second, and only what shows them
 * is drawn anew.
 */
export const useLiveLimits = create<LiveLimits>(() => ({ limits: [], shouts: [], gaps: [] }));

/**
 * Holds the job's limits against what is read while a run is recorded. A crossed one stays marked until the next run,
 * and is heard once.
 */
export function useLimitWatch(job: Job | undefined): void {
  const { figure } = useOwnUnits();
  const recording = useLive((state) => state.bay?.recorder.state === 'recording');
  const wanted = JSON.stringify(knownLimits(job?.limits ?? []));
  useEffect(() => {
    if (recording) return watch(JSON.parse(wanted) as Limit[], figure);
    return undefined;
  }, [wanted, recording, figure]);
}

/** Torque and power as the lanes draw them, at the wheels; everything else as it was sent. */
function readNow(quantity: LimitQuantity): number | undefined {
  if (rowsOlderThan(unreadAfterMs)) return undefined;
  if (quantity !== 'torque' && quantity !== 'power') return latestReading(limitChannel(quantity));
  const point = newestLivePoint();
  return point && (quantity === 'power' ? point.powerKw : engineTorqueNm(point.powerKw, point.rpm));
}

/** @returns a function that ends it */
function watch(job: readonly Limit[], figure: OwnUnits['figure']): () => void {
  useLiveLimits.setState({ limits: [], shouts: [], gaps: [] });
  let loadedSince = Infinity;
  const beyondSince = new Map<LimitQuantity, number>();
  const shouted = new Map<LimitQuantity, WatchedLimit>();
  const wasNear = new Set<LimitQuantity>();
  const unread = new UnreadLimits(
    (quantity) => useLive.getState().columns.includes(limitChannel(quantity)),
    (label) => sound('unread', `${label} is not read`),
  );
  const timer = setInterval(() => {
    const now = performance.now();
    const throttle = latestReading('throttle');
    // Without a throttle channel a pull that is recorded counts as one under load.
    loadedSince = throttle === undefined || throttle >= openThrottle ? Math.min(loadedSince, now) : Infinity;
    const loaded = now - loadedSince > loadedAfterMs;
    const watched = unread.in(watchedLimits(job, readNow, loaded), now);
    for (const limit of watched) {
      const { reading, left } = limit;
      if (!limit.crossed || reading === undefined || left === undefined) {
        beyondSince.delete(limit.quantity);
        continue;
      }
      if (!beyondSince.has(limit.quantity)) beyondSince.set(limit.quantity, now);
      if (now - (beyondSince.get(limit.quantity) ?? now) < crossedForMs) continue;
      const before = shouted.get(limit.quantity);
      if (!before) sound('stop', `Stop. ${limit.label} ${figure(reading, limit.unit)}`);
      if (left < (before?.left ?? Infinity)) shouted.set(limit.quantity, limit);
    }
    for (const { near, crossed, quantity } of watched) if (near || crossed) wasNear.add(quantity);
    const limits = watched.map((limit) => heldLimit(limit, shouted.has(limit.quantity), wasNear.has(limit.quantity)));
    useLiveLimits.setState({ limits, shouts: [...shouted.values()], gaps: unread.gaps });
  }, everyMs);
  return () => clearInterval(timer);
}
