import type { DynoProfile } from '../dyno/dyno-profile.ts';
import { chance } from './chance.ts';
import type { GeneratedRun } from './pull-options.ts';

// Taken out once: Jest looks a global up anew at every use, and a pull is stepped thousands of times.
const { exp, max, min, sin } = Math;

/** Kinds of healthy engine whose torque falls, or whose readings wander, by their nature. */
export const otherEngines = [
  'tuned diesel',
  'governed diesel',
  'commercial diesel',
  'electric',
  'constant power',
  'rotary',
  'two-stroke',
  'automatic gearbox',
  'pink load cell',
] as const;
export type OtherEngine = (typeof otherEngines)[number];

/** 0 below −1, 1 above 1, without a corner between: 10 to 90 % of it over 1.1. */
const soft = (x: number) => 1 / (1 + exp(-4 * x));

/** A level until a corner, then as `beyond` says, the corner rounded over some rpm. */
function cornered(rpm: number, atRpm: number, roundRpm: number, beyond: (rpm: number) => number): number {
  const share = soft((rpm - atRpm) / max(1, roundRpm));
  return 1 - share + share * beyond(max(rpm, atRpm));
}

/**
 * A healthy pull of such an engine, drawn anew for each seed: on a loaded roller or a hub pair, 20 to 300 rpm/s.
 * @param slowest the least ramp that is drawn, rpm/s: slow pulls take long to make
 */
export function otherEngine(kind: OtherEngine, seed: number, slowest = 20): GeneratedRun {
  const random = chance(seed * 127 + otherEngines.indexOf(kind) * 7919 + 11);
  const between = (least: number, most: number) => least + random() * (most - least);
  const hub = random() < 0.5;
  const dyno: DynoProfile = hub
    ? {
        kind: 'hub',
        inertiaKgM2: between(1.8, 2.5),
        parasitic: { aNm: 1, bNmPerRadS: 0.02, cNmPerRadS2: 0 },
        coastAbsorberNm: 120,
      }
    : {
        kind: 'loaded-roller',
        radiusM: 0.16,
        loadCellLagS: between(0.02, 0.08),
        inertiaKgM2: between(5, 9),
        parasitic: { aNm: 6, bNmPerRadS: 0.045, cNmPerRadS2: 0.0006 },
        coastAbsorberNm: 60,
      };
  const engine = shape(kind, between, random);
  // Nobody pulls for three minutes.
  const least = max(slowest, (engine.toRpm - engine.fromRpm) / 170);
  const rampRpmPerS = least * (300 / least) ** random();
  const top = engine.topNm * (hub ? 1 : 0.55);
  return {
    seed,
    stepHz: 400,
    rateHz: rampRpmPerS < 60 ? 50 : [50, 100, 200][Math.floor(3 * random())]!,
    dyno,
    ratio: engine.ratio * (hub ? 1 : 0.55),
    creep: hub ? 0 : between(0.003, 0.02),
    fromRpm: engine.fromRpm,
    toRpm: engine.toRpm,
    rampRpmPerS,
    leadInS: 1,
    coastS: 1.2,
    throttle: random() < 0.4,
    speedNoise: between(0.01, 0.03),
    slowSpeedNoise: between(0, 0.01),
    controlNoiseNm: top * between(0.001, 0.006),
    loadCellNoiseNm: top * between(0.001, 0.004),
    // A converter slips at first and is locked, or coupled, by the top.
    ...(kind === 'automatic gearbox' ? { faults: { converter: { share: between(0.05, 0.3) } } } : {}),
    ...(kind === 'pink load cell' ? { pinkCellNoiseNm: top * between(0.003, 0.012) } : {}),
    drumTorque: (rpm) => top * engine.torque(rpm),
  };
}

interface Shape {
  fromRpm: number;
  toRpm: number;
  ratio: number;
  topNm: number;
  /** As a share of the highest. */
  torque: (rpm: number) => number;
}

function shape(kind: OtherEngine, between: (least: number, most: number) => number, random: () => number): Shape {
  const onset = between(1400, 1800);
  const spool = between(200, 380);
  const boosted = (rpm: number) => 0.45 + 0.55 * soft((rpm - onset) / spool);
  switch (kind) {
    case 'tuned diesel': {
      // Full torque to its corner, then the smoke map and the pump take more and more of it.
      const [at, steep, round] = [between(2700, 3600), between(0.4, 1.3), between(40, 300)];
      const toRpm = between(4300, 4900);
      const beyond = (rpm: number) => max(0.12, 1 - steep * ((rpm - at) / 2000) - 0.4 * ((rpm - at) / 1500) ** 2);
      return {
        fromRpm: 1300,
        toRpm,
        ratio: 4,
        topNm: 1400,
        torque: (rpm) => boosted(rpm) * cornered(rpm, at, round, beyond),
      };
    }
    case 'governed diesel': {
      // The governor takes torque away over its droop; the pull ends within it.
      const [rated, droop, tail] = [between(3600, 4200), between(150, 500), between(0.25, 0.7)];
      const sag = between(0.05, 0.3);
      return {
        fromRpm: 1300,
        toRpm: rated + droop * tail,
        ratio: 4,
        topNm: 1400,
        torque: (rpm) =>
          boosted(rpm) *
          (1 - sag * max(0, (rpm - 2200) / 1600) ** 1.4) *
          cornered(rpm, rated, 30, (at) => max(0.05, 1 - (at - rated) / droop)),
      };
    }
    case 'commercial diesel': {
      const [corner, rated, droop] = [between(1350, 1600), between(1900, 2300), between(120, 260)];
      // Constant power between corner and rated speed, then the governor.
      return {
        fromRpm: 900,
        toRpm: rated + droop * between(0.2, 0.6),
        ratio: 2.2,
        topNm: 4200,
        torque: (rpm) =>
          (0.6 + 0.4 * soft((rpm - 1050) / 130)) *
          cornered(rpm, corner, spool / 6, (at) => corner / at) *
          cornered(rpm, rated, 20, (at) => max(0.05, 1 - (at - rated) / droop)),
      };
    }
    case 'electric': {
      // Full torque from standstill, constant power from the corner, less beyond the second one.
      const [corner, second] = [between(2600, 4200), between(6500, 8200)];
      const round = between(20, 220);
      return {
        fromRpm: 1200,
        toRpm: between(6800, 8800),
        ratio: 6,
        topNm: 1900,
        torque: (rpm) =>
          cornered(rpm, corner, round, (at) => corner / at) * cornered(rpm, second, 80, (at) => second / at),
      };
    }
    case 'constant power': {
      const [corner, round] = [between(2300, 3600), between(10, 160)];
      return {
        fromRpm: 1500,
        toRpm: between(5200, 6300),
        ratio: 3.6,
        topNm: 1300,
        torque: (rpm) => boosted(rpm) * cornered(rpm, corner, round, (at) => corner / at),
      };
    }
    case 'rotary': {
      const hump = between(5200, 6600);
      return {
        fromRpm: 2500,
        toRpm: between(8200, 9200),
        ratio: 5,
        topNm: 1000,
        torque: (rpm) => 0.6 + 0.4 * exp(-(((rpm - hump) / 3200) ** 2)) + 0.01 * sin(rpm / 310),
      };
    }
    case 'two-stroke': {
      // The pipe comes in, and goes out of tune within a thousand rpm.
      const [on, off, width] = [between(6200, 7200), between(9000, 9800), between(80, 400)];
      const steep = between(0.3, 0.6);
      return {
        fromRpm: 4500,
        toRpm: off + between(500, 1100),
        ratio: 9,
        topNm: 330,
        torque: (rpm) =>
          (0.5 + 0.5 * soft((rpm - on) / 500)) *
          cornered(rpm, off, width, (at) => max(0.15, 1 - steep * ((at - off) / 1000))),
      };
    }
    case 'automatic gearbox':
      return {
        fromRpm: 1700,
        toRpm: between(5300, 6100),
        ratio: 4,
        topNm: 1200,
        torque: (rpm) => 1 - 0.2 * max(0, (rpm - 4000) / 1800),
      };
    case 'pink load cell':
      return {
        fromRpm: 1800,
        toRpm: between(5600, 6600),
        ratio: 3.8,
        topNm: 1100 * (0.8 + 0.4 * random()),
        torque: (rpm) => 0.8 + 0.2 * sin((min(rpm, 6000) - 1800) / 1500),
      };
  }
}
