import type { RunCurve } from '../../comparison/run-curve.ts';
import type { Travel } from '../../curve/travel.ts';

/** One setup's counted runs. */
export interface SetupCurves {
  setupId: number;
  parentId?: number | null | undefined;
  power: readonly RunCurve[];
  torque: readonly RunCurve[];
  travel?: readonly Travel[];
  /** Of those that logged it, kPa. */
  boost?: readonly RunCurve[];
}
