import { stoichiometricOf } from './blend.ts';
import { fuelNow } from './fuel-now.ts';

type Fuelled = Parameters<typeof fuelNow>[0] & { car: { ignition: 'spark' | 'compression' | null } };

/** The stoichiometric ratio of what is in a job's tank now. */
export function ratioOfJob(job: Fuelled): number {
  return stoichiometricOf(job.car.ignition, fuelNow(job)?.ethanolPct ?? null).ratio;
}
