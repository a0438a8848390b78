import { headroom, limitChannel, limitQuantities, readingTolerance, type Limit } from '../../limits/limit.ts';
import { laneGroups, type LaneGroup } from './lane-groups.ts';
import type { LogEvent } from '../pull/run-log.ts';

/** A difference of so many of a single run's own standard deviations is worth a look. */
const farInSpreads = 3;
/** A limit is near while less than this share of it is left. */
const nearShare = 0.1;

/** A difference of a channel from the baseline's: in its own spread, and the larger of its mean and its greatest in its unit. */
export interface ToldChange {
  channel: string;
  unit: string;
  inSpreads: number;
  difference: number;
}

/** Smaller differences than these matter to nobody, however surely they are there. */
const noticeable: Readonly<Record<string, number>> = {
  '–': 0.01,
  kPa: 3,
  '°C': 3,
  '°': 0.5,
  '°BTDC': 0.5,
  '%': 2,
  '%vol': 1,
  V: 0.3,
  ms: 0.3,
  MPa: 2,
  'g/s': 2,
  rpm: 30,
};

/** Whether a channel differs by more than its own spread explains, and by enough to matter. */
export function isFar({ unit, inSpreads, difference }: ToldChange): boolean {
  return inSpreads >= farInSpreads && Math.abs(difference) >= (noticeable[unit] ?? 0);
}

/** What is known of a run's channels when lanes are chosen from them. */
export interface ToldChannels {
  logged: readonly string[];
  /** By how much each differs from the baseline's, where there is one. */
  changes: readonly ToldChange[];
  events: readonly Pick<LogEvent, 'severity' | 'channels'>[];
  /** The job's, and the usual ones of such an engine. */
  limits: readonly Limit[];
  /** Least and greatest reading of what limits are held against. */
  extremes: Readonly<Record<string, { least: number; most: number }>>;
}

/** A group with how much it tells: the greater, the more. */
export interface TellingGroup extends LaneGroup {
  weight: number;
}

/**
 * The groups of channels by what they tell: what a ◆ or ▲ rests on first, then
 * what is near a limit, then what is far from the baseline's in its own
 * spread. What stays is in reading order, and how the drum moves comes last.
 */
export function tellingGroups(told: ToldChannels): TellingGroup[] {
  const weigh = (name: string) => Math.max(ofEvents(name, told), ofLimits(name, told), ofDifference(name, told));
  return laneGroups(told.logged)
    .map((group, place) => ({
      ...group,
      // Where nothing tells, a log is read in its usual order.
      weight: (group.ofTheDrum ? -1 : Math.max(...group.channels.map(weigh))) - place / 100,
    }))
    .sort((a, b) => b.weight - a.weight);
}

/** The ids of the groups that are opened first, in reading order, so that a lane keeps its place from run to run. */
export function firstLanes(told: ToldChannels, pinned: readonly string[], most: number): string[] {
  const groups = tellingGroups(told);
  const held = groups.filter(({ channels }) => channels.some((name) => pinned.includes(name)));
  const chosen = [...held, ...groups.filter((group) => !held.includes(group))].slice(0, Math.max(most, held.length));
  return laneGroups(told.logged)
    .map(({ id }) => id)
    .filter((id) => chosen.some((group) => group.id === id));
}

function ofEvents(name: string, { events }: ToldChannels): number {
  const weights = { stop: 1000, mind: 500, note: 100 } as const;
  // The channel that it was found in comes first in its list, those that explain it after it.
  const found = events.flatMap(({ severity, channels }) => {
    const place = channels.indexOf(name);
    return place < 0 ? [] : [weights[severity] / (1 + place)];
  });
  return Math.max(0, ...found);
}

function ofLimits(name: string, { limits, extremes }: ToldChannels): number {
  const shares = limits.flatMap((limit) => {
    const read = extremes[limitChannel(limit.quantity)];
    if (limitChannel(limit.quantity) !== name || !read) return [];
    const left = headroom(limit, limitQuantities[limit.quantity].side === 'most' ? read.most : read.least);
    if (left === undefined || Number.isNaN(left)) return [];
    return [(left + readingTolerance(limit)) / Math.abs(limit.value)];
  });
  const least = Math.min(...shares);
  return least < nearShare ? 80 + 10 * (1 - Math.max(0, least) / nearShare) : 0;
}

function ofDifference(name: string, { changes }: ToldChannels): number {
  const change = changes.find(({ channel }) => channel === name);
  return change && isFar(change) ? Math.min(70, 10 + change.inSpreads) : 0;
}
