import type { EngineKind } from '../engine/engine-kind.ts';
import { joined, quantity, say, type Sentence } from '../sentence/sentence.ts';
import { mixed, stoichiometricOf } from './blend.ts';

/** One line of a job's fuel ledger. Volumes in litres, ethanol in percent by volume; null where not known. */
export interface FuelEntry {
  kind: 'arrived' | 'drained' | 'added' | 'measured';
  at: Date;
  litres: number | null;
  ethanolPct: number | null;
  /** What it is called: `98 octane`, `E85`, `diesel`. */
  name: string;
}

/** What is in the tank, as far as the ledger tells. */
export interface FuelState {
  name: string;
  /** Null while the volume is not known. */
  litres: number | null;
  ethanolPct: number | null;
  /** Where the content comes from: a settled reading, arithmetic, or what somebody said. */
  from: 'measured' | 'computed' | 'stated' | 'unknown';
  /** The reading has not settled since the content last changed: lines and pump still hold the old fuel. */
  moving: boolean;
}

/** Two readings agree within this, percent by volume. */
export const settledWithinPct = 1;
/** What tells two fuels apart in a comparison, percent by volume. */
export const otherFuelPct = 2;

/**
 * The tank's state after the entries, which are taken in order of time.
 *
 * A measured content counts once two readings in a row since the last change
 * agree within 1 %; until then the state is computed and marked as moving.
 * After draining without a volume the tank counts as empty.
 */
export function fuelAfter(entries: readonly FuelEntry[]): FuelState {
  const state: FuelState = { name: '', litres: null, ethanolPct: null, from: 'unknown', moving: false };
  let readings: number[] = [];
  let changed = false;
  for (const entry of [...entries].sort((a, b) => a.at.getTime() - b.at.getTime())) {
    if (entry.kind === 'measured') {
      if (entry.ethanolPct === null) continue;
      const [last, before] = [entry.ethanolPct, readings.at(-1)];
      readings.push(last);
      const agree = before !== undefined && Math.abs(last - before) <= settledWithinPct;
      // Nothing was added since the car came: one reading is enough.
      const settled = agree || !changed;
      state.moving = !settled;
      if (settled) Object.assign(state, { ethanolPct: last, from: 'measured' });
      continue;
    }
    const poured = afterPouring(state, entry);
    changed ||= entry.kind === 'added';
    if (entry.kind !== 'drained') readings = [];
    Object.assign(state, poured);
    if (entry.kind === 'added') state.moving = state.ethanolPct !== null || entry.ethanolPct !== null;
  }
  return state;
}

function afterPouring(state: FuelState, { kind, litres, ethanolPct, name }: FuelEntry): Partial<FuelState> {
  if (kind === 'arrived') {
    return { name, litres, ethanolPct, from: ethanolPct === null ? 'unknown' : 'stated', moving: false };
  }
  if (kind === 'drained') {
    const left = litres === null ? 0 : state.litres === null ? null : Math.max(0, state.litres - litres);
    return { litres: left };
  }
  if (state.litres === 0) return { name, litres, ethanolPct, from: ethanolPct === null ? 'unknown' : 'stated' };
  const both = [state.name, name].filter(Boolean);
  const blendName = both[0] === both[1] ? both[0]! : both.join(' + ');
  const unknown = { name: blendName, ethanolPct: null, from: 'unknown' } as const;
  if (state.litres === null || litres === null) return { ...unknown, litres: null };
  if (state.ethanolPct === null || ethanolPct === null) return { ...unknown, litres: state.litres + litres };
  const blend = mixed({ litres: state.litres, ethanolPct: state.ethanolPct }, { litres, ethanolPct });
  return { name: blendName, ...blend, from: 'computed' };
}

/** A state in words: `98 octane, 9 % ethanol measured, 32 L`. */
export function fuelWords({ name, litres, ethanolPct, from, moving }: FuelState): Sentence {
  const content =
    ethanolPct === null
      ? ''
      : `${Math.round(ethanolPct * 10) / 10} % ethanol ${moving ? 'computed, reading still moving' : from}`;
  const volume = litres === null ? '' : say`${quantity(litres, 'L')}`;
  return (
    joined(
      [name, content, volume].filter((part) => part !== ''),
      ', ',
    ) || 'not recorded'
  );
}

/** What a job's fuel ledger says of the tank now; undefined where nothing is written down. @param entries their times as text */
export function fuelNow({
  fuelEntries,
}: {
  fuelEntries: readonly (Omit<FuelEntry, 'at'> & { at: string })[];
}): FuelState | undefined {
  if (fuelEntries.length === 0) return undefined;
  return fuelAfter(fuelEntries.map((entry) => ({ ...entry, at: new Date(entry.at) })));
}

type Fuelled = Parameters<typeof fuelNow>[0] & { car: { ignition: EngineKind | null } };

/** The stoichiometric ratio of what is in a job's tank now. */
export function ratioOfJob(job: Fuelled): number {
  return stoichiometricOf(job.car.ignition, fuelNow(job)?.ethanolPct ?? null).ratio;
}
