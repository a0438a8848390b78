import type { ConfigureMessage } from '../contract/instruments/bench-link.ts';
import type { Car } from './car.ts';

type Items = ConfigureMessage['items'];

/** What surrounds the engine and what it is given, apart from its setup. */
export interface Surroundings {
  /** Of the cell. */
  air: { temperatureC: number; dryHpa: number };
  inletC: number;
  /** Above the cell's pressure, kPa. */
  boostKpa?: number;
  /** As if the inlet were hotter by so much: poor fuel knocks as hot air does, °C. */
  knockC?: number;
  /** Added to λ by a fault. */
  leanBy?: number;
  /** What the fuel tables of its setup multiply the fuel by. */
  fuelShare?: number;
  /** What is left of pump and injectors, shares. */
  pumpShare?: number;
  injectorShare?: number;
}

/** An engine at full throttle, and all that a logger could read of it. */
export interface EngineState {
  /** At the crank, N·m. */
  torqueNm: number;
  ignitionBtdc: number;
  knockRetardDeg: number;
  lambda: number;
  lambdaTarget: number;
  /** g/s */
  airGramsPerS: number;
  fuelGramsPerS: number;
  fuelPressureKpa: number;
  injectorDutyPct: number;
  exhaustC: number;
}

/** Best power is made here; leaner and richer cost by the square of the distance. */
const bestLambda = 0.88;
const lambdaCost = { lean: 2.8, rich: 1.8 };
const stoichiometric = { petrol: 14.7, ethanol: 9, diesel: 14.5 };
const airGramsPerLitre = 1.17;

/** The state at full throttle of a car with a setup's items. */
export function engineAt(car: Car, items: Items, rpm: number, around: Surroundings): EngineState {
  const { air, inletC, boostKpa = 0, knockC = 0, leanBy = 0, fuelShare = 1, pumpShare = 1, injectorShare = 1 } = around;
  const breathing = breathingOf(car, items, rpm);
  const ambientKpa = air.dryHpa / 10;
  const filling = (ambientKpa + boostKpa) / ambientKpa;
  const density = (air.dryHpa / 990) * Math.sqrt(298.15 / (273.15 + inletC - 5));
  const airGramsPerS = (0.86 * breathing * filling * density * car.displacementL * airGramsPerLitre * rpm) / 120;

  const ethanol = car.fuel === 'petrol' ? ethanolOf(items) : 0;
  const stoich =
    car.fuel === 'diesel'
      ? stoichiometric.diesel
      : stoichiometric.petrol + (stoichiometric.ethanol - stoichiometric.petrol) * ethanol;
  const lambdaTarget = numeric(items, 'lambda-target', car.lambda, rpm);
  const wanted = airGramsPerS / (stoich * lambdaTarget);
  const delivered = Math.min(
    wanted,
    car.supply.pumpGramsPerS * pumpShare,
    car.supply.injectorGramsPerS * injectorShare,
  );
  const short = delivered / wanted;
  const expectedKpa = car.supply.baseKpa + (car.supply.follows ? boostKpa : 0);
  // What the pump cannot deliver leaves pressure by the square of the flow; full injectors leave it alone.
  const pumped = Math.min(1, (car.supply.pumpGramsPerS * pumpShare) / wanted);
  const wander = car.fuel === 'diesel' ? 0.02 * Math.sin(rpm / 500) : 0.012 * Math.sin(rpm / 700);
  const lambda =
    lambdaTarget / short / fuelShare + wander + (car.fuel === 'diesel' ? 0 : 0.0006 * (inletC - 30)) + leanBy;

  const { spark, ignitionBtdc, knockRetardDeg } =
    car.fuel === 'diesel'
      ? injectionOf(car, items, rpm)
      : ignitionOf(car, items, rpm, inletC + knockC, boostKpa, lambda - car.lambda, ethanol);
  const burnt = car.fuel === 'diesel' ? (car.lambda / lambda) ** 0.8 : mixtureShare(lambda, car.lambda);
  // Alcohol brings a little more energy with the same air, and cools it.
  const alcohol = 1 + 0.03 * ethanol;
  return {
    torqueNm: car.plainTorqueNm * breathing * filling ** 0.97 * spark * burnt * density * alcohol,
    ignitionBtdc,
    knockRetardDeg,
    lambda,
    lambdaTarget,
    airGramsPerS,
    fuelGramsPerS: delivered,
    fuelPressureKpa: expectedKpa * pumped ** 2,
    injectorDutyPct: Math.min(99, 100 * (delivered / (car.supply.injectorGramsPerS * injectorShare)) + 4),
    exhaustC:
      (car.fuel === 'diesel' ? 690 - 260 * (lambda - 1.28) : 760 + 300 * (lambda - 0.85)) +
      0.025 * rpm +
      0.6 * boostKpa +
      9 * knockRetardDeg,
  };
}

/** What the turbo reaches at full throttle once it has come up, kPa: its target, as far as the exhaust's energy goes. */
export function boostGoal(car: Car, items: Items, rpm: number, retardDeg = 0): number {
  const { turbo } = car;
  if (!turbo) return 0;
  const target = boostTarget(car, items, rpm);
  // Turbine power grows with the square of the flow; late burning leaves it more heat.
  const energy = (rpm / turbo.spoolRpm) ** 4 * (1 + 0.012 * retardDeg);
  const tired = Math.max(0, rpm - turbo.tiredRpm) / 1000;
  const possible = ((1.7 * turbo.targetKpa * energy) / (1 + energy)) * (1 - 0.45 * tired ** 2);
  return Math.max(0, Math.min(target, possible));
}

/** What the controller asks of the turbo, kPa. */
export function boostTarget(car: Car, items: Items, rpm: number): number {
  return numeric(items, 'boost', car.turbo?.targetKpa ?? 0, rpm);
}

function breathingOf(car: Car, items: Items, rpm: number): number {
  let breathing = 1;
  for (const hump of car.humps) breathing += hump.height * bell((rpm - hump.atRpm) / hump.widthRpm);
  const over = Math.max(0, rpm - car.chokeRpm) / 1000;
  breathing -= car.chokePerKrpm2 * over * over;
  const length = numeric(items, 'intake-length', car.intakeMm, rpm);
  // A pipe's pulse comes back in a time proportional to its length; a shorter one helps later.
  const pulseRpm = (car.pulseRpm * car.intakeMm) / Math.max(60, length);
  breathing += car.pulseHeight * bell((rpm - pulseRpm) / (0.17 * pulseRpm));
  // An intake cam turned earlier fills better below, later above.
  const cam = numeric(items, 'intake-cam', 0, rpm);
  const middle = (car.sweepFromRpm + car.sweepToRpm) / 2;
  breathing += (0.004 * cam * (middle - rpm)) / (car.sweepToRpm - middle) - 0.00025 * cam * cam;
  const exhaustCam = numeric(items, 'exhaust-cam', 0, rpm);
  breathing -= 0.0002 * (exhaustCam - 3) ** 2 - 0.0018;
  return Math.max(0.2, breathing);
}

/** Degrees that the car's own map stands short of the best. */
function shortOfBest(car: Car, rpm: number): number {
  const [low, high] = car.shortOfBestDeg;
  return low + (high - low) * step((rpm - car.shortChangesRpm) / 250);
}

function ignitionOf(
  car: Car,
  items: Items,
  rpm: number,
  hotC: number,
  boostKpa: number,
  leaner: number,
  ethanol: number,
): { spark: number; ignitionBtdc: number; knockRetardDeg: number } {
  const short = shortOfBest(car, rpm);
  const advanced = items.reduce(
    (sum, item) =>
      sum + (item.kind === 'ignition' ? (item.by ?? 0) * (item.aboveRpm ? step((rpm - item.aboveRpm) / 150) : 1) : 0),
    0,
  );
  const usualKpa = car.turbo ? car.turbo.targetKpa : 0;
  // Hot, dense and lean charge knocks earlier; alcohol later: the margin past best ignition moves with it.
  const knockRetardDeg = Math.max(
    0,
    advanced -
      short -
      1.5 +
      0.06 * (hotC - 30) +
      0.09 * (boostKpa - usualKpa) +
      22 * Math.max(0, leaner - 0.02) -
      9 * ethanol,
  );
  // A controller that hears knock takes back more than it was given, and gives it back slowly.
  const fromBest = short - advanced + 2.6 * knockRetardDeg;
  return {
    spark: 1 - 0.0011 * fromBest * fromBest,
    ignitionBtdc:
      24 + 6 * step((rpm - 3500) / 900) - (car.turbo ? 0.12 * boostKpa : 0) - short + advanced - knockRetardDeg,
    knockRetardDeg,
  };
}

/** A diesel has injection in place of ignition: too early and too late both cost. */
function injectionOf(
  car: Car,
  items: Items,
  rpm: number,
): { spark: number; ignitionBtdc: number; knockRetardDeg: number } {
  const short = shortOfBest(car, rpm);
  const fromBest = short - numeric(items, 'injection-end', 0, rpm);
  return { spark: 1 - 0.0012 * fromBest * fromBest, ignitionBtdc: 0, knockRetardDeg: 0 };
}

/** Torque against what the car's own map makes of its mixture. */
function mixtureShare(lambda: number, mapped: number): number {
  const cost = (value: number) => (value > bestLambda ? lambdaCost.lean : lambdaCost.rich) * (value - bestLambda) ** 2;
  return Math.max(0.3, 1 - cost(lambda) + cost(mapped));
}

/** An item's value: what the car has, changed step by step, each above its engine speed. */
function numeric(items: Items, kind: Items[number]['kind'], standard: number, rpm: number): number {
  let value = standard;
  for (const item of items) {
    if (item.kind !== kind || !('by' in item || 'to' in item)) continue;
    const share = item.aboveRpm ? step((rpm - item.aboveRpm) / 150) : 1;
    value += share * (item.to === undefined ? (item.by ?? 0) : item.to - value);
  }
  return value;
}

/** Alcohol in the fuel last put in, as a share: `E85` and `85 % ethanol` are understood. */
function ethanolOf(items: Items): number {
  let share = 0.05;
  for (const item of items) {
    if (item.kind !== 'fuel' || !('name' in item)) continue;
    const found = /E\s?(\d{1,2})\b|(\d{1,2})\s*%?\s*(?:vol\s*)?ethanol/i.exec(item.name);
    share = found ? Number(found[1] ?? found[2]) / 100 : 0.05;
  }
  return share;
}

function bell(u: number): number {
  return Math.exp(-u * u);
}

function step(u: number): number {
  return 1 / (1 + Math.exp(-2 * u));
}
