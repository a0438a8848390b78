import type { RunKind } from '../recording/run-kind.ts';
import type { Dealing, FuellingAxes } from './axes.ts';
import { emptyAxes } from './fuelling-of-runs.ts';
import { usualFuelling, type FuellingSettings } from './fuelling-table.ts';
import { type ProbeDelay } from './gas-way.ts';

/** How a vehicle's fuel table is laid out, and how its errors are made. */
export interface FuellingLayout {
  axes: FuellingAxes;
  dealing: Dealing;
  /** null: found in the data. */
  delay: ProbeDelay | null;
  /** Aimed at where the log has no target. */
  lambdaTarget: number;
}

/** @param layout nothing where nobody laid one out @param probeOffset taken off λ, where that has not been done */
export function settingsOf(layout: FuellingLayout | null | undefined, probeOffset = 0): FuellingSettings {
  const { dealing, delay, mixture } = usualFuelling;
  if (!layout) return { dealing, delay, mixture: { ...mixture, probeOffset } };
  return { dealing: layout.dealing, delay: layout.delay, mixture: { probeOffset, lambdaTarget: layout.lambdaTarget } };
}

/** The axes that runs are laid over: the vehicle's; where nobody laid a table out those that part load is driven by, or null for what the runs themselves show. */
export function axesOf(
  layout: FuellingLayout | null | undefined,
  runs: readonly { kind: RunKind }[],
): FuellingAxes | null {
  if (layout) return layout.axes;
  return runs.some(({ kind }) => kind === 'part-load') ? emptyAxes : null;
}
