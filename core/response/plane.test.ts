import { describe, expect, test } from '@jest/globals';
import type { SetupItem } from '../setup/item.ts';
import { variedPlanes } from './plane.ts';

const ignition = (by: number): SetupItem => ({ kind: 'ignition', by });
const boost = (by: number): SetupItem => ({ kind: 'boost', by });
const setup = (id: number, parentId: number | null, ...items: SetupItem[]) => ({
  id,
  parentId,
  items,
  letter: String.fromCharCode(64 + id),
});

describe('a plane of two items', () => {
  const setups = [
    setup(1, null),
    setup(2, 1, boost(12)),
    setup(3, 2, ignition(1)),
    setup(4, 1, ignition(2)),
    setup(5, 1, { kind: 'fuel', name: 'E30' }),
  ];

  test('holds every setup that differs in these two alone, in small steps from where it began', () => {
    const planes = variedPlanes(setups, 3, [1, 2, 3, 4, 5]);
    expect(planes).toHaveLength(1);
    const [plane] = planes;
    const [b, i] = plane!.across.label === 'boost' ? (['u', 'v'] as const) : (['v', 'u'] as const);
    const at = Object.fromEntries(plane!.setups.map((one) => [one.letter, [one[b], one[i]]]));
    // Another fuel is another plane altogether.
    expect(at).toEqual({ A: [0, 0], B: [2, 0], C: [2, 1], D: [0, 2] });
  });

  test('is none while only one item was moved', () => {
    expect(variedPlanes(setups, 1, [1, 2])).toEqual([]);
    expect(variedPlanes(setups, 1, [])).toEqual([]);
  });

  test('leaves out a setup whose value nobody wrote down', () => {
    const lambda = (to: number): SetupItem => ({ kind: 'lambda-target', to });
    const more = [setup(1, null), setup(2, 1, lambda(0.88)), setup(3, 2, lambda(0.84)), setup(4, 3, boost(6))];
    const [plane] = variedPlanes(more, 4, [1, 2, 3, 4]);
    expect(plane!.setups.map(({ letter }) => letter)).toEqual(['B', 'C', 'D']);
  });
});
