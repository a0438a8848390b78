import { Refusal } from '../refusal.ts';
import { saturationPressureHpa, stationPressureHpa, vapourPressureFromWetBulbHpa, type Air } from './air.ts';

/** The air at the inlet mouth as people read it off what they have. */
export interface StatedAir {
  temperatureC: number;
  /** At the place itself, or a sea-level figure with the place's height. */
  pressure: { at: 'station'; hPa: number } | { at: 'sea level'; hPa: number; elevationM: number };
  moisture:
    | { by: 'humidity'; pct: number }
    | { by: 'dew point'; celsius: number }
    | { by: 'wet bulb'; celsius: number; ventilated: boolean };
}

/** A little beyond saturation is rounding, more is a mistake, %. */
const roundingPct = 1;

/**
 * The air that a statement means.
 * @throws Refusal where its figures cannot all be right: a dew point or a wet bulb above the temperature, air drier than dry
 */
export function airOf({ temperatureC, pressure, moisture }: StatedAir): Air {
  const pressureHpa = pressure.at === 'station' ? pressure.hPa : stationPressureHpa(pressure.hPa, pressure.elevationM);
  const relativeHumidityPct = humidityOf(temperatureC, pressureHpa, moisture);
  if (relativeHumidityPct > 100 + roundingPct)
    throw new Refusal(
      `The ${moisture.by} lies above the air temperature of ${temperatureC} °C: one of the two is wrong.`,
    );
  if (relativeHumidityPct < 0)
    throw new Refusal(
      `A wet bulb so far below ${temperatureC} °C would mean air drier than dry: one of the two is wrong.`,
    );
  return { temperatureC, pressureHpa, relativeHumidityPct: Math.min(100, relativeHumidityPct) };
}

function humidityOf(temperatureC: number, pressureHpa: number, moisture: StatedAir['moisture']): number {
  const saturated = saturationPressureHpa(temperatureC);
  switch (moisture.by) {
    case 'humidity':
      return moisture.pct;
    case 'dew point':
      return (100 * saturationPressureHpa(moisture.celsius)) / saturated;
    case 'wet bulb': {
      const ventilation = moisture.ventilated ? 'aspirated' : 'natural';
      return (100 * vapourPressureFromWetBulbHpa(temperatureC, moisture.celsius, pressureHpa, ventilation)) / saturated;
    }
  }
}

/** What an instrument read, in the form in which people state it. */
export const statedOf = ({ temperatureC, pressureHpa, relativeHumidityPct }: Air): StatedAir => ({
  temperatureC,
  pressure: { at: 'station', hPa: pressureHpa },
  moisture: { by: 'humidity', pct: relativeHumidityPct },
});
