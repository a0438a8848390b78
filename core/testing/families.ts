import type { DynoProfile } from '../dyno/dyno-profile.ts';
import { chance } from './chance.ts';
import type { GeneratedRun } from './pull-options.ts';

// Taken out once: Jest looks a global up anew at every use, and a pull is stepped thousands of times.
const { LN2, exp, floor, max, sin, sqrt } = Math;

/** A family of recordings: a machine and a kind of engine, drawn anew for each seed. */
export type Family = 'petrol-inertia' | 'turbo-loaded' | 'diesel-hub' | 'twin-inertia' | 'diesel-loaded' | 'petrol-hub';
export const families: readonly Family[] = ['petrol-inertia', 'turbo-loaded', 'diesel-hub', 'twin-inertia'];
/** Every kind of engine on every kind of machine that takes it: for the checks, which depend on both. */
export const allFamilies: readonly Family[] = [...families, 'diesel-loaded', 'petrol-hub'];

const rates = [50, 100, 200, 200, 500, 1000];

/** Two bell-shaped features on a torque curve: shares of it, at speeds, with full widths at half depth, rpm. */
const bell = (rpm: number, at: number, width: number) => exp(-4 * LN2 * ((rpm - at) / width) ** 2);

/**
 * A healthy pull of a family: rate, noises, creep, range and shape vary with the seed.
 */
export function healthyRun(family: Family, seed: number): GeneratedRun {
  const random = chance(seed * 31 + allFamilies.indexOf(family) * 1009 + 7);
  const between = (least: number, most: number) => least + random() * (most - least);
  const rateHz = rates[floor(random() * rates.length)]!;
  const common = {
    seed,
    rateHz,
    creep: between(0.003, 0.028),
    jitterS: random() < 0.3 ? 0.15 / rateHz : 0,
    lostShare: random() < 0.3 ? between(0.005, 0.03) : 0,
    throttle: random() < 0.4,
    leadInS: between(0.8, 2),
    coastS: between(0.8, 2.5),
    shuffle: { hz: between(3, 7), amplitude: between(0.01, 0.06), decayS: between(0.15, 0.3) },
    ...(random() < 0.25 ? { feather: { share: between(0.3, 0.6), lastsS: between(0.4, 1) } } : {}),
    ...(random() < 0.15 && (family === 'petrol-inertia' || family === 'turbo-loaded') ? { stab: { toRpm: 2600 } } : {}),
  };
  // White noise of a reading is given per sample at 200 Hz; a faster instrument averages less.
  const perRate = sqrt(rateHz / 200);
  switch (family) {
    case 'petrol-inertia': {
      const [dip, ripple] = [between(0.01, 0.05), between(0.005, 0.02)];
      const [at, width] = [between(3400, 4600), between(230, 420)];
      const scale = between(0.8, 1.4);
      return {
        ...common,
        dyno: inertiaRoller(between(40, 70)),
        fromRpm: between(1900, 2300),
        toRpm: between(6300, 7000),
        speedNoise: between(0.008, 0.03) * perRate,
        drumTorque: (rpm) =>
          scale * (400 + 110 * sin((rpm - 2000) / 1650)) * (1 - dip * bell(rpm, at, width) + ripple * sin(rpm / 260)),
      };
    }
    case 'turbo-loaded': {
      const onset = between(2500, 3300);
      const scale = between(0.7, 1.3);
      return {
        ...common,
        dyno: {
          ...inertiaRoller(between(5, 8)),
          kind: 'loaded-roller',
          radiusM: 0.16,
          loadCellLagS: between(0.02, 0.08),
          coastAbsorberNm: 40,
        },
        ratio: between(2.1, 2.5),
        fromRpm: between(1900, 2200),
        toRpm: between(6500, 7100),
        rampRpmPerS: between(350, 600),
        speedNoise: between(0.01, 0.03) * perRate,
        slowSpeedNoise: between(0.005, 0.02),
        controlNoiseNm: between(2, 8),
        loadCellNoiseNm: between(1, 3) * perRate,
        drumTorque: (rpm) =>
          scale *
          (330 + 330 / (1 + exp(-(rpm - onset) / 180))) *
          (1 - 0.25 * max(0, (rpm - 5200) / 2000) ** 1.5) *
          (1 - 0.03 * bell(rpm, onset + 900, 260)),
      };
    }
    case 'diesel-hub': {
      const onset = between(1500, 1800);
      return {
        ...common,
        dyno: {
          kind: 'hub',
          inertiaKgM2: between(1.8, 2.5),
          parasitic: { aNm: 1, bNmPerRadS: 0.02, cNmPerRadS2: 0 },
          coastAbsorberNm: 120,
        },
        ratio: 4,
        creep: 0,
        fromRpm: between(1250, 1350),
        toRpm: between(4000, 4400),
        rampRpmPerS: between(200, 300),
        speedNoise: between(0.01, 0.03) * perRate,
        controlNoiseNm: between(8, 16),
        loadCellNoiseNm: between(2, 5) * perRate,
        drumTorque: (rpm) =>
          (640 + 800 / (1 + exp(-(rpm - onset) / 110))) * (1 - 0.3 * max(0, (rpm - 2600) / 1800) ** 1.6),
      };
    }
    case 'diesel-loaded': {
      const onset = between(1500, 1800);
      return {
        ...common,
        dyno: {
          ...inertiaRoller(between(5, 8)),
          kind: 'loaded-roller',
          radiusM: 0.16,
          loadCellLagS: between(0.02, 0.08),
          coastAbsorberNm: 60,
        },
        ratio: between(1.8, 2.2),
        fromRpm: between(1250, 1400),
        toRpm: between(4100, 4500),
        rampRpmPerS: between(200, 260),
        speedNoise: between(0.01, 0.03) * perRate,
        slowSpeedNoise: between(0.005, 0.02),
        controlNoiseNm: between(3, 9),
        loadCellNoiseNm: between(1, 3) * perRate,
        drumTorque: (rpm) =>
          (320 + 400 / (1 + exp(-(rpm - onset) / 110))) * (1 - 0.3 * max(0, (rpm - 2600) / 1800) ** 1.6),
      };
    }
    case 'petrol-hub': {
      const [at, width] = [between(3400, 4600), between(230, 420)];
      const dip = between(0.01, 0.05);
      return {
        ...common,
        dyno: {
          kind: 'hub',
          inertiaKgM2: between(1.8, 2.5),
          parasitic: { aNm: 1, bNmPerRadS: 0.02, cNmPerRadS2: 0 },
          coastAbsorberNm: 120,
        },
        ratio: between(3.6, 4.4),
        creep: 0,
        fromRpm: between(1900, 2300),
        toRpm: between(6300, 7000),
        rampRpmPerS: between(350, 550),
        speedNoise: between(0.01, 0.03) * perRate,
        controlNoiseNm: between(6, 12),
        loadCellNoiseNm: between(2, 4) * perRate,
        drumTorque: (rpm) => (700 + 190 * sin((rpm - 2000) / 1650)) * (1 - dip * bell(rpm, at, width)),
      };
    }
    case 'twin-inertia': {
      const [at, depth] = [between(5200, 6200), between(0.04, 0.09)];
      return {
        ...common,
        dyno: inertiaRoller(between(8, 14)),
        ratio: between(8, 10),
        fromRpm: between(3200, 3800),
        toRpm: between(10200, 11000),
        speedNoise: between(0.01, 0.03) * perRate,
        drumTorque: (rpm) => (150 + 70 * sin((rpm - 3500) / 3100)) * (1 - depth * bell(rpm, at, 500)),
      };
    }
  }
}

const inertiaRoller = (inertiaKgM2: number): DynoProfile => ({
  kind: 'inertia-roller',
  inertiaKgM2,
  radiusM: 0.2425,
  parasitic: { aNm: 6, bNmPerRadS: 0.045, cNmPerRadS2: 0.0006 },
});
