import { written } from '../sentence/sentence.ts';
import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  densityAltitudeM,
  densityKgM3,
  dryPressureHpa,
  stationPressureHpa,
  vapourPressureFromWetBulbHpa,
  vapourPressureHpa,
  saturationPressureHpa,
} from './air.ts';
import { correctionOf, standards, standardIds, type StandardId } from './correction.ts';
import { dieselAssumed } from '../checks/air-checks.ts';
import { usualStandard } from './usual-standard.ts';

const warm = { temperatureC: 31, pressureHpa: 1002, relativeHumidityPct: 48 };
const cold = { temperatureC: 5, pressureHpa: 1030, relativeHumidityPct: 90 };
const engine = { turbocharged: true };

describe('air', () => {
  test('check values of the domain', () => {
    expect(vapourPressureHpa(warm)).toBeCloseTo(21.58, 2);
    expect(dryPressureHpa(warm)).toBeCloseTo(980.42, 2);
    expect(densityKgM3(warm)).toBeCloseTo(1.1383, 4);
    expect(densityAltitudeM(1.1383)).toBeCloseTo(758, 0);
  });

  test('the sea-level figure falls by about 12 hPa over the first 100 m', () => {
    expect(1013.25 - stationPressureHpa(1013.25, 100)).toBeCloseTo(12, 0);
    expect(stationPressureHpa(1013.25, 0)).toBeCloseTo(1013.25, 10);
  });

  test('a wet bulb as warm as the dry one means saturated air', () => {
    expect(vapourPressureFromWetBulbHpa(20, 20, 1000, 'aspirated')).toBeCloseTo(saturationPressureHpa(20), 10);
    expect(vapourPressureFromWetBulbHpa(25, 18, 1000, 'natural')).toBeLessThan(
      vapourPressureFromWetBulbHpa(25, 18, 1000, 'aspirated'),
    );
  });
});

describe('correction', () => {
  test.each<[StandardId, number, number]>([
    ['sae-j1349', 1.0235, 0.9239],
    ['std-j607', 1.0608, 0.973],
    ['din-70020', 1.0298, 0.958],
    ['iso-1585-si', 1.0239, 0.9231],
  ])('%s at the check values', (id, inWarm, inCold) => {
    expect(standards[id].factor(warm, engine)).toBeCloseTo(inWarm, 4);
    // The domain rounds its cold row to four places.
    expect(Math.abs(standards[id].factor(cold, engine) - inCold)).toBeLessThan(1.5e-4);
  });

  test('J607 reads 1.0401 at the reference air of J1349', () => {
    const reference = { temperatureC: 25, pressureHpa: 990, relativeHumidityPct: 0 };
    expect(standards['sae-j1349'].factor(reference, engine)).toBeCloseTo(1, 10);
    expect(standards['std-j607'].factor(reference, engine)).toBeCloseTo(1.0401, 4);
  });

  test('the diesel exponent is 0.3 below 40 mg and where fuel is unknown, 1.2 above 65', () => {
    const factor = (correctedFuelMgPerLitreCycle?: number) =>
      standards['iso-1585-ci'].factor(
        warm,
        correctedFuelMgPerLitreCycle === undefined ? engine : { turbocharged: true, correctedFuelMgPerLitreCycle },
      );
    expect(factor()).toBe(factor(39));
    expect(Math.log(factor(70)) / Math.log(factor(39))).toBeCloseTo(4, 6);
    expect(Math.log(factor(50)) / Math.log(factor(39))).toBeCloseTo((0.036 * 50 - 1.14) / 0.3, 6);
    expect(standards['iso-1585-ci'].factor(warm, { turbocharged: false })).not.toBe(factor());
  });

  test('without air nothing is corrected, and that is not valid', () => {
    expect(correctionOf('sae-j1349', undefined)).toMatchObject({ factor: 1, valid: false, standard: 'none' });
    expect(correctionOf('none', undefined)).toMatchObject({ factor: 1, valid: true });
  });

  test('air outside a standard is computed and marked', () => {
    const correction = correctionOf('sae-j1349', cold);
    expect(correction.factor).toBeCloseTo(0.9239, 4);
    expect(correction.valid).toBe(false);
    expect(written(correction.remark ?? '')).toContain('15 to 35 °C');
    const dense = { temperatureC: 16, pressureHpa: 1080, relativeHumidityPct: 10 };
    expect(written(correctionOf('iso-1585-si', dense).remark ?? '')).toMatch(/its factor of 0\.88\d lies outside/);
  });

  test('thin or warm air always asks for more correction, and a share lies between none and all', () => {
    const air = fc.record({
      temperatureC: fc.double({ min: -10, max: 45, noNaN: true }),
      pressureHpa: fc.double({ min: 700, max: 1050, noNaN: true }),
      relativeHumidityPct: fc.double({ min: 0, max: 90, noNaN: true }),
    });
    fc.assert(
      fc.property(
        air,
        fc.constantFrom(...standardIds.filter((id) => id !== 'none')),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (at, id, share) => {
          const here = correctionOf(id, at).factor;
          expect(correctionOf(id, { ...at, pressureHpa: at.pressureHpa - 20 }).factor).toBeGreaterThan(here);
          expect(correctionOf(id, { ...at, temperatureC: at.temperatureC + 3 }).factor).toBeGreaterThan(here);
          expect(correctionOf(id, at, share).factor - 1).toBeCloseTo(share * (here - 1), 10);
        },
      ),
    );
  });
});

test('J1349 names what of the air lies outside of it, from the first hPa and degree on', () => {
  const remark = (temperatureC: number, dryHpa: number) =>
    written(correctionOf('sae-j1349', { temperatureC, pressureHpa: dryHpa, relativeHumidityPct: 0 }).remark ?? 'none');
  expect(remark(25, 1049)).toBe('none');
  expect(remark(25, 1051)).toMatch(/dry pressure is outside 900 to 1,?050 hPa/);
  expect(remark(25, 901)).toMatch(/factor of 1\.\d+ lies outside 0\.93 to 1\.07/);
  expect(remark(25, 899)).toMatch(/dry pressure is outside/);
  for (const inside of [15, 35]) expect(remark(inside, 990)).toBe('none');
  for (const outside of [14.9, 35.1]) expect(remark(outside, 990)).toMatch(/inlet air is outside 15 to 35 °C/);
});

describe('a diesel', () => {
  const hot = { temperatureC: 35, pressureHpa: 960 + 28.1, relativeHumidityPct: 50 };

  test('is corrected by how it is charged, and the assumed engine factor says how far it may be off', () => {
    const [turbo, plain] = [true, false].map((turbocharged) => correctionOf('iso-1585-ci', hot, 1, { turbocharged }));
    expect(turbo!.factor).not.toBeCloseTo(plain!.factor, 4);
    const said = dieselAssumed(turbo!, hot, 1, {})!;
    expect(said).toMatchObject({ id: 'diesel-factor-assumed', severity: 'mind' });
    expect(written(said.message)).toMatch(
      /\(fuel flow, boost and displacement tell it\): its engine factor is taken as 0\.3, which corrects by ×1\.02\d; with the most fuel it would be ×1\.0[78]\d\. Whether/,
    );
    expect(written(dieselAssumed(turbo!, hot, 1, { turbocharged: true })!.message)).not.toContain('Whether');
    expect(dieselAssumed(correctionOf('sae-j1349', hot), hot, 1, { turbocharged: true })).toBeUndefined();
  });

  test('whose fuel is logged is corrected by it, and nothing of it is assumed any more', () => {
    const engine = { turbocharged: true, correctedFuelMgPerLitreCycle: 55 };
    const found = correctionOf('iso-1585-ci', hot, 1, engine);
    // f_m = 0.036·55 − 1.14, by hand.
    const assumed = correctionOf('iso-1585-ci', hot, 1, { turbocharged: true });
    expect(Math.log(found.factor) / Math.log(assumed.factor)).toBeCloseTo(0.84 / 0.3, 9);
    expect(dieselAssumed(found, hot, 1, engine)).toBeUndefined();
    expect(written(dieselAssumed(found, hot, 1, { correctedFuelMgPerLitreCycle: 55 })!.message)).toMatch(
      /^Whether it is turbocharged is not written/,
    );
  });

  test('has a standard made for it, and no other engine has that one', () => {
    expect(usualStandard('sae-j1349', 'compression')).toBe('iso-1585-ci');
    expect(usualStandard('iso-1585-ci', 'spark')).toBe('iso-1585-si');
    expect(usualStandard('din-70020', 'compression')).toBe('din-70020');
    expect(usualStandard('sae-j1349', null)).toBe('sae-j1349');
    expect(usualStandard('iso-1585-ci', 'electric')).toBe('none');
  });
});

test.each([
  ['iso-1585-si', 14, 1000, 'inlet air is outside'],
  ['iso-1585-si', 36, 1000, 'inlet air is outside'],
  ['iso-1585-ci', 12, 1000, undefined],
  ['iso-1585-ci', 41, 1000, 'inlet air is outside'],
  ['iso-1585-ci', 25, 790, 'dry pressure is outside'],
] as const)('%s says what it allows: %d °C, %d hPa', (standard, temperatureC, pressureHpa, expected) => {
  const { remark } = correctionOf(standard, { temperatureC, pressureHpa, relativeHumidityPct: 10 });
  if (expected) expect(written(remark!)).toContain(expected);
  else expect(remark).toBeUndefined();
});
