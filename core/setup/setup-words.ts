import { keptUnits, toldIn, withUnit } from '../units/told-units.ts';
import { capital } from '../units/spoken.ts';
import { itemWords, isNumeric, numericOf, keyOf, type SetupItem } from './item.ts';
import { stateOf, type SetupStep } from './difference.ts';

/**
 * What a setup is called beside its letter: the words it was given, and where
 * these only say a step that was made before, from where to where it went:
 * `Boost +12 → +24 kPa`. Two setups of a job are then never called the same.
 */
export function setupWords(
  setups: readonly (SetupStep & { change: string })[],
  { id, parentId, change, items }: SetupStep & { change: string },
): string {
  const [only] = items;
  if (parentId === null || items.length !== 1 || !only || !isNumeric(only) || only.by === undefined) return change;
  // Somebody's own words stay as they are.
  if (folded(change) !== folded(itemWords(only))) return change;
  const [before, after] = [stateOf(setups, parentId), stateOf(setups, id)].map((state) => state.get(keyOf(only)));
  const [from, to] = [levelOf(before), levelOf(after)];
  if (from === undefined || to === undefined || from === 0) return change;
  const { label, unit: kept, digits } = numericOf(only);
  const { unit } = toldIn(kept, keptUnits);
  const relative = isNumeric(after ?? only) && (after as { to?: number } | undefined)?.to === undefined;
  const write = (value: number) =>
    `${value < 0 ? '−' : relative && value > 0 ? '+' : ''}${Number(Math.abs(value).toFixed(digits))}`;
  const where = only.aboveRpm ? ` above ${only.aboveRpm.toLocaleString('en-GB')}` : '';
  return capital(`${label} ${write(from)} → ${write(to)}${withUnit('', unit)}${where}`);
}

const folded = (words: string) => words.toLowerCase().replace(/ rpm$/, '').replace(/\s+/g, ' ').trim();

function levelOf(item: SetupItem | undefined): number | undefined {
  if (!item || !isNumeric(item)) return undefined;
  return item.to ?? item.by;
}
