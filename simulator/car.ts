import type { ConfigureMessage } from '../contract/bench-link.ts';

/** A hump in the engine's breathing over engine speed. */
interface Hump {
  atRpm: number;
  widthRpm: number;
  height: number;
}

/** A stand-in car: what its engine gives and what answers to a setup. Invented, like its name. */
export interface Car {
  /** Matched against the job's vehicle. */
  name: string;
  idleRpm: number;
  sweepFromRpm: number;
  sweepToRpm: number;
  /** N·m at the crank with nothing tuned. */
  plainTorqueNm: number;
  humps: Hump[];
  /** Above this breathing falls away by its square. */
  chokeRpm: number;
  chokePerKrpm2: number;
  /** Engine speed at which the intake's pulse helps most at its usual length, and that length, mm. */
  pulseRpm: number;
  intakeMm: number;
  pulseHeight: number;
  /** Degrees that the map stands short of best ignition, below and above this speed. */
  shortOfBestDeg: [number, number];
  shortChangesRpm: number;
  engineInertiaKgM2: number;
  wheelInertiaKgM2: number;
  /** Engine speed ÷ drum speed without creep. */
  ratio: number;
  efficiency: number;
}

export const cars: Car[] = [
  {
    name: 'Tarrow Six hill-climb coupé',
    idleRpm: 1950,
    sweepFromRpm: 2000,
    sweepToRpm: 6850,
    plainTorqueNm: 178,
    humps: [
      { atRpm: 4900, widthRpm: 1500, height: 0.17 },
      { atRpm: 3050, widthRpm: 500, height: 0.03 },
      { atRpm: 4150, widthRpm: 190, height: -0.035 },
    ],
    chokeRpm: 5000,
    chokePerKrpm2: 0.045,
    pulseRpm: 4300,
    intakeMm: 420,
    pulseHeight: 0.05,
    shortOfBestDeg: [1, 4.5],
    shortChangesRpm: 4000,
    engineInertiaKgM2: 0.17,
    wheelInertiaKgM2: 1.8,
    ratio: 3.45,
    efficiency: 0.9,
  },
  {
    name: 'Ostrel 990 twin',
    idleRpm: 3420,
    sweepFromRpm: 3500,
    sweepToRpm: 10_900,
    plainTorqueNm: 84,
    humps: [
      { atRpm: 8200, widthRpm: 2200, height: 0.22 },
      { atRpm: 6100, widthRpm: 420, height: -0.05 },
      { atRpm: 4600, widthRpm: 700, height: 0.05 },
    ],
    chokeRpm: 8700,
    chokePerKrpm2: 0.028,
    pulseRpm: 7800,
    intakeMm: 210,
    pulseHeight: 0.04,
    shortOfBestDeg: [1.5, 3],
    shortChangesRpm: 7000,
    engineInertiaKgM2: 0.045,
    wheelInertiaKgM2: 0.9,
    ratio: 5.1,
    efficiency: 0.92,
  },
];

/** The car that a configure message speaks of; the first one when it names none of ours. */
export function carNamed(vehicle: string): Car {
  return cars.find((car) => car.name.toLowerCase() === vehicle.trim().toLowerCase()) ?? cars[0]!;
}

type Items = ConfigureMessage['items'];

export interface EngineState {
  /** Torque at the crank at full throttle, N·m. */
  torqueNm: number;
  ignitionBtdc: number;
  knockRetardDeg: number;
  lambda: number;
}

/** Full-throttle torque of a car with a setup's items, in given air and heat. */
export function engineAt(
  car: Car,
  items: Items,
  rpm: number,
  air: { temperatureC: number; dryHpa: number },
  inletC: number,
  knockC = 0,
): EngineState {
  let breathing = 1;
  for (const hump of car.humps) breathing += hump.height * bell((rpm - hump.atRpm) / hump.widthRpm);
  const over = Math.max(0, rpm - car.chokeRpm) / 1000;
  breathing -= car.chokePerKrpm2 * over * over;
  const length =
    car.intakeMm + items.reduce((sum, item) => sum + (item.kind === 'intake-length' ? (item.by ?? 0) : 0), 0);
  // A pipe's pulse comes back in a time proportional to its length; a shorter one helps later.
  const pulseRpm = (car.pulseRpm * car.intakeMm) / Math.max(60, length);
  breathing += car.pulseHeight * bell((rpm - pulseRpm) / (0.17 * pulseRpm));

  const [low, high] = car.shortOfBestDeg;
  const short = low + (high - low) * step((rpm - car.shortChangesRpm) / 250);
  const advanced = items.reduce(
    (sum, item) =>
      sum + (item.kind === 'ignition' ? (item.by ?? 0) * (item.aboveRpm ? step((rpm - item.aboveRpm) / 150) : 1) : 0),
    0,
  );
  // Hot charge knocks earlier: the margin past best ignition shrinks with it.
  const knockRetardDeg = Math.max(0, advanced - short - 1.5 + 0.06 * (inletC + knockC - 30));
  // A controller that hears knock takes back more than it was given, and gives it back slowly.
  const fromBest = short - advanced + 2.6 * knockRetardDeg;
  const spark = 1 - 0.0011 * fromBest * fromBest;

  const density = (air.dryHpa / 990) * Math.sqrt(298.15 / (273.15 + inletC - 5));
  return {
    torqueNm: car.plainTorqueNm * breathing * spark * density,
    ignitionBtdc: 24 + 6 * step((rpm - 3500) / 900) - short + advanced - knockRetardDeg,
    knockRetardDeg,
    lambda: 0.885 + 0.012 * Math.sin(rpm / 700) + 0.0006 * (inletC - 30),
  };
}

function bell(u: number): number {
  return Math.exp(-u * u);
}

function step(u: number): number {
  return 1 / (1 + Math.exp(-2 * u));
}
