import type { Car } from './car.ts';
import type { Chance } from './chance.ts';
import type { EngineState } from './engine.ts';
import type { Faults } from './faults.ts';

/** What the engine logger sees of the car at one moment. */
export interface CarReading {
  rpm: number;
  /** 0 to 1. */
  throttle: number;
  /** Engine speed as a share of the pull's top. */
  topShare: number;
  engine: EngineState | undefined;
  boostKpa: number;
  boostTargetKpa: number;
  /** Absolute, of the manifold and of the cell. */
  manifoldKpa: number;
  ambientKpa: number;
  /** λ ÷ target at part load: the fuel table's error, less what the setup corrected. */
  partLoadLean: number;
  /** Out of gear: what the mixture is, and the battery while the starter turns. */
  idle: { lambda: number; batteryV: number | undefined } | undefined;
  inletC: number;
  coolantC: number;
  oilC: number;
  ethanolPct: number;
}

/** Its clock began before the dyno's, and runs fast by so much. */
export const loggerAheadS = 41.37;
export const loggerDrift = 6e-5;
export const loggerRateHz = 50;
/** Its λ probe sits in the tailpipe: late by the way of the gas, and reading lean by the air mixed in. */
export const probe = { delayS: 0.16, offset: 0.004 };
/** Of that delay the probe's own first-order lag. */
const lagS = 0.06;
/** The gas comes that fast at this share of the engine's greatest flow, and slower at less, up to so many times. */
const quickFrom = 0.25;
const slowest = 4;

const both: { name: string; unit: string }[] = [
  { name: 'engineSpeed', unit: 'rpm' },
  { name: 'throttle', unit: '%' },
  { name: 'lambda', unit: '–' },
  { name: 'lambdaTarget', unit: '–' },
  { name: 'intakeTemperature', unit: '°C' },
  { name: 'coolantTemperature', unit: '°C' },
  { name: 'oilTemperature', unit: '°C' },
  { name: 'exhaustTemperature', unit: '°C' },
  { name: 'oilPressure', unit: 'kPa' },
  { name: 'fuelPressure', unit: 'kPa' },
  { name: 'injectorPulse', unit: 'ms' },
  { name: 'airMassFlow', unit: 'g/s' },
  { name: 'manifoldPressure', unit: 'kPa' },
  { name: 'fuelFlow', unit: 'g/s' },
  { name: 'crankcasePressure', unit: 'kPa' },
  { name: 'batteryVoltage', unit: 'V' },
];
const petrol = [
  { name: 'ignitionAdvance', unit: '°BTDC' },
  { name: 'knockRetard', unit: '°' },
  { name: 'injectorDuty', unit: '%' },
  { name: 'fuelTrimShort', unit: '%' },
  { name: 'fuelTrimLong', unit: '%' },
  { name: 'ethanolContent', unit: '%vol' },
];
const blown = [
  { name: 'boost', unit: 'kPa' },
  { name: 'boostTarget', unit: 'kPa' },
  { name: 'boostDuty', unit: '%' },
];

/** The channels that a car's controller offers. */
export function loggerChannels(car: Car): { name: string; unit: string }[] {
  return [
    ...both,
    ...(car.fuel === 'petrol' ? petrol : [{ name: 'railPressure', unit: 'MPa' }]),
    ...(car.turbo ? blown : []),
  ];
}

/** The stand-in engine logger: reads the car on a clock of its own. */
export class EngineLogger {
  /** λ on its way down the exhaust, oldest first. */
  private readonly pipe: { atS: number; lambda: number }[] = [];
  /** What the probe makes of it, and when it did last. */
  private probed: { atS: number; lambda: number } | undefined;

  constructor(private readonly chance: Chance) {}

  /** Device time of the logger at a time of the dyno. */
  clock(dynoS: number): number {
    return (dynoS + loggerAheadS) * (1 + loggerDrift);
  }

  /** One row in the order of `loggerChannels`. */
  read(car: Car, timeS: number, reading: CarReading, faults: Faults): number[] {
    const { engine, rpm, throttle, topShare } = reading;
    const open = throttle > 0.8;
    const noisy = (value: number, deviation: number, digits: number) =>
      Number((value + this.chance.normal(deviation)).toFixed(digits));
    const [shortTrim, longTrim] = [noisy(0.6, 0.5, 1), noisy(open ? faults.longTrim(topShare) : 1.5, 0.1, 1)];
    const partLoad = (reading.idle?.lambda ?? reading.partLoadLean) / (1 + shortTrim / 100) / (1 + longTrim / 100);
    this.pipe.push({ atS: timeS, lambda: open ? (engine?.lambda ?? 1) : car.fuel === 'diesel' ? 2.2 : partLoad });
    const read = this.atProbe(timeS, (rpm / car.sweepToRpm) * (reading.manifoldKpa / reading.ambientKpa));
    // What the cylinders take in follows the manifold.
    const filled = open ? 1 : Math.min(1, reading.manifoldKpa / (reading.ambientKpa + reading.boostKpa));
    const duty = Math.max(2, filled * (engine?.injectorDutyPct ?? 6));
    const most = 0.62 * car.displacementL * (car.turbo ? 2 : 1) * 1.17 * (car.sweepToRpm / 120);
    const mixture = open ? (engine?.lambda ?? 1) : car.fuel === 'diesel' ? 2.2 : partLoad;
    const burnt = (filled * (engine?.airGramsPerS ?? 0)) / ((car.fuel === 'diesel' ? 14.5 : 14.1) * mixture);
    const flow = noisy(filled * (engine?.airGramsPerS ?? 0), 0.3, 1);
    const values: Record<string, number> = {
      engineSpeed: noisy(rpm, 4, 0),
      throttle: noisy(throttle * 100, 0.2, 1),
      lambda: noisy(read + probe.offset, 0.004, 3),
      lambdaTarget: Number((open ? (engine?.lambdaTarget ?? 1) : 1).toFixed(3)),
      intakeTemperature: noisy(reading.inletC, 0.1, 1),
      coolantTemperature: noisy(reading.coolantC, 0.1, 1),
      oilTemperature: noisy(reading.oilC, 0.1, 1),
      exhaustTemperature: noisy(open ? (engine?.exhaustC ?? 500) : 420, 2, 0),
      oilPressure: faults.has('dead sensor') ? 412 : noisy(130 + 300 * topShare, 4, 0),
      fuelPressure: noisy(open ? (engine?.fuelPressureKpa ?? 0) : car.supply.baseKpa, 2, 0),
      injectorPulse: noisy((duty * 1200) / Math.max(600, rpm) / (car.fuel === 'diesel' ? 6 : 1), 0.03, 2),
      airMassFlow: faults.has('sensor at its ceiling') ? Math.min(flow, Number(most.toFixed(1))) : flow,
      crankcasePressure: noisy(0.3 + 0.9 * throttle * topShare, 0.03, 2),
      batteryVoltage: noisy(reading.idle?.batteryV ?? faults.batteryV, 0.03, 2),
      fuelFlow: noisy(burnt, 0.012 * burnt, 3),
      ignitionAdvance: noisy(open ? (engine?.ignitionBtdc ?? 10) : 14, 0.1, 1),
      knockRetard: Number((open ? (engine?.knockRetardDeg ?? 0) : 0).toFixed(1)),
      injectorDuty: noisy(duty, 0.4, 1),
      fuelTrimShort: shortTrim,
      fuelTrimLong: longTrim,
      ethanolContent: noisy(reading.ethanolPct, 0.2, 1),
      boost: noisy(reading.boostKpa, 0.8, 1),
      boostTarget: Number((open ? reading.boostTargetKpa : 0).toFixed(0)),
      boostDuty: noisy(open ? 35 + 30 * topShare : 0, 0.5, 0),
      manifoldPressure: noisy(reading.manifoldKpa, 0.4, 1),
      railPressure: noisy(open ? 90 + 70 * topShare : 38, 0.5, 1),
    };
    return loggerChannels(car).map(({ name }) => values[name]!);
  }

  /** λ as the probe has it now. @param flow of the exhaust, as a share of the engine's greatest */
  private atProbe(timeS: number, flow: number): number {
    const transportS = (probe.delayS - lagS) * Math.max(1, Math.min(slowest, quickFrom / Math.max(flow, 0.01)));
    const { pipe } = this;
    while (pipe.length > 1 && pipe[1]!.atS <= timeS - transportS) pipe.shift();
    const arriving = pipe[0]!.lambda;
    const before = this.probed;
    const follows = before ? 1 - Math.exp(-Math.max(0, timeS - before.atS) / lagS) : 1;
    const lambda = before ? before.lambda + follows * (arriving - before.lambda) : arriving;
    this.probed = { atS: timeS, lambda };
    return lambda;
  }
}
