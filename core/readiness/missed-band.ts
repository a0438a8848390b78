import { missedBy, type UncoveredBand } from '../comparison/coverage.ts';
import type { SpeedRange } from '../curve/covered-range.ts';

/** A band that the next pull will leave out, as far as it can be told before it. */
export interface MissedBand extends Omit<UncoveredBand, 'side'> {
  name: string;
  /** What it is told from. */
  by: 'plan' | 'speed' | 'last run';
}

/** What is known of the next pull's range, rpm. */
export interface PullAhead {
  planned: { fromRpm: number | null; toRpm: number | null };
  /** Engine speed while the pull is waited for; undefined where it is not waited for, or not read. */
  waitingRpm?: number | undefined;
  /** What the setup's last run covers; undefined where it has none. */
  last?: SpeedRange | undefined;
}

/**
 * The first band that the next pull will not cover: by its plan, by the speed
 * that it is waited for at, else by what the setup's last run covered.
 */
export function missedBand(
  bands: readonly { name: string; fromRpm: number; toRpm: number }[],
  { planned, waitingRpm, last }: PullAhead,
): MissedBand | undefined {
  const ends: [MissedBand['by'], SpeedRange][] = [
    ['plan', [planned.fromRpm ?? -Infinity, planned.toRpm ?? Infinity]],
    ['speed', [waitingRpm ?? -Infinity, Infinity]],
    // What is planned, or seen, for the next one counts more than what the last one did.
    ['last run', last && planned.fromRpm === null && waitingRpm === undefined ? last : [-Infinity, Infinity]],
  ];
  for (const [by, range] of ends)
    for (const { name, fromRpm, toRpm } of bands) {
      const missed = missedBy(range, [fromRpm, toRpm]);
      if (missed.beginsRpm !== undefined || missed.endsRpm !== undefined) return { ...missed, name, by };
    }
  return undefined;
}
