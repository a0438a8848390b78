import { sampleAt } from '../../numerics/sample-at.ts';
import { engineTorqueNm } from '../../curve/engine-torque.ts';
import { Refusal } from '../../refusal.ts';
import { convert, dimensionOf, unitFromSpelling, type UnitName } from '../../units/units.ts';
import type { LogTable } from '../loggers/log-table.ts';

/** What a column of a dyno's result table is; null leaves it out. */
export type ResultRole = 'engineSpeed' | 'power' | 'torque' | null;

export interface ResultColumn {
  heading: string;
  role: ResultRole;
  /** Of a power or a torque. */
  unit: UnitName | null;
}

/** A power curve that a result table holds. */
export interface ResultCurve {
  /** As the table calls the run; empty where it does not. */
  name: string;
  /** rpm, rising, and kW. */
  points: [rpm: number, kw: number][];
}

const words: Record<'engineSpeed' | 'power' | 'torque', RegExp> = {
  engineSpeed: /\b(rpm|engine ?speed|revs?|drehzahl|r[ée]gime|1\/min)\b/i,
  power: /\b(power|kw|ps|b?hp|cv|whp|leistung|puissance)\b/i,
  torque: /\b(torque|n[·. ]?m|lb[-. ]?ft|ft[-. ]?lbs?|drehmoment|couple|kg[-. ]?m)\b/i,
};
const usualUnits = { power: 'kW', torque: 'N·m' } as const;
/** More points are thinned: a curve holds no more than this many. */
const mostPoints = 400;

/** A first guess at what each column of a result table is. */
export function guessedRoles({ columns }: LogTable): ResultColumn[] {
  return columns.map(({ heading, unit }): ResultColumn => {
    const told = `${heading} ${unit}`;
    const known = unitIn(unit) ?? unitIn(heading);
    if (words.engineSpeed.test(told) && known === undefined) return { heading, role: 'engineSpeed', unit: null };
    const role =
      known !== undefined
        ? dimensionOf(known) === 'power'
          ? 'power'
          : 'torque'
        : (['power', 'torque'] as const).find((one) => words[one].test(told));
    return { heading, role: role ?? null, unit: role ? (known ?? usualUnits[role]) : null };
  });
}

/** A unit of power or torque among the words of a heading. */
function unitIn(text: string): UnitName | undefined {
  return text
    .split(/[\s()[\],:/]+/)
    .map((word) => unitFromSpelling(word))
    .find((unit) => unit !== undefined && ['power', 'torque'].includes(dimensionOf(unit)));
}

/**
 * The power curves of a dyno's result table: one run or several side by side,
 * each power or torque over the engine speed that stands before it, or over
 * the only one. Of a run that tells both, power is taken; torque alone is made
 * into power.
 *
 * @throws Refusal where no engine speed, or no power and torque, is among the columns
 */
export function resultCurves({ columns }: LogTable, roles: readonly ResultColumn[]): ResultCurve[] {
  const speeds = roles.flatMap(({ role }, at) => (role === 'engineSpeed' ? [at] : []));
  if (speeds.length === 0) throw new Refusal('No column is the engine speed: say which one.');
  const found = new Map<string, { from: ResultRole; curve: ResultCurve }>();
  roles.forEach(({ heading, role, unit }, at) => {
    if (role !== 'power' && role !== 'torque') return;
    const speed = speeds.filter((place) => place < at).at(-1) ?? speeds[0]!;
    const name = runName(heading) || runName(columns[speed]!.heading);
    // Without names the first power belongs with the first torque, the second with the second.
    const nth = roles
      .slice(0, at)
      .filter(
        (other, place) => other.role === role && (speeds.filter((one) => one < place).at(-1) ?? speeds[0]) === speed,
      ).length;
    const key = name || `${speed} ${nth}`;
    if (found.get(key)?.from === 'power') return;
    const points = pointsOf(columns[speed]!.values, columns[at]!.values, role, unit ?? usualUnits[role]);
    if (points.length >= 2) found.set(key, { from: role, curve: { name, points } });
  });
  if (found.size === 0)
    throw new Refusal('No column with two readings or more is a power or a torque: say which one, and its unit.');
  return Array.from(found.values(), ({ curve }) => curve);
}

/** What a heading says beside what it measures: `Run 2 power (kW)` is run 2's. */
function runName(heading: string): string {
  const left = Object.values(words).reduce((text, word) => text.replace(new RegExp(word.source, 'gi'), ' '), heading);
  return left
    .replace(/\((\d+)\)$/, '')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .replace(/^column \d+$/, '')
    .trim();
}

/** Power, kW, of a figure that a table or a sheet tells at an engine speed as power or as torque. */
export function kwOf(role: 'power' | 'torque', unit: UnitName, value: number, rpm: number): number {
  return role === 'power' ? convert(value, unit, 'kW') : convert(value, unit, 'N·m') / engineTorqueNm(1, rpm);
}

function pointsOf(
  rpm: Float64Array,
  values: Float64Array,
  role: 'power' | 'torque',
  unit: UnitName,
): [number, number][] {
  const read = Array.from(rpm, (at, index): [number, number] => [at, kwOf(role, unit, sampleAt(values, index), at)])
    .filter(([at, kw]) => at > 0 && at <= 30_000 && Number.isFinite(kw) && Math.abs(kw) < 10_000)
    .sort(([a], [b]) => a - b);
  // Several rows of one speed are one point, their mean.
  const means = new Map<number, { sum: number; count: number }>();
  for (const [at, kw] of read) {
    const before = means.get(at) ?? { sum: 0, count: 0 };
    means.set(at, { sum: before.sum + kw, count: before.count + 1 });
  }
  const points = Array.from(means, ([at, { sum, count }]): [number, number] => [at, Number((sum / count).toFixed(4))]);
  const every = Math.ceil(points.length / mostPoints);
  return points.filter((_, index) => index % every === 0 || index === points.length - 1);
}
