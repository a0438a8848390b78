import type { Sentence } from '../sentence/sentence.ts';

/** How much a check matters: worth knowing, to be minded, or a reason to stop. */
export type Severity = 'note' | 'mind' | 'stop';

const gravity: Record<Severity, number> = { stop: 0, mind: 1, note: 2 };

/** For sorting: the gravest first. */
export const byGravity = (a: { severity: Severity }, b: { severity: Severity }) =>
  gravity[a.severity] - gravity[b.severity];

/** What a check found on a run, where, and a sentence for the person reading it. */
export interface Finding {
  id: string;
  severity: Severity;
  /** Engine speed at which it begins and ends, rpm; absent when it concerns the whole run. */
  fromRpm?: number;
  toRpm?: number;
  /** Every stretch of engine speed, rpm, where it was found at several, each with its own figure. */
  zones?: readonly Zone[];
  /** The figure that it rests on, and its unit; absent where it rests on none. */
  figure?: number;
  unit?: string;
  message: Sentence;
}

/** Whether no check says that a run's figures are not the engine's: nothing is learned from others. */
export function isTheEngines(checks: readonly Pick<Finding, 'severity'>[]): boolean {
  return checks.every(({ severity }) => severity !== 'stop');
}

/** A stretch of engine speed and the figure there. */
export interface Zone {
  fromRpm: number;
  toRpm: number;
  figure: number;
}

/** The zone with the greatest figure. */
export function worstOf(zones: readonly [Zone, ...Zone[]]): Zone {
  return zones.reduce((worst, zone) => (zone.figure > worst.figure ? zone : worst));
}

/** Whether a list holds anything, for the compiler too. */
export const holdsAny = <T>(list: readonly T[]): list is readonly [T, ...T[]] => list.length > 0;

/** An engine speed as a finding gives it: to 10 rpm. */
export function tens(rpm: number): number {
  return Math.round(rpm / 10) * 10;
}
