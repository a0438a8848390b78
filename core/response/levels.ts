import { differences, stateOf, type SetupStep } from '../setup/difference.ts';
import { isNumeric, numericItems, type NumericItem, type NumericKind, type SetupItem } from '../setup/item.ts';

/** A numeric item that several run setups differ in and in nothing else. */
export interface VariedItem {
  kind: NumericKind;
  aboveRpm: number | undefined;
  label: string;
  unit: string;
  levels: { x: number; setupIds: number[] }[];
}

/**
 * The numeric items in which setups differ from one setup alone, with the
 * level of each: runs of these make a response curve.
 *
 * @param ran ids of setups that have counted runs
 */
export function variedItems(setups: readonly SetupStep[], aroundId: number, ran: readonly number[]): VariedItem[] {
  const found = new Map<string, VariedItem>();
  const around = stateOf(setups, aroundId);
  for (const id of ran) {
    const apart = differences(setups, aroundId, id);
    if (apart.length > 1) continue;
    const pair = apart[0];
    const item = pair?.to ?? pair?.from;
    if (!pair || !item || !isNumeric(item)) continue;
    const key = keyOf(item);
    const varied = found.get(key) ?? begun(item);
    found.set(key, varied);
    add(varied, levelOf(pair.to), id);
  }
  // The setup itself, and those that differ from it in nothing, stand at its own level in every one.
  for (const varied of found.values()) {
    for (const id of ran.filter((id) => differences(setups, aroundId, id).length === 0))
      add(varied, levelOf(around.get(keyOf(varied))), id);
    varied.levels.sort((a, b) => a.x - b.x);
  }
  return [...found.values()].sort((a, b) => b.levels.length - a.levels.length);
}

/** The thing that an item concerns, as stateOf keys it. */
export const keyOf = ({ kind, aboveRpm }: Pick<NumericItem, 'kind' | 'aboveRpm'>) => `${kind}/${aboveRpm ?? 0}`;

function begun(item: NumericItem): VariedItem {
  const { label, unit } = numericItems[item.kind];
  const where = item.aboveRpm ? ` above ${item.aboveRpm.toLocaleString('en-GB')} rpm` : '';
  return { kind: item.kind, aboveRpm: item.aboveRpm, label: label + where, unit, levels: [] };
}

/** By so much against the car as it came, or to a value; nothing said is no change. */
function levelOf(item: SetupItem | undefined): number {
  return item && isNumeric(item) ? (item.to ?? item.by ?? 0) : 0;
}

function add(varied: VariedItem, x: number, id: number): void {
  const level = varied.levels.find((level) => level.x === x);
  if (!level) varied.levels.push({ x, setupIds: [id] });
  else if (!level.setupIds.includes(id)) level.setupIds.push(id);
}
