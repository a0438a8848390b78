import type { OwnUnits } from '../units/own-units.ts';
import { useOwnUnits } from '../units/use-own-units.tsx';
import { useEffect } from 'react';
import { create } from 'zustand';
import type { Job } from '../../contract/job/records.ts';
import { knownLimits, limitChannel, type Limit, type LimitQuantity } from '../../core/limits/limit.ts';
import { heldLimit, watchedLimits, type WatchedLimit } from '../../core/limits/watched.ts';
import { knownChannels, type KnownChannel } from '../../core/recording/channels.ts';
import { sound } from '../state/cues.ts';
import { latestReading, rowsOlderThan, useLive } from '../state/live.ts';
import { newestLivePoint } from './use-live-curve.ts';
import { engineTorqueNm } from '../../core/curve/engine-torque.ts';

const everyMs = 100;
/** Full load counts from here, %, once it has lasted so long, ms: probes are late. */
const openThrottle = 80;
const loadedAfterMs = 600;
/** A limited reading that has not come for so long is not read, ms. */
const unreadAfterMs = 500;
/** One that is missing in a row or two is waited for, ms. */
const heldOverMs = 150;
/** A reading must lie beyond a limit for so long before it shouts, ms: one wild sample is no excursion. */
const crossedForMs = 150;

interface LiveLimits {
  limits: WatchedLimit[];
  /** Crossed since the run began, each at its worst. */
  shouts: WatchedLimit[];
  /** Not read for a while since the run began: what was not read was not watched. */
  gaps: { quantity: LimitQuantity; label: string; seconds: number; now: boolean }[];
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
  const unread = new UnreadLimits((label) => sound('unread', `${label} is not read`));
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

/** What is read of a limit: its channel, or torque and power that are made of several. */
function readLabel({ quantity, label }: WatchedLimit): string {
  const channel = limitChannel(quantity);
  return channel in knownChannels ? knownChannels[channel as KnownChannel].label : label;
}

/** Tells which limits are not read any more, though they were, or though something beside the dyno reads them. */
class UnreadLimits {
  private readonly read = new Map<LimitQuantity, { reading: number | undefined; atMs: number }>();
  /** By what is read: several limits may be of one reading. */
  private readonly found = new Map<string, LiveLimits['gaps'][number]>();

  /** @param heard called once for each, with its label */
  constructor(private readonly heard: (label: string) => void) {}

  get gaps(): LiveLimits['gaps'] {
    return [...this.found.values()];
  }

  in(limits: readonly WatchedLimit[], nowMs: number): WatchedLimit[] {
    return limits.map((limit) => {
      const { quantity, reading } = limit;
      const before = this.read.get(quantity);
      const label = readLabel(limit);
      const gap = this.found.get(label);
      if (reading !== undefined) {
        this.read.set(quantity, { reading, atMs: nowMs });
        if (gap?.now) this.found.set(label, { ...gap, now: false });
        return limit;
      }
      if (!before) {
        // Its channel is there, and has not spoken yet.
        if (useLive.getState().columns.includes(limitChannel(quantity)))
          this.read.set(quantity, { reading: undefined, atMs: nowMs });
        return limit;
      }
      const silentMs = nowMs - before.atMs;
      // Whoever tells that a logger is silent has waited already.
      if (silentMs < heldOverMs) return { ...limit, reading: before.reading };
      const seconds = (unreadAfterMs + silentMs) / 1000;
      if (!gap) this.heard(label);
      this.found.set(label, {
        quantity,
        label,
        seconds: Math.max(seconds, gap?.seconds ?? 0),
        now: true,
      });
      return { ...limit, reading: before.reading, unread: true };
    });
  }
}
