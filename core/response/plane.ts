import { medianOf } from '../numerics/quantile.ts';
import { differences, stateOf, type SetupStep } from '../setup/difference.ts';
import { isNumeric, keyOf, numericOf, type NumericItem, type SetupItem } from '../setup/item.ts';
import { levelOf } from './levels.ts';
import type { PlanePoint } from './surface-fit.ts';

/** One of the two items of a plane. */
export interface PlaneItem {
  key: string;
  item: NumericItem;
  label: string;
  unit: string;
  /** What a small step of it is, in its unit. */
  step: number;
  /** Where it began, in its unit. */
  startX: number;
}

/** A setup's place on a plane. */
export interface PlaneSetup extends PlanePoint {
  id: number;
  letter: string;
}

/** Two numeric items that run setups differ in, alone or together, and in nothing else. */
export interface VariedPlane {
  key: string;
  across: PlaneItem;
  down: PlaneItem;
  /** The first is where it began: u = v = 0. */
  setups: PlaneSetup[];
}

/** Small steps as the trade takes them, by kind; of a thing that a person named the smallest that was taken. */
const usualSteps: Partial<Record<NumericItem['kind'], number>> = {
  ignition: 1,
  boost: 6,
  'lambda-target': 0.02,
  'intake-cam': 3,
  'exhaust-cam': 3,
  'injection-end': 1,
  'intake-length': 20,
};

/**
 * The planes on which runs lie around a setup: pairs of numeric items in which
 * the run setups of a job differ from it, alone or together. Both items must
 * have been moved at least once.
 *
 * @param ran ids of setups that have counted runs, in the order in which they were made
 */
export function variedPlanes(
  setups: readonly (SetupStep & { letter: string })[],
  aroundId: number,
  ran: readonly number[],
): VariedPlane[] {
  const apart = ran.map((id) => ({ id, pairs: differences(setups, aroundId, id) }));
  const near = apart.flatMap(({ id, pairs }) => {
    const items = pairs.map(({ from, to }) => to ?? from);
    const numeric = items.filter((item): item is NumericItem => item !== undefined && isNumeric(item));
    return numeric.length === items.length && items.length <= 2 ? [{ id, keys: numeric.map(keyOf) }] : [];
  });
  const keys = [...new Set(near.flatMap((one) => one.keys))];
  const planes: VariedPlane[] = [];
  keys.forEach((first, at) => {
    for (const second of keys.slice(at + 1)) {
      const on = near.filter((one) => one.keys.every((key) => key === first || key === second));
      const plane = planeOf(
        setups,
        first,
        second,
        on.map(({ id }) => id),
      );
      if (plane) planes.push(plane);
    }
  });
  return planes;
}

function planeOf(
  setups: readonly (SetupStep & { letter: string })[],
  first: string,
  second: string,
  ids: readonly number[],
): VariedPlane | undefined {
  const states = ids.map((id) => ({ id, state: stateOf(setups, id) }));
  const placed = states.flatMap(({ id, state }) => {
    const [x, y] = [levelIn(states, state, first), levelIn(states, state, second)];
    return x === undefined || y === undefined ? [] : [{ id, x, y }];
  });
  const [start] = placed;
  if (!start) return undefined;
  const [across, down] = [
    itemOf(
      states,
      first,
      placed.map(({ x }) => x),
      start.x,
    ),
    itemOf(
      states,
      second,
      placed.map(({ y }) => y),
      start.y,
    ),
  ];
  if (!across || !down) return undefined;
  return {
    key: `${first}+${second}`,
    across,
    down,
    setups: placed.map(({ id, x, y }) => ({
      id,
      letter: setups.find((setup) => setup.id === id)?.letter ?? '',
      u: (x - across.startX) / across.step,
      v: (y - down.startX) / down.step,
    })),
  };
}

type States = readonly { state: ReadonlyMap<string, SetupItem> }[];

/** Where an item stands in a setup, beside the others. */
function levelIn(states: States, state: ReadonlyMap<string, SetupItem>, key: string): number | undefined {
  return levelOf(
    state.get(key),
    states.some(({ state: other }) => asNumeric(other.get(key))?.to !== undefined),
  );
}

const asNumeric = (item: SetupItem | undefined): NumericItem | undefined =>
  item && isNumeric(item) ? item : undefined;

function itemOf(states: States, key: string, levels: readonly number[], startX: number): PlaneItem | undefined {
  const item = states.map(({ state }) => asNumeric(state.get(key))).find((one) => one !== undefined);
  const distinct = [...new Set(levels)].sort((a, b) => a - b);
  if (!item || distinct.length < 2) return undefined;
  const gaps = distinct.slice(1).map((level, at) => level - distinct[at]!);
  const { label, unit } = numericOf(item);
  return {
    key,
    item,
    label,
    unit,
    startX,
    step: usualSteps[item.kind] ?? Math.min(...gaps, medianOf(Float64Array.from(gaps))),
  };
}
