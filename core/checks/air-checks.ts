import type { EngineKind } from '../engine/engine-kind.ts';
import { quantity, say } from '../sentence/sentence.ts';
import type { Air } from '../air/air.ts';
import { stationPressureHpa } from '../air/air.ts';
import { correctionOf, standards, type Correction, type StandardId } from '../air/correction.ts';
import type { Finding } from './check.ts';

/** What the checks of the air need beside the reading: its age, the shop's height, the engine. */
export interface AirCircumstances {
  /** How long before the run the air was read, s. */
  ageS?: number | undefined;
  /** Height of the shop above the sea, m. */
  altitudeM?: number | undefined;
  ignition?: EngineKind | undefined;
  /** A compressor driven by the engine is none; undefined where nobody said. */
  turbocharged?: boolean | undefined;
  /** Of a diesel, mg per litre and cycle ÷ boost ratio; undefined where it was not logged. */
  correctedFuelMgPerLitreCycle?: number | undefined;
}

/** Found when a correction was asked for and the run has no air to correct with. */
export function airMissing(air: Air | undefined, wanted: StandardId): Finding | undefined {
  if (air || wanted === 'none') return undefined;
  return {
    id: 'air-missing',
    severity: 'mind',
    message: 'No air was recorded with this run, so its figures are uncorrected. Add the air to correct them.',
  };
}

/** Found when the air lies outside what the standard allows; the figure is computed all the same. */
export function airOutsideStandard(correction: Correction): Finding | undefined {
  if (correction.valid || correction.standard === 'none') return undefined;
  return {
    id: 'air-outside-standard',
    severity: 'mind',
    figure: correction.factor,
    unit: '×',
    message: say`${standards[correction.standard].name} is used outside its validity: ${correction.remark ?? ''}.`,
  };
}

/** Air changes within a quarter of an hour in a closed cell; older than this, s, it is marked, and much older it is minded. */
const noteAgeS = 20 * 60;
const mindAgeS = 60 * 60;

/** Found when the air was read long before the run. */
export function airStale(ageS: number | undefined, standard: StandardId): Finding | undefined {
  if (ageS === undefined || standard === 'none' || ageS < noteAgeS) return undefined;
  const minutes = Math.round(ageS / 60);
  const age = minutes < 120 ? `${minutes} minutes` : `${Math.round(minutes / 60)} hours`;
  return {
    id: 'air-stale',
    severity: ageS < mindAgeS ? 'note' : 'mind',
    figure: minutes,
    unit: 'min',
    message: say`The air was read ${age} before this run; ${quantity(3, 'K')} since then would be 1 % of power. Read it again before the next run.`,
  };
}

/** Found when a standard is meant for another kind of engine. */
export function standardUnsuited(standard: StandardId, ignition: AirCircumstances['ignition']): Finding | undefined {
  if (ignition === 'electric' && standard !== 'none')
    return {
      id: 'standard-unsuited',
      severity: 'mind',
      message: `${standards[standard].name} corrects for the air that an engine takes, and this is an electric drive: its figures are not what it makes. Uncorrected suits it.`,
    };
  const meant = standard === 'iso-1585-ci' ? 'compression' : 'spark';
  const decides = standard === 'iso-1585-ci' || standard === 'iso-1585-si' || standard === 'sae-j1349';
  if (!ignition || !decides || ignition === meant) return undefined;
  return {
    id: 'standard-unsuited',
    severity: 'mind',
    message:
      ignition === 'compression'
        ? `${standards[standard].name} as used here is meant for spark ignition and this is a diesel: it overstates what the air takes. ISO 1585 for compression ignition suits it.`
        : `${standards[standard].name} is meant for diesels and this engine has spark ignition. SAE J1349 or ISO 1585 for spark ignition suits it.`,
  };
}

const turboAssumed = 'Whether it is turbocharged is not written: it is taken to be.';
/** A factor that may be this far off is more than a note. */
const mattersShare = 0.005;

/** Found where ISO 1585 corrects a diesel whose fuel a cycle, or whose induction, is not known: what was assumed, and what it can matter. */
export function dieselAssumed(
  { standard, factor }: Correction,
  air: Air | undefined,
  share: number | undefined,
  { turbocharged, correctedFuelMgPerLitreCycle: fuel }: AirCircumstances,
): Finding | undefined {
  if (standard !== 'iso-1585-ci' || (fuel !== undefined && turbocharged !== undefined)) return undefined;
  if (fuel !== undefined)
    return { id: 'diesel-factor-assumed', severity: 'mind', figure: factor, message: turboAssumed };
  const most = correctionOf(standard, air, share, {
    turbocharged: turbocharged ?? true,
    // The most that it corrects by, however much the engine gets.
    correctedFuelMgPerLitreCycle: Infinity,
  }).factor;
  const induction = turbocharged === undefined ? ` ${turboAssumed}` : '';
  return {
    id: 'diesel-factor-assumed',
    severity: Math.abs(most / factor - 1) > mattersShare ? 'mind' : 'note',
    figure: factor,
    message: `How much fuel it gets a cycle is not known (fuel flow, boost and displacement tell it): its engine factor is taken as 0.3, which corrects by ×${factor.toFixed(3)}; with the most fuel it would be ×${most.toFixed(3)}.${induction}`,
  };
}

/** A shop lower than this, m, cannot tell the two pressures apart; weather moves the pressure by this much, hPa. */
const leastAltitudeM = 300;
const weatherHpa = 30;

/**
 * Found when the pressure is near what the sea-level figure would be, at a
 * shop that lies high: an airport's figure typed in as it was read.
 * @param altitudeM height above the sea; nothing can be told without it
 */
export function pressureLooksSeaLevel(air: Air | undefined, altitudeM: number | undefined): Finding | undefined {
  if (!air || altitudeM === undefined || altitudeM < leastAltitudeM) return undefined;
  const usual = stationPressureHpa(1013.25, altitudeM);
  const above = air.pressureHpa - usual;
  // Nearer to the sea-level pressure than to the shop's own, and by more than weather explains.
  if (above < Math.max(weatherHpa * 0.9, 0.6 * (1013.25 - usual))) return undefined;
  return {
    id: 'pressure-looks-sea-level',
    severity: 'stop',
    figure: Math.round(above),
    unit: 'hPa',
    message: say`${quantity(air.pressureHpa, 'hPa')} is ${quantity(above, 'hPa')} above what is usual at ${String(Math.round(altitudeM))} m: it looks like a sea-level figure. Enter the pressure at the shop (about ${quantity(stationPressureHpa(air.pressureHpa, altitudeM), 'hPa')} if so).`,
  };
}
