import { written } from '../../sentence/sentence.ts';
import { describe, expect, test } from '@jest/globals';
import { fuelSupply, type FuelHardware } from './fuel-supply.ts';
import type { LoggedChannel } from './log-view.ts';
import { noSeries } from '../pull/series.ts';

const rpm = Float64Array.from({ length: 41 }, (_, index) => 2000 + 100 * index);
const channel = (name: string, at: (rpm: number) => number): LoggedChannel => ({
  name,
  unit: '',
  speed: { x: rpm, values: rpm.map(at) },
  time: noSeries,
  least: NaN,
  most: NaN,
});
const engine = { ignition: 'spark', boosted: true, ethanolPct: 0, limits: {} } as const;
const none: FuelHardware = {
  injectors: null,
  injectorFlowCcMin: null,
  injectorRatedKpa: null,
  pumpFlowLh: null,
  pumpRatedKpa: null,
};
/** 20 g/s at 2,000 rpm, 100 at 6,000, at λ 0.8: 100 ÷ (0.8 × 14.7) = 8.50 g/s = 41.1 L/h of 0.745 kg/L. */
const air = [channel('airMassFlow', (at) => at / 50 - 20), channel('lambda', () => 0.8)];
const asked = { channels: air, engine, regulation: null, hardware: none };

describe('fuel needed', () => {
  test('is the air over λ and the stoichiometric ratio', () => {
    const found = fuelSupply(asked)!;
    expect(found.neededLh).toBeCloseTo((100 / (0.8 * 14.7) / 0.745) * 3.6, 6);
    expect(found.atRpm).toBe(6000);
    expect(found.measured).toBe(true);
    expect(found.rests).toBe('air flow ÷ (λ × 14.7, petrol)');
    expect(found.injectors).toBeUndefined();
  });

  test('without λ a usual one is assumed, and said to be', () => {
    const found = fuelSupply({ ...asked, channels: air.slice(0, 1) })!;
    expect(found.measured).toBe(false);
    expect(found.rests).toContain('λ 0.82, assumed');
  });

  test('without air flow it is power times a usual consumption; more of a blend', () => {
    const power = { engineSpeedRpm: rpm, powerKw: rpm.map((at) => at / 60) };
    const petrol = fuelSupply({ ...asked, channels: [], power })!;
    expect(petrol.neededLh).toBeCloseTo((100 * 0.35) / 0.745, 6);
    expect(petrol.measured).toBe(false);
    const blend = fuelSupply({ ...asked, channels: [], power, engine: { ...engine, ethanolPct: 85 } })!;
    expect(blend.neededLh / petrol.neededLh).toBeCloseTo(1.43, 2);
    const burnt = fuelSupply({
      ...asked,
      channels: [],
      power,
      engine: { ...engine, ignition: 'compression', ethanolPct: null },
    })!;
    expect(burnt.neededLh).toBeCloseTo((100 * 0.255) / 0.835, 6);
    expect(fuelSupply({ ...asked, channels: [] })).toBeUndefined();
  });
});

describe('what is given', () => {
  const hardware = { injectors: 4, injectorFlowCcMin: 150, injectorRatedKpa: 300, pumpFlowLh: 40, pumpRatedKpa: 300 };

  test('injectors as rated give 36 L/h: they end where more is needed', () => {
    const { injectors, pump } = fuelSupply({ ...asked, hardware })!;
    expect(injectors!.givesLh).toBeCloseTo(36, 6);
    expect(injectors!.share).toBeCloseTo(41.09 / 36, 3);
    // 36 L/h are 87.6 g/s of air, at 5,380 rpm.
    expect(injectors!.endsRpm).toBe(5400);
    expect(pump!.endsRpm).toBe(5900);
    expect(injectors!.rests).toContain('not known');
  });

  test('with the root of the pressure across them, rail less manifold', () => {
    const channels = [...air, channel('boost', () => 100), channel('fuelPressure', () => 532)];
    const { injectors, pump, acrossKpa } = fuelSupply({ ...asked, channels, hardware })!;
    expect(acrossKpa).toBeCloseTo(432, 6);
    expect(injectors!.givesLh).toBeCloseTo(36 * 1.2, 6);
    expect(injectors!.endsRpm).toBeUndefined();
    expect(written(pump!.rests)).toBe('as rated at 300 kPa: at 532 kPa it gives less');
  });

  test('a manifold told from nothing is taken less the air’s own pressure', () => {
    const channels = [...air, channel('manifoldPressure', () => 98), channel('fuelPressure', () => 300)];
    expect(fuelSupply({ ...asked, channels, hardware })!.acrossKpa).toBeCloseTo(302, 6);
  });

  test('another step of boost needs more by the absolute pressure', () => {
    const channels = [...air, channel('boost', () => 100)];
    const { next, neededLh, pump } = fuelSupply({ ...asked, channels, hardware, stepKpa: 20 })!;
    expect(next!.neededLh).toBeCloseTo(neededLh * 1.1, 6);
    expect(next!.pump).toBeCloseTo(1.1 * pump!.share, 6);
    expect(fuelSupply({ ...asked, hardware, stepKpa: 20 })!.next).toBeUndefined();
  });
});

test('what the rail should read is what its regulator held at the beginning, carried on', () => {
  const boost = channel('boost', (at) => (at - 2000) / 40);
  const sagging = channel('fuelPressure', (at) => 300 + (at - 2000) / 40 - Math.max(0, (at - 4000) / 20));
  const channels = [...air, boost, sagging];
  const found = fuelSupply({ ...asked, channels, regulation: 'manifold' })!;
  expect(found.railKpa).toBeCloseTo(300, 6);
  expect(found.expectedKpa).toBeCloseTo(400, 6);
  expect(fuelSupply({ ...asked, channels, regulation: 'constant' })!.expectedKpa).toBeLessThan(310);
  expect(fuelSupply({ ...asked, channels, regulation: null })!.expectedKpa).toBeUndefined();
  const target = channel('fuelPressureTarget', () => 350);
  expect(fuelSupply({ ...asked, channels: [...channels, target], regulation: 'target' })!.expectedKpa).toBe(350);
});
