/** A hump in the engine's breathing over engine speed. */
interface Hump {
  atRpm: number;
  widthRpm: number;
  height: number;
}

/** What blows a stand-in engine. */
export interface Turbo {
  /** What its controller asks for, kPa gauge. */
  targetKpa: number;
  /** Engine speed at which the exhaust's energy makes half of what the turbo can. */
  spoolRpm: number;
  /** Above this the turbine has had enough and boost falls away. */
  tiredRpm: number;
  /** How late boost follows, s. */
  lagS: number;
  /** The controller takes everything away above this, kPa. */
  cutKpa: number;
}

/** Pump and injectors. */
export interface FuelSupply {
  /** kPa gauge with no boost. */
  baseKpa: number;
  /** Whether the regulator adds boost. */
  follows: boolean;
  /** What the pump delivers at most, and the injectors together when they never close; g/s. */
  pumpGramsPerS: number;
  injectorGramsPerS: number;
}

/** A stand-in car: what its engine gives and what answers to a setup. Invented, like its name. */
export interface Car {
  /** Matched against the job's vehicle. */
  name: string;
  fuel: 'petrol' | 'diesel';
  displacementL: number;
  idleRpm: number;
  sweepFromRpm: number;
  sweepToRpm: number;
  /** Ignition is taken away above this. */
  limiterRpm: number;
  /** N·m at the crank with nothing tuned and no boost. */
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
  /** What the map aims at at full load. */
  lambda: number;
  turbo?: Turbo;
  supply: FuelSupply;
  /** It drives both axles. */
  allWheel?: boolean;
  /** A converter lets the engine run ahead by this share at the bottom of a pull. */
  converterShare?: number;
  engineInertiaKgM2: number;
  wheelInertiaKgM2: number;
  /** Engine speed ÷ drum speed without creep. */
  ratio: number;
  efficiency: number;
}

export const cars: Car[] = [
  {
    name: 'Tarrow Six hill-climb coupé',
    fuel: 'petrol',
    displacementL: 2,
    idleRpm: 1950,
    sweepFromRpm: 2000,
    sweepToRpm: 6850,
    limiterRpm: 7150,
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
    lambda: 0.885,
    supply: { baseKpa: 350, follows: false, pumpGramsPerS: 11, injectorGramsPerS: 11.5 },
    engineInertiaKgM2: 0.17,
    wheelInertiaKgM2: 1.8,
    ratio: 3.45,
    efficiency: 0.9,
  },
  {
    name: 'Ostrel 990 twin',
    fuel: 'petrol',
    displacementL: 0.99,
    idleRpm: 3420,
    sweepFromRpm: 3500,
    sweepToRpm: 10_900,
    limiterRpm: 11_300,
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
    lambda: 0.885,
    supply: { baseKpa: 300, follows: false, pumpGramsPerS: 9.2, injectorGramsPerS: 9.6 },
    engineInertiaKgM2: 0.045,
    wheelInertiaKgM2: 0.9,
    ratio: 5.1,
    efficiency: 0.92,
  },
  {
    name: 'Brindle 1.0 kit car, three-cylinder turbo',
    fuel: 'petrol',
    displacementL: 1,
    idleRpm: 1900,
    sweepFromRpm: 2000,
    sweepToRpm: 6300,
    limiterRpm: 6600,
    plainTorqueNm: 88,
    humps: [
      { atRpm: 4000, widthRpm: 1600, height: 0.08 },
      { atRpm: 5300, widthRpm: 260, height: -0.02 },
    ],
    chokeRpm: 4900,
    chokePerKrpm2: 0.06,
    pulseRpm: 4600,
    intakeMm: 300,
    pulseHeight: 0.015,
    shortOfBestDeg: [3, 5],
    shortChangesRpm: 3600,
    lambda: 0.83,
    turbo: { targetKpa: 85, spoolRpm: 2050, tiredRpm: 5900, lagS: 0.22, cutKpa: 135 },
    supply: { baseKpa: 350, follows: true, pumpGramsPerS: 9.4, injectorGramsPerS: 9 },
    engineInertiaKgM2: 0.11,
    wheelInertiaKgM2: 1.3,
    ratio: 3.7,
    efficiency: 0.91,
  },
  {
    name: 'Hallam 2.2 diesel minibus',
    allWheel: true,
    fuel: 'diesel',
    displacementL: 2.2,
    idleRpm: 1350,
    sweepFromRpm: 1500,
    sweepToRpm: 4150,
    limiterRpm: 4500,
    plainTorqueNm: 150,
    humps: [
      { atRpm: 2100, widthRpm: 900, height: 0.1 },
      { atRpm: 2750, widthRpm: 170, height: -0.025 },
    ],
    chokeRpm: 2700,
    chokePerKrpm2: 0.12,
    pulseRpm: 2600,
    intakeMm: 380,
    pulseHeight: 0.01,
    shortOfBestDeg: [3, 4],
    shortChangesRpm: 2600,
    lambda: 1.28,
    turbo: { targetKpa: 125, spoolRpm: 1420, tiredRpm: 3500, lagS: 0.28, cutKpa: 190 },
    supply: { baseKpa: 480, follows: false, pumpGramsPerS: 16, injectorGramsPerS: 18 },
    converterShare: 0.04,
    engineInertiaKgM2: 0.3,
    wheelInertiaKgM2: 3.4,
    ratio: 2.55,
    efficiency: 0.86,
  },
];

/** The car that a configure message speaks of; the first one when it names none of ours. */
export function carNamed(vehicle: string): Car {
  return cars.find((car) => car.name.toLowerCase() === vehicle.trim().toLowerCase()) ?? cars[0]!;
}
