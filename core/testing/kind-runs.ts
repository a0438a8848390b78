import type { Recording } from '../recording/recording.ts';
import { chance, normal, wandering } from './chance.ts';

/** Runs that are no sweeps, with known figures, for tests only. */

const made = (time: number[], channels: Record<string, [unit: string, values: number[]]>): Recording => ({
  time: Float64Array.from(time),
  channels: Object.entries(channels).map(([name, [unit, values]]) => ({
    name,
    unit,
    values: Float64Array.from(values),
  })),
});

export interface IdleRecipe {
  seed: number;
  seconds?: number;
  rpm?: number;
  spread?: number;
  /** Amplitude of a swing, rpm, and its period, s. */
  swing?: { rpm: number; periodS: number };
  /** Dips a minute. */
  dips?: number;
  lambda?: number;
}

export function idleRun({
  seed,
  seconds = 45,
  rpm = 860,
  spread = 6,
  swing,
  dips = 0,
  lambda = 1,
}: IdleRecipe): Recording {
  const random = chance(seed);
  const noise = normal(random);
  const wander = wandering(random, spread, 0.35);
  const time: number[] = [];
  const [speed, mixture] = [[] as number[], [] as number[]];
  let dipLeft = 0;
  for (let at = 0; at < seconds; at += 0.02) {
    if (dipLeft <= 0 && random() < (dips / 60) * 0.02) dipLeft = 0.24;
    dipLeft -= 0.02;
    time.push(at);
    speed.push(
      rpm +
        wander(0.02) +
        (swing ? swing.rpm * Math.sin((2 * Math.PI * at) / swing.periodS) : 0) -
        (dipLeft > 0 ? 90 : 0) +
        2 * noise(),
    );
    mixture.push(lambda + 0.004 * noise());
  }
  return made(time, { engineSpeed: ['rpm', speed], lambda: ['–', mixture], lambdaTarget: ['–', time.map(() => 1)] });
}

export interface StartRecipe {
  seed: number;
  crankingS?: number;
  lowestV?: number;
  flareRpm?: number;
  idleRpm?: number;
  coolantC?: number;
  stalls?: number;
}

/** Off for 2 s, cranked, running for 40 s. */
export function startRun(recipe: StartRecipe): Recording {
  const { seed, crankingS = 0.9, lowestV = 10.4, flareRpm = 500, idleRpm = 1150, coolantC = 12, stalls = 0 } = recipe;
  const random = chance(seed);
  const noise = normal(random);
  const [time, rpm, volts, coolant] = [[] as number[], [] as number[], [] as number[], [] as number[]];
  const startS = 2 + crankingS;
  for (let at = 0; at < startS + 40; at += 0.02) {
    const since = at - startS;
    const stalled = since > 3 && Math.floor((since - 3) / 4) < stalls && (since - 3) % 4 < 1.2;
    time.push(at);
    rpm.push(
      at < 2
        ? 0
        : since < 0
          ? 200 + 20 * Math.sin(38 * at)
          : stalled
            ? 0
            : idleRpm +
              flareRpm * Math.exp(-since / 1.2) * (1 - Math.exp(-since / 0.15)) -
              (idleRpm - 250) * Math.exp(-since / 0.12) +
              5 * noise(),
    );
    volts.push((at < 2 ? 12.5 : since < 0 ? lowestV + 0.25 : 13.8) + 0.05 * noise());
    coolant.push(coolantC + Math.max(0, since) * 0.02);
  }
  return made(time, { engineSpeed: ['rpm', rpm], batteryVoltage: ['V', volts], coolantTemperature: ['°C', coolant] });
}

export interface TransientRecipe {
  seed: number;
  /** Torque follows with this time constant, s, and boost with that one. */
  torqueS?: number;
  boostS?: number;
}

/** What the wheels' impulse is, and the channels; the throttle steps at 4 s and closes at 11 s. */
export function transientRun({ seed, torqueS = 0.25, boostS = 0.6 }: TransientRecipe) {
  const random = chance(seed);
  const noise = normal(random);
  const time: number[] = [];
  const [throttle, boost, impulse] = [[] as number[], [] as number[], [] as number[]];
  let whole = 0;
  for (let at = 0; at < 12; at += 0.01) {
    const since = at - 4;
    const torque = 40 + (since > 0 && at < 11 ? 160 * (1 - Math.exp(-since / torqueS)) : 0);
    whole += 0.01 * (torque + 3 * noise());
    time.push(at);
    throttle.push(at < 4 || at > 11 ? 15 : Math.min(100, 15 + since * 850));
    boost.push((since > 0 && at < 11 ? 80 * (1 - Math.exp(-since / boostS)) : 0) + 0.6 * noise());
    impulse.push(whole);
  }
  const recording = made(time, { throttle: ['%', throttle], boost: ['kPa', boost] });
  return { recording, wheels: { time: recording.time, impulse: Float64Array.from(impulse) } };
}

export interface CruiseRecipe {
  seed: number;
  seconds?: number;
  gramsPerS?: number;
  wheelKw?: number;
  /** Slow wander of the flow, as a share. */
  wander?: number;
  lambda?: number;
  metered?: boolean;
}

export function cruiseRun(recipe: CruiseRecipe) {
  const { seed, seconds = 190, gramsPerS = 1.2, wheelKw = 12, wander = 0.012, lambda = 1, metered = true } = recipe;
  const random = chance(seed);
  const noise = normal(random);
  const slow = wandering(random, wander, 25);
  const slowPower = wandering(random, 0.006, 6);
  const time: number[] = [];
  const [flow, power, mixture, pedal] = [[] as number[], [] as number[], [] as number[], [] as number[]];
  for (let at = 0; at < seconds; at += 0.05) {
    const share = 1 + slow(0.05);
    time.push(at);
    flow.push(gramsPerS * share * (1 + 0.02 * noise()));
    power.push(wheelKw * (1 + slowPower(0.05)));
    mixture.push(lambda + 0.004 * noise());
    pedal.push(22 + 0.3 * noise());
  }
  const recording = made(time, {
    lambda: ['–', mixture],
    lambdaTarget: ['–', time.map(() => 1)],
    throttle: ['%', pedal],
    ...(metered ? { fuelFlow: ['g/s', flow] } : { airMassFlow: ['g/s', flow.map((value) => value * 14.1)] }),
  });
  return {
    recording,
    wheels: { time: recording.time, powerKw: Float64Array.from(power), roadKmh: recording.time.map(() => 80) },
  };
}

export const cruiseFuel = { stoichiometric: 14.1, densityKgL: 0.75 };

export interface RoadRecipe {
  seed: number;
  /** How often the stretch is driven, there and back in turn. */
  passages?: number;
  /** Acceleration flat out at 100 km/h, m/s². */
  acceleration?: number;
  /** What the slope adds on the way there and takes on the way back, m/s². */
  slope?: number;
  coolantC?: number;
  throttleLogged?: boolean;
}

/** A drive on the road: from 40 km/h flat out to 130, back to 40, and again. */
export function roadDrive({
  seed,
  passages = 4,
  acceleration = 2,
  slope = 0.1,
  coolantC = 92,
  throttleLogged = true,
}: RoadRecipe): Recording {
  const noise = normal(chance(seed));
  const [time, speed, rpm, pedal, coolant] = [[], [], [], [], []] as number[][] as [
    number[],
    number[],
    number[],
    number[],
    number[],
  ];
  let at = 0;
  let kmh = 35;
  const sample = (throttle: number) => {
    time.push(at);
    speed.push((kmh + 0.1 * noise()) / 3.6);
    rpm.push(kmh * 38);
    pedal.push(throttle);
    coolant.push(Math.min(coolantC, 80 + at / 4));
    at += 0.1;
  };
  for (let passage = 0; passage < passages; passage++) {
    for (; kmh < 130; kmh += 0.36 * (acceleration + (passage % 2 === 0 ? slope : -slope))) sample(100);
    for (; kmh > 35; kmh -= 1) sample(0);
  }
  const { time: atS, channels } = made(time, {
    roadSpeed: ['m/s', speed],
    engineSpeed: ['rpm', rpm],
    coolantTemperature: ['°C', coolant],
  });
  const throttle = { name: 'throttle', unit: '%', values: Float64Array.from(pedal) };
  return { time: atS, channels: throttleLogged ? [...channels, throttle] : channels };
}
