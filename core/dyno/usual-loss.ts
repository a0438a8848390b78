import type { MachineKind } from './dyno-profile.ts';

/** What usually gets lost between crank and dyno, as shares: a stated default until a shop has learned its own. */
export const usualLoss: Readonly<Record<MachineKind, readonly [least: number, most: number]>> = {
  'inertia-roller': [0.12, 0.22],
  'loaded-roller': [0.12, 0.22],
  hub: [0.08, 0.18],
};

/** What a figure of the crank would read on a machine: an estimate by the usual losses, in the figure's own unit. */
export function wheelRange(atCrank: number, kind: MachineKind): readonly [least: number, most: number] {
  return [atCrank * (1 - usualLoss[kind][1]), atCrank * (1 - usualLoss[kind][0])];
}
