import { quantityRange, say, type Sentence } from '../sentence/sentence.ts';
import { dryPressureHpa, type Air } from './air.ts';

export const standardIds = ['none', 'sae-j1349', 'std-j607', 'din-70020', 'iso-1585-si', 'iso-1585-ci'] as const;
export type StandardId = (typeof standardIds)[number];

/** What ISO 1585 wants to know about a compression-ignition engine. */
export interface DieselEngine {
  turbocharged: boolean;
  /** Fuel per litre and cycle ÷ boost pressure ratio, mg/(L·cycle). Unknown: the exponent of 0.3, marked. */
  correctedFuelMgPerLitreCycle?: number;
}

interface Standard {
  name: string;
  /** The air that it refers to, in words. */
  reference: string;
  factor(air: Air, engine: DieselEngine): number;
  /** Why a factor is outside what the standard allows, or undefined when it is inside. */
  outside(air: Air, factor: number): Sentence | undefined;
}

const kelvin = 273.15;

function outOfRange(factor: number, least: number, most: number): string | undefined {
  return factor < least || factor > most
    ? `its factor of ${factor.toFixed(3)} lies outside ${least.toFixed(2)} to ${most.toFixed(2)}`
    : undefined;
}

/** What ISO 1585 allows of the inlet air, °C, and of its dry pressure. */
function outsideIso(air: Air, leastC: number, mostC: number): Sentence | undefined {
  if (air.temperatureC < leastC || air.temperatureC > mostC)
    return say`the inlet air is outside ${quantityRange(leastC, mostC, '°C')}`;
  const dry = dryPressureHpa(air);
  return dry < 800 || dry > 1100 ? say`the dry pressure is outside ${quantityRange(800, 1100, 'hPa')}` : undefined;
}

/** The correction standards by id; each multiplies power and torque. Formulas and sources: docs/methods.md. */
export const standards: Record<StandardId, Standard> = {
  none: { name: 'Uncorrected', reference: 'the air as it was', factor: () => 1, outside: () => undefined },
  'sae-j1349': {
    name: 'SAE J1349',
    reference: '25 °C, 990 hPa dry',
    factor: (air) => 1.18 * (990 / dryPressureHpa(air)) * Math.sqrt((air.temperatureC + kelvin) / 298.15) - 0.18,
    outside(air, factor) {
      if (air.temperatureC < 15 || air.temperatureC > 35)
        return say`the inlet air is outside ${quantityRange(15, 35, '°C')}`;
      const dry = dryPressureHpa(air);
      if (dry < 900 || dry > 1050) return say`the dry pressure is outside ${quantityRange(900, 1050, 'hPa')}`;
      return outOfRange(factor, 0.93, 1.07);
    },
  },
  'std-j607': {
    name: 'SAE J607 (15.6 °C, 1013 hPa dry)',
    reference: '60 °F, 29.92 inHg dry; reads about 4 % above J1349',
    factor: (air) => (1013.25 / dryPressureHpa(air)) * Math.sqrt((air.temperatureC + kelvin) / 288.71),
    outside: () => undefined,
  },
  'din-70020': {
    name: 'DIN 70020',
    reference: '20 °C, 1013 hPa, undried',
    factor: (air) => (1013 / air.pressureHpa) * Math.sqrt((air.temperatureC + kelvin) / 293.15),
    outside: () => undefined,
  },
  'iso-1585-si': {
    name: 'ISO 1585, spark ignition',
    reference: '25 °C, 990 hPa dry; UN ECE R85 and JIS D 1001 are the same',
    factor: (air) => (990 / dryPressureHpa(air)) ** 1.2 * ((air.temperatureC + kelvin) / 298.15) ** 0.6,
    outside: (air, factor) => outsideIso(air, 15, 35) ?? outOfRange(factor, 0.93, 1.07),
  },
  'iso-1585-ci': {
    name: 'ISO 1585, diesel',
    reference: '25 °C, 990 hPa dry; UN ECE R85 and JIS D 1001 are the same',
    factor(air, engine) {
      const pressure = 990 / dryPressureHpa(air);
      const temperature = (air.temperatureC + kelvin) / 298.15;
      const atmospheric = engine.turbocharged ? pressure ** 0.7 * temperature ** 1.5 : pressure * temperature ** 0.7;
      return atmospheric ** engineExponent(engine.correctedFuelMgPerLitreCycle);
    },
    outside: (air, factor) => outsideIso(air, 10, 40) ?? outOfRange(factor, 0.9, 1.1),
  },
};

function engineExponent(fuel: number | undefined): number {
  if (fuel === undefined || fuel < 40) return 0.3;
  return fuel > 65 ? 1.2 : 0.036 * fuel - 1.14;
}

export interface Correction {
  standard: StandardId;
  /** Multiplies power and torque. */
  factor: number;
  /** False where the standard's own limits are left, or where there is no air to correct with. */
  valid: boolean;
  /** What it was told of a diesel. */
  engine?: DieselEngine;
  /** Why it is not valid, in words. */
  remark?: Sentence;
}

/**
 * The correction of one run.
 *
 * @param air undefined when none was recorded: nothing is corrected
 * @param share 0 to 1: how much of the correction is applied (engines that hold boost to a target make up for air themselves)
 */
export function correctionOf(
  standard: StandardId,
  air: Air | undefined,
  share = 1,
  engine: DieselEngine = { turbocharged: true },
): Correction {
  if (standard === 'none') return { standard, factor: 1, valid: true };
  if (!air) return { standard: 'none', factor: 1, valid: false, remark: 'no air was recorded with the run' };
  const { factor: computed, outside } = standards[standard];
  const full = computed(air, engine);
  const remark = outside(air, full);
  const factor = 1 + share * (full - 1);
  const made = { standard, factor, ...(standard === 'iso-1585-ci' && { engine }) };
  return remark === undefined ? { ...made, valid: true } : { ...made, valid: false, remark };
}
