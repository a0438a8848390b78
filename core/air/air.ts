/** The air at the engine's inlet mouth. */
export interface Air {
  temperatureC: number;
  /** Station pressure: what a barometer on the spot reads, not a sea-level figure. */
  pressureHpa: number;
  relativeHumidityPct: number;
}

const kelvin = 273.15;

/**
 * Saturation vapour pressure over water, hPa.
 * Source: Buck (1996), after Buck, J. Appl. Meteorol. 20 (1981) 1527. Valid −40 to 50 °C.
 */
export function saturationPressureHpa(temperatureC: number): number {
  return 6.1121 * Math.exp(((18.678 - temperatureC / 234.5) * temperatureC) / (257.14 + temperatureC));
}

/** Vapour pressure of the air, hPa, from its relative humidity. */
export function vapourPressureHpa(air: Air): number {
  return (air.relativeHumidityPct / 100) * saturationPressureHpa(air.temperatureC);
}

/**
 * Vapour pressure from a wet and a dry bulb, hPa.
 * @param ventilation `aspirated` with a fan, `natural` without
 */
export function vapourPressureFromWetBulbHpa(
  dryC: number,
  wetC: number,
  pressureHpa: number,
  ventilation: 'aspirated' | 'natural',
): number {
  const constant = ventilation === 'aspirated' ? 6.62e-4 : 8e-4;
  return saturationPressureHpa(wetC) - constant * pressureHpa * (dryC - wetC);
}

/** Pressure of the air less its vapour, hPa. */
export function dryPressureHpa(air: Air): number {
  return air.pressureHpa - vapourPressureHpa(air);
}

/** Density of moist air, kg/m³, both gases taken as ideal. */
export function densityKgM3(air: Air): number {
  const absolute = air.temperatureC + kelvin;
  return (dryPressureHpa(air) * 100) / (287.05 * absolute) + (vapourPressureHpa(air) * 100) / (461.495 * absolute);
}

/** Height in the standard atmosphere at which air has this density, m. */
export function densityAltitudeM(densityKgPerM3: number): number {
  return 44330.8 * (1 - (densityKgPerM3 / 1.225) ** 0.234969);
}

/** Station pressure, hPa, at a height in m for a sea-level figure (altimeter setting). */
export function stationPressureHpa(seaLevelHpa: number, heightM: number): number {
  return seaLevelHpa * (1 - 2.25577e-5 * heightM) ** 5.25588;
}
