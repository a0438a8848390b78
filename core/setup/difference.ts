import { isNumeric, keyOf, type NumericItem, type SetupItem } from './item.ts';

/** What is needed of a setup to tell two apart. */
export interface SetupStep {
  id: number;
  parentId: number | null;
  items: readonly SetupItem[];
}

/** The setups from the first to one, oldest first. @returns empty when it is not among them */
export function lineOf<Step extends SetupStep>(setups: readonly Step[], id: number): Step[] {
  const line: Step[] = [];
  let next = setups.find((setup) => setup.id === id);
  while (next && !line.includes(next)) {
    line.unshift(next);
    const { parentId } = next;
    next = setups.find((setup) => setup.id === parentId);
  }
  return line;
}

/** Items that concern the same thing follow one another; others stand side by side. */
function thing(item: SetupItem): string {
  if (isNumeric(item)) return keyOf(item);
  if (item.kind === 'words') return `words/${item.name.toLowerCase()}`;
  if (item.kind === 'part-fitted' || item.kind === 'part-removed') return `part/${item.name.toLowerCase()}`;
  return item.kind;
}

/** What a setup's whole line of changes amounts to: steps of one thing added up, the last of its states. */
export function stateOf(setups: readonly SetupStep[], id: number): Map<string, SetupItem> {
  const state = new Map<string, SetupItem>();
  for (const item of lineOf(setups, id).flatMap((setup) => setup.items)) {
    const key = thing(item);
    const before = state.get(key);
    state.set(key, before && isNumeric(before) && isNumeric(item) ? added(before, item) : item);
  }
  return state;
}

function added(before: NumericItem, step: NumericItem): NumericItem {
  if (step.to !== undefined) return step;
  const by = step.by ?? 0;
  const sum = (value: number) => Math.round((value + by) * 1e6) / 1e6;
  return before.to !== undefined ? { ...before, to: sum(before.to) } : { ...before, by: sum(before.by ?? 0) };
}

/** A thing in which two setups differ; undefined where a side says nothing of it. */
export interface SetupDifference {
  from: SetupItem | undefined;
  to: SetupItem | undefined;
}

/**
 * The things in which two setups of a job differ, however far apart they are:
 * what both inherited is no difference, nor is a step that was taken back.
 */
export function differences(setups: readonly SetupStep[], fromId: number, toId: number): SetupDifference[] {
  const [from, to] = [stateOf(setups, fromId), stateOf(setups, toId)];
  return [...new Set([...from.keys(), ...to.keys()])]
    .map((key) => ({ from: from.get(key), to: to.get(key) }))
    .filter((pair) => !alike(pair.from, pair.to));
}

/** A step that was taken back whole leaves nothing. */
function isNothing(item: SetupItem | undefined): boolean {
  return !item || (isNumeric(item) && item.to === undefined && !item.by);
}

function alike(a: SetupItem | undefined, b: SetupItem | undefined): boolean {
  if (isNothing(a) && isNothing(b)) return true;
  return JSON.stringify(a) === JSON.stringify(b);
}

/**
 * Setups in which the car was the same, whatever way led there: a return to
 * an earlier setup has a letter of its own and is that setup again.
 *
 * @returns of each setup the first one that the car was the same in
 */
export function sameStates(setups: readonly SetupStep[]): Map<number, number> {
  const first = new Map<string, number>();
  return new Map(
    setups.map(({ id }) => {
      const items = [...stateOf(setups, id)].filter(([, item]) => !isNothing(item));
      const state = JSON.stringify(items.sort(([a], [b]) => (a < b ? -1 : 1)));
      const same = first.get(state) ?? id;
      first.set(state, same);
      return [id, same];
    }),
  );
}
