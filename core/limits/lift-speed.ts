import type { Limit } from './limit.ts';

/**
 * The engine speed at which the driver lifts: the lowest of what is planned
 * and of the limits on engine speed; without either, where the baseline's runs ended.
 * @returns rpm; undefined where nobody knows one
 */
export function liftSpeed(
  planned: number | null | undefined,
  limits: readonly Pick<Limit, 'quantity' | 'value'>[],
  baselineEndRpm?: number,
): number | undefined {
  const most = limits.filter(({ quantity }) => quantity === 'engineSpeed').map(({ value }) => value);
  const known = [...(planned ? [planned] : []), ...most];
  return known.length > 0 ? Math.min(...known) : baselineEndRpm;
}
