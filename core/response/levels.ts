import { differences, stateOf, type SetupStep } from '../setup/difference.ts';
import { isNumeric, keyOf, numericOf, type NumericItem, type SetupItem } from '../setup/item.ts';

/** A numeric item that several run setups differ in and in nothing else. */
export interface VariedItem {
  key: string;
  /** The item itself, without its step. */
  item: NumericItem;
  label: string;
  unit: string;
  levels: { x: number; setupIds: number[] }[];
  /** Run setups whose level nobody wrote down: the item is a value, and theirs is not known. */
  unknownIds: number[];
}

/**
 * The numeric items in which setups differ from one setup alone, with the
 * level of each: runs of these make a response curve. Each item stands once:
 * around the setup that is looked at, or around another that more levels of it
 * were tried around.
 *
 * @param ran ids of setups that have counted runs
 */
export function variedItems(setups: readonly SetupStep[], aroundId: number, ran: readonly number[]): VariedItem[] {
  const most = new Map<string, VariedItem>();
  for (const centre of new Set([aroundId, ...ran]))
    for (const varied of itemsAround(setups, centre, ran)) {
      const known = most.get(varied.key);
      if (!known || varied.levels.length > known.levels.length) most.set(varied.key, varied);
    }
  return [...most.values()].sort((a, b) => b.levels.length - a.levels.length);
}

function itemsAround(setups: readonly SetupStep[], aroundId: number, ran: readonly number[]): VariedItem[] {
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
    add(varied, pair.to, id, isValue(pair.to) || isValue(pair.from));
  }
  // The setup itself, and those that differ from it in nothing, stand at its own level in every one.
  for (const varied of found.values()) {
    const own = around.get(varied.key);
    const asValue = isValue(own) || ran.some((id) => isValue(stateOf(setups, id).get(varied.key)));
    for (const id of ran.filter((id) => differences(setups, aroundId, id).length === 0)) add(varied, own, id, asValue);
    varied.levels.sort((a, b) => a.x - b.x);
  }
  return [...found.values()];
}

function begun(item: NumericItem): VariedItem {
  const { label, unit } = numericOf(item);
  const where = item.aboveRpm ? ` above ${item.aboveRpm.toLocaleString('en-GB')} rpm` : '';
  return {
    key: keyOf(item),
    item: { ...item, by: undefined, to: undefined },
    label: label + where,
    unit,
    levels: [],
    unknownIds: [],
  };
}

/** Whether an item says to which value, not by how much. */
function isValue(item: SetupItem | undefined): boolean {
  return item !== undefined && isNumeric(item) && item.to !== undefined;
}

/** Where an item stands; undefined where others say a value of it (`asValue`) and this one does not. */
export function levelOf(item: SetupItem | undefined, asValue: boolean): number | undefined {
  const numeric = item && isNumeric(item) ? item : undefined;
  return asValue ? numeric?.to : (numeric?.by ?? 0);
}

/**
 * Puts a setup on its level: by so much against the car as it came, where
 * nothing said is no change; or the value itself, where nothing said is not known.
 */
function add(varied: VariedItem, item: SetupItem | undefined, id: number, asValue: boolean): void {
  const x = levelOf(item, asValue);
  if (x === undefined) {
    if (!varied.unknownIds.includes(id)) varied.unknownIds.push(id);
    return;
  }
  const level = varied.levels.find((candidate) => candidate.x === x);
  if (!level) varied.levels.push({ x, setupIds: [id] });
  else if (!level.setupIds.includes(id)) level.setupIds.push(id);
}
