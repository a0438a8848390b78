import { written } from '../core/sentence/sentence.ts';
import {
  densityAltitudeM,
  densityKgM3,
  dryPressureHpa,
  stationPressureHpa,
  vapourPressureHpa,
  type Air,
} from '../core/air/air.ts';
import { correctionOf, standardIds, standards } from '../core/air/correction.ts';
import { round } from '../core/exchange/results/curve-json.ts';
import { Refusal } from '../core/refusal.ts';
import { convert, dimensionOf, unitFromSpelling, type UnitName } from '../core/units/units.ts';
import { standardNamed } from './input.ts';
import { sortedWords, wordOf, type Words } from './words.ts';

export const airUsage = `suvok air --temperature 24 --pressure 1008 --humidity 45 [--standard ID]
          [--sea-level-pressure 1018 --altitude 350]
    Dry pressure, density and the correction factors for air at the inlet. Numbers are °C, hPa and %, or carry
    their unit: 75F, 29.77inHg, 100.8kPa. Of a sea-level pressure and the altitude the station pressure is made.`;

/** `suvok air`: what the air is, and what each standard makes of it. */
export function airCommand(words: readonly string[]) {
  const sorted = sortedWords(words, [
    'temperature',
    'pressure',
    'humidity',
    'standard',
    'sea-level-pressure',
    'altitude',
  ]);
  if (sorted.before.length > 0) throw new Refusal(`"${sorted.before[0]}" follows no option. ${airUsage}`);
  const air: Air = {
    temperatureC: quantity(sorted, 'temperature', '°C', -60, 80),
    pressureHpa: pressureOf(sorted),
    relativeHumidityPct: quantity(sorted, 'humidity', '%', 0, 100),
  };
  const only = wordOf(sorted, 'standard');
  const chosen = only === undefined ? standardIds : [standardNamed(only)];
  const density = densityKgM3(air);
  return {
    air,
    vapourPressureHpa: round(vapourPressureHpa(air), 3),
    dryPressureHpa: round(dryPressureHpa(air), 3),
    densityKgM3: round(density, 5),
    densityAltitudeM: round(densityAltitudeM(density), 1),
    factors: Object.fromEntries(
      chosen.map((id) => {
        const { factor, valid, remark = null } = correctionOf(id, air);
        return [id, { name: standards[id].name, factor: round(factor, 5), valid, remark: remark && written(remark) }];
      }),
    ),
  };
}

function pressureOf(words: Words): number {
  const atSea = wordOf(words, 'sea-level-pressure');
  if (atSea === undefined) return quantity(words, 'pressure', 'hPa', 300, 1200);
  if (wordOf(words, 'pressure') !== undefined) {
    throw new Refusal('Give the pressure at the shop or the sea-level one, not both.');
  }
  return round(
    stationPressureHpa(
      quantity(words, 'sea-level-pressure', 'hPa', 800, 1200),
      quantity(words, 'altitude', 'm', -500, 6000),
    ),
    2,
  );
}

function quantity(words: Words, name: string, unit: UnitName | 'm', least: number, most: number): number {
  const text = wordOf(words, name);
  if (text === undefined) throw new Refusal(`Give --${name}. ${airUsage.split('\n')[0]}`);
  const found = /^\s*([+-]?\d+(?:[.,]\d+)?)\s*(.*?)\s*$/.exec(text);
  const written = found?.[2] ?? '';
  const source = written === '' || written === unit ? unit : unitFromSpelling(written);
  const fits =
    found &&
    source !== undefined &&
    (source === unit || (unit !== 'm' && source !== 'm' && dimensionOf(source) === dimensionOf(unit)));
  if (!fits) throw new Refusal(`--${name} takes a number of ${unit}, or one with its unit, not "${text}".`);
  const number = Number(found[1]!.replace(',', '.'));
  const value = source === unit ? number : convert(number, source as UnitName, unit as UnitName);
  if (value < least || value > most) throw new Refusal(`--${name} of ${text} is outside ${least} to ${most} ${unit}.`);
  return value;
}
