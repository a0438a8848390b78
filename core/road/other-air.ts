import type { Air } from '../air/air.ts';
import { stationPressureHpa } from '../air/air.ts';
import { correctionOf, type DieselEngine, type StandardId } from '../air/correction.ts';

/** What a corrected power becomes in other air. */
export interface InOtherAir {
  kw: number;
  /** False where the standard's own limits are left: an estimate all the more. */
  valid: boolean;
}

/** Air of a place: a hill and a temperature, half dry. */
export const airAt = (altitudeM: number, temperatureC: number): Air => ({
  temperatureC,
  pressureHpa: stationPressureHpa(1013.25, altitudeM),
  relativeHumidityPct: 50,
});

/**
 * A corrected power as it would be in other air: the correction run backwards.
 * @param share of the correction that suits the engine, 0 to 1
 */
export function powerInAir(
  correctedKw: number,
  air: Air,
  standard: StandardId,
  share: number,
  engine?: DieselEngine,
): InOtherAir {
  const { factor, valid } = correctionOf(standard, air, share, engine);
  return { kw: correctedKw / factor, valid };
}
