import { joined, quantity, say, type Sentence } from '../sentence/sentence.ts';
import type { Severity } from '../checks/check.ts';
import { mixed, type Blend } from './blend.ts';
import { fuelAfter, otherFuelPct, settledWithinPct, type FuelEntry } from './ledger.ts';

/** Something in a fuel ledger that cannot be as it is written. */
export interface LedgerFinding {
  id: 'over-tank' | 'over-drained' | 'content-differs';
  severity: Severity;
  message: Sentence;
}

/** A tank takes a little more than its nominal volume, as a share. */
const brimmedShare = 0.04;
const litresOf = (litres: number) => quantity(litres, 'L');
const tenths = (value: number) => (Math.round(10 * value) / 10).toString();

/**
 * Holds a ledger against the tank and against itself: more than the tank
 * takes, more drained than was in it, and a reading that settled elsewhere
 * than the arithmetic says, with what of it would explain that.
 * @param tankLitres null where nobody knows it
 */
export function ledgerFindings(entries: readonly FuelEntry[], tankLitres: number | null): LedgerFinding[] {
  const inOrder = [...entries].sort((a, b) => a.at.getTime() - b.at.getTime());
  return inOrder.flatMap((entry, at) => {
    const before = fuelAfter(inOrder.slice(0, at));
    if (entry.kind === 'measured') return differing(inOrder, at);
    if (entry.kind === 'drained') return overDrained(entry.litres, before.litres);
    const { litres } = fuelAfter(inOrder.slice(0, at + 1));
    return litres === null || tankLitres === null || litres <= tankLitres * (1 + brimmedShare)
      ? []
      : [overTank(entry, litres, tankLitres)];
  });
}

function overTank({ kind, litres: poured, name }: FuelEntry, litres: number, tankLitres: number): LedgerFinding {
  const when =
    kind === 'arrived'
      ? 'It arrived with'
      : say`With ${litresOf(poured ?? 0)}${name && ` of ${name}`} added there would be`;
  return {
    id: 'over-tank',
    severity: 'mind',
    message: say`${when} ${litresOf(litres)} in a tank of ${litresOf(tankLitres)}: a volume is wrong, or what was drained is not written down.`,
  };
}

function overDrained(drained: number | null, held: number | null): LedgerFinding[] {
  if (drained === null || held === null || drained <= held * (1 + brimmedShare)) return [];
  return [
    {
      id: 'over-drained',
      severity: 'mind',
      message: say`${litresOf(drained)} were drained from a tank that held ${litresOf(held)}: a volume is wrong, or an addition is not written down.`,
    },
  ];
}

/** What a settled reading says of the one addition before it, where the arithmetic says something else. */
function differing(entries: readonly FuelEntry[], at: number): LedgerFinding[] {
  const reading = entries[at]?.ethanolPct;
  const earlier = entries[at - 1];
  const settled =
    earlier?.kind === 'measured' &&
    earlier.ethanolPct !== null &&
    typeof reading === 'number' &&
    Math.abs(reading - earlier.ethanolPct) <= settledWithinPct;
  if (!settled) return [];
  const poured = entries.slice(0, at).findLastIndex(({ kind }) => kind !== 'measured');
  const added = entries[poured];
  // Told at the reading that settles it, and no more after it.
  const readings = entries.slice(poured + 1, at + 1);
  const first = readings.findIndex(
    ({ ethanolPct }, index) =>
      index > 0 && Math.abs((ethanolPct ?? 0) - (readings[index - 1]?.ethanolPct ?? 0)) <= settledWithinPct,
  );
  if (added?.kind !== 'added' || added.litres === null || added.ethanolPct === null || first !== readings.length - 1)
    return [];
  const { litres, ethanolPct } = fuelAfter(entries.slice(0, poured));
  if (litres === null || ethanolPct === null) return [];
  const residue = { litres, ethanolPct };
  const pump = { litres: added.litres, ethanolPct: added.ethanolPct };
  const computed = mixed(residue, pump).ethanolPct;
  if (Math.abs(computed - reading) < otherFuelPct) return [];
  const causes = explanations(residue, pump, reading);
  return [
    {
      id: 'content-differs',
      severity: 'mind',
      message: say`The reading settled at ${tenths(reading)} % ethanol, and what is written down makes ${tenths(computed)} %: ${causes.length > 0 ? joined(causes, ', or ') : 'no residue and no pump content explains that; look at the sensor'}.`,
    },
  ];
}

/**
 * What would explain a reading: another residue in the tank of the same
 * content, or another content at the pump with the same residue.
 */
export function explanations(residue: Blend, pump: Blend, readPct: number): Sentence[] {
  const found: Sentence[] = [];
  // m·(r + a) = r·q + a·c, solved for r and for c.
  const left = (pump.litres * (pump.ethanolPct - readPct)) / (readPct - residue.ethanolPct);
  if (Number.isFinite(left) && left >= 0 && left < 500)
    found.push(say`${litresOf(left)} were in the tank before rather than ${litresOf(residue.litres)}`);
  const content = (readPct * (residue.litres + pump.litres) - residue.litres * residue.ethanolPct) / pump.litres;
  if (content >= 0 && content <= 100)
    found.push(`the pump gave ${tenths(content)} % rather than ${tenths(pump.ethanolPct)} %`);
  return found;
}
