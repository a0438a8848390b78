import type { Recording } from '../recording/recording.ts';
import { chance, normal, wandering } from './chance.ts';

/**
 * Tests that are no sweeps as loggers of any kind write them, for tests and the
 * bench only: a truth in continuous time, read at a rate that begins anywhere,
 * in steps of the reading, with its noise. Runs of one seed's car repeat
 * themselves as cars do.
 */
export interface HowLogged {
  rateHz: number;
  /** Steps that readings are told in, by channel; not stepped where left out. */
  steps?: Readonly<Record<string, number>>;
  /** Noise of the reading, standard deviation, by channel. */
  noise?: Readonly<Record<string, number>>;
}

type Truth = Record<string, readonly [unit: string, valueAt: (s: number) => number]>;

/** A truth as it was logged; the first sample falls anywhere within an interval. */
function logged(truth: Truth, lastsS: number, { rateHz, steps = {}, noise = {} }: HowLogged, seed: number): Recording {
  const random = chance(seed * 31 + 7);
  const error = normal(chance(seed * 17 + 3));
  const interval = 1 / rateHz;
  const phase = random() * interval;
  const time = Float64Array.from({ length: Math.floor((lastsS - phase) * rateHz) }, (_, at) => phase + at * interval);
  const channels = Object.entries(truth).map(([name, [unit, valueAt]]) => {
    const step = steps[name] ?? 0;
    return {
      name,
      unit,
      values: time.map((s) => {
        const value = valueAt(s) + (noise[name] ?? 0) * error();
        return step > 0 ? Math.round(value / step) * step : value;
      }),
    };
  });
  return { time, channels };
}

/** What a car's starts have in common, drawn by the car; `cranksS` longer for a car that was changed for the worse. */
export function loggedStart(car: number, run: number, how: HowLogged, over: { cranksS?: number } = {}): Recording {
  const draw = chance(car * 101 + 5);
  const [cranks, lowest, idle, flare, settles] = [
    0.6 + draw(),
    9.8 + draw(),
    850 + 400 * draw(),
    200 + 400 * draw(),
    0.7 + draw(),
  ];
  const spread = 0.01 + 0.05 * draw();
  const own = normal(chance(car * 1009 + run * 13 + 1));
  const cranksS = (over.cranksS ?? 0) + cranks * (1 + spread * own());
  const lowestV = lowest + 0.08 * own();
  const idleRpm = idle * (1 + 0.2 * spread * own());
  const flareRpm = flare * (1 + spread * own());
  const settlesS = settles * (1 + spread * own());
  const beginsS = 2 + Math.abs(own());
  const startS = beginsS + cranksS;
  const rpm = (s: number) => {
    if (s < beginsS) return 0;
    if (s < startS) return 210 * (1 - Math.exp(-(s - beginsS) / 0.06)) + 18 * Math.sin(40 * s);
    const since = s - startS;
    const caught = 1 - Math.exp(-since / 0.12);
    return 210 + (idleRpm - 210 + flareRpm * Math.exp(-since / settlesS)) * caught + 4 * Math.sin(9 * s);
  };
  const volts = (s: number) => {
    if (s < beginsS) return 12.5;
    if (s < startS) return lowestV + 1.2 * (1 - Math.exp(-(s - beginsS) / 0.25)) + 0.1 * Math.sin(40 * s);
    return 13.9 - (13.9 - lowestV - 1.2) * Math.exp(-(s - startS) / 0.4);
  };
  return logged(
    {
      engineSpeed: ['rpm', rpm],
      batteryVoltage: ['V', volts],
      coolantTemperature: ['°C', (s) => 14 + 0.03 * Math.max(0, s - startS)],
    },
    startS + 30,
    how,
    car * 7919 + run,
  );
}

/** A drive with passages flat out, there and back; `faster` by a share for a car that was changed. */
export function loggedDrive(car: number, run: number, how: HowLogged, over: { faster?: number } = {}): Recording {
  const draw = chance(car * 211 + 9);
  const [usual, fades] = [1.6 + 2.4 * draw(), 60 + 80 * draw()];
  const spread = 0.002 + 0.008 * draw();
  const own = normal(chance(car * 2003 + run * 29 + 3));
  const pull = usual * (1 + (over.faster ?? 0)) * (1 + spread * own());
  // Stepped finely once, and read by interpolation: the truth has no rate.
  const [timeS, kmh, pedal] = [[0], [35], [0]];
  const stepS = 0.002;
  for (let passage = 0; passage < 4; passage++) {
    const slope = (passage % 2 === 0 ? 0.08 : -0.08) + 0.01 * own();
    for (const until of [130, 35]) {
      const flatOut = until === 130;
      while (flatOut ? kmh.at(-1)! < until : kmh.at(-1)! > until) {
        const speed = kmh.at(-1)!;
        const ms2 = flatOut ? pull * Math.exp(-(speed - 35) / fades) + slope : -2.5;
        kmh.push(speed + 3.6 * ms2 * stepS);
        pedal.push(flatOut ? 100 : 0);
        timeS.push(timeS.at(-1)! + stepS);
      }
    }
  }
  const at = (values: readonly number[]) => (s: number) => values[Math.min(values.length - 1, Math.round(s / stepS))]!;
  const recording = logged(
    { roadSpeed: ['km/h', at(kmh)], throttle: ['%', at(pedal)] },
    timeS.at(-1)!,
    how,
    car * 6007 + run,
  );
  return {
    time: recording.time,
    channels: recording.channels.map((channel) =>
      channel.name === 'roadSpeed'
        ? { ...channel, unit: 'm/s', values: channel.values.map((value) => value / 3.6) }
        : channel,
    ),
  };
}

/** An idle; `spreads` more by a factor for a car that was changed for the worse. */
export function loggedIdle(car: number, run: number, how: HowLogged, over: { spreads?: number } = {}): Recording {
  const draw = chance(car * 307 + 11);
  const [rpm, spread, hunts] = [750 + 300 * draw(), 3 + 8 * draw(), draw() < 0.3 ? 12 + 14 * draw() : 0];
  const own = normal(chance(car * 3001 + run * 37 + 5));
  const wander = wandering(chance(car * 4001 + run * 41 + 7), (over.spreads ?? 1) * spread * (1 + 0.08 * own()), 0.35);
  const stepS = 0.005;
  const lastsS = 45;
  const trace = Float64Array.from({ length: lastsS / stepS + 1 }, () => wander(stepS));
  const period = 1.5 + draw();
  const mean = rpm * (1 + 0.004 * own());
  return logged(
    {
      engineSpeed: ['rpm', (s) => mean + trace[Math.round(s / stepS)]! + hunts * Math.sin((2 * Math.PI * s) / period)],
      lambda: ['–', () => 1 + 0.004 * own()],
      batteryVoltage: ['V', () => 13.9],
    },
    lastsS,
    how,
    car * 5003 + run,
  );
}

/** A step of the throttle at a held speed: what the wheels' impulse is at the dyno's own rate, and the channels; `slower` in s. */
export function loggedResponse(car: number, run: number, how: HowLogged, over: { slowerS?: number } = {}) {
  const draw = chance(car * 401 + 13);
  const [torqueS, boostS] = [0.15 + 0.3 * draw(), 0.4 + 0.6 * draw()];
  const spread = 0.01 + 0.03 * draw();
  const own = normal(chance(car * 5009 + run * 43 + 9));
  const opensS = 4 + Math.abs(own()) / 3;
  const [torqueIs, boostIs] = [torqueS * (1 + spread * own()), boostS * (1 + spread * own()) + (over.slowerS ?? 0)];
  const risen = (tau: number) => (s: number) => (s < opensS || s > 11 ? 0 : 1 - Math.exp(-(s - opensS) / tau));
  const recording = logged(
    {
      throttle: ['%', (s) => (s < opensS || s > 11 ? 15 : Math.min(100, 15 + (s - opensS) * 850))],
      boost: ['kPa', (s) => 80 * risen(boostIs)(s)],
    },
    12,
    how,
    car * 8009 + run,
  );
  const noise = normal(chance(car * 9001 + run));
  let whole = 0;
  let last = 0;
  const impulse = recording.time.map((s) => {
    whole += (s - last) * (40 + 160 * risen(torqueIs + (over.slowerS ?? 0))(s) + 3 * noise());
    last = s;
    return whole;
  });
  return { recording, wheels: { time: recording.time, impulse } };
}
