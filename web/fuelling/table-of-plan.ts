import type { Job } from '../../contract/job/records.ts';
import type { RunPlan } from '../../contract/instruments/recording.ts';
import type { VehicleFuelling } from '../../contract/shop/vehicles.ts';

/** Whether a plan is driven over a table: part load, or holds at several speeds and loads. */
export function isTable({ kind, steps }: RunPlan): boolean {
  return (
    kind === 'part-load' || (kind === 'step' && new Set(steps.speedsRpm).size > 1 && new Set(steps.loadsKpa).size > 1)
  );
}

/** The table that a plan is driven over: the vehicle's own, or the holds of the plan, each known once λ is. */
export function tableOfPlan({ kind, steps }: RunPlan, { car }: Pick<Job, 'car'>): VehicleFuelling | null | undefined {
  if (kind !== 'step') return car.fuelling;
  const rising = (values: readonly number[]) => [...new Set(values)].sort((a, b) => a - b);
  return {
    dealing: { by: 'corners' },
    delay: null,
    lambdaTarget: 1,
    ...car.fuelling,
    axes: {
      across: { channel: 'engineSpeed', breakpoints: rising(steps.speedsRpm) },
      down: { channel: 'manifoldPressure', breakpoints: rising(steps.loadsKpa) },
    },
  };
}
