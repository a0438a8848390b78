import type { Recording } from '../recording/recording.ts';
import type { DynoProfile } from '../reduction/dyno-profile.ts';

/**
 * A recording with a known truth, for tests only. Its physics are written
 * here anew, by stepping the drum's motion in time, so that neither the core
 * nor the simulator is judged by its own code.
 */
export interface GeneratedRun {
  rateHz?: number;
  /** Standard deviation of the speed reading, rad/s. */
  speedNoise?: number;
  seed?: number;
  fromRpm?: number;
  toRpm?: number;
  /** Torque at the drum over engine speed, N·m. */
  drumTorque?: (rpm: number) => number;
  dyno?: DynoProfile;
  /** Engine speed ÷ drum speed. */
  ratio?: number;
  coastS?: number;
  pickup?: boolean;
  /** Swing of the driveline after the throttle opens: a decaying sine on drum speed, rad/s. */
  shuffle?: { hz: number; amplitude: number; decayS: number };
}

export const testDyno: DynoProfile = {
  kind: 'inertia-roller',
  inertiaKgM2: 50,
  radiusM: 0.25,
  parasitic: { aNm: 5, bNmPerRadS: 0.05, cNmPerRadS2: 0.0005 },
};

/** A repeatable source of numbers between 0 and 1 (mulberry32). */
export function chance(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/** Normally distributed numbers, mean 0 and standard deviation 1 (Box–Muller). */
export function normal(random: () => number): () => number {
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

export const usualTorque = (rpm: number) => 420 + 90 * Math.sin((rpm - 2000) / 1600);

export function generatedRun(options: GeneratedRun = {}): Recording {
  const {
    rateHz = 200,
    speedNoise = 0,
    seed = 1,
    fromRpm = 2000,
    toRpm = 6500,
    ratio = 3.4,
    coastS = 2,
    pickup = true,
  } = options;
  const dyno = options.dyno ?? testDyno;
  const drumTorque = options.drumTorque ?? usualTorque;
  const noise = normal(chance(seed));
  const perRadS = (ratio * 60) / (2 * Math.PI);
  const substeps = Math.max(1, Math.round(2000 / rateHz));
  const step = 1 / rateHz / substeps;
  const time: number[] = [];
  const drum: number[] = [];
  const engine: number[] = [];
  let speed = fromRpm / perRadS;
  let phase: 'lead-in' | 'pull' | 'coast' = 'lead-in';
  let phaseS = 0;
  let openness = 0;
  const { shuffle } = options;
  const swing = (during: string, sinceS: number) =>
    shuffle && during === 'pull'
      ? shuffle.amplitude * Math.exp(-sinceS / shuffle.decayS) * Math.sin(2 * Math.PI * shuffle.hz * sinceS)
      : 0;
  for (let sample = 0; phase !== 'coast' || phaseS < coastS; sample++) {
    time.push(sample / rateHz);
    drum.push(speed + swing(phase, phaseS) + speedNoise * noise());
    engine.push(Math.round((speed * perRadS) / 5) * 5);
    for (let substep = 0; substep < substeps; substep++) {
      const loss = dyno.parasitic.aNm + dyno.parasitic.bNmPerRadS * speed + dyno.parasitic.cNmPerRadS2 * speed ** 2;
      openness = Math.max(0, Math.min(1, openness + (phase === 'pull' ? step : -step) / 0.1));
      const torque = phase === 'lead-in' ? loss : openness * drumTorque(speed * perRadS);
      speed += ((torque - loss) / dyno.inertiaKgM2) * step;
      phaseS += step;
      if (phase === 'lead-in' && phaseS > 1.5) [phase, phaseS] = ['pull', 0];
      if (phase === 'pull' && speed * perRadS >= toRpm) [phase, phaseS] = ['coast', 0];
      if (phaseS > 120) throw new RangeError('the generated pull never reaches its end speed');
    }
  }
  const channels = [{ name: 'rollerSpeed', unit: 'rad/s', values: Float64Array.from(drum) }];
  if (pickup) channels.push({ name: 'engineSpeed', unit: 'rpm', values: Float64Array.from(engine) });
  return { time: Float64Array.from(time), channels };
}

/** The true power at the drum, kW, for an engine speed of a generated run. */
export function truePowerKw(rpm: number, ratio = 3.4, drumTorque = usualTorque): number {
  return (drumTorque(rpm) * ((rpm * 2 * Math.PI) / 60 / ratio)) / 1000;
}
