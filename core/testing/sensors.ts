import type { Channel, Recording } from '../recording/recording.ts';
import type { DrumPlace, DynoProfile } from '../dyno/dyno-profile.ts';
import { normal, wandering } from './chance.ts';
import { testDyno } from './test-car.ts';
import type { PullState } from './pull-state.ts';

// Taken out once: Jest looks a global up anew at every use, and a pull is stepped thousands of times.
const { exp, max, min, PI, round, sin, sqrt } = Math;

/** How the instruments read, and misread. */
export interface Sensors {
  rateHz?: number;
  /** Standard deviation of the speed reading, rad/s: white, and with a memory of 50 ms. */
  speedNoise?: number;
  slowSpeedNoise?: number;
  /** A swing of the speed reading with the drum's or a tyre's turns: rad/s, and turns of it per turn of the drum. */
  orderNoise?: { amplitude: number; perTurn: number };
  loadCellNoiseNm?: number;
  /** The same, as strong in each octave from 0.1 to 5 Hz. */
  pinkCellNoiseNm?: number;
  /** Sampling moments stray by this, s (standard deviation), and this share of samples is lost. */
  jitterS?: number;
  lostShare?: number;
  /** A hole in the recording; a step of the instrument's clock. */
  gap?: { atS: number; lastsS: number };
  clockJump?: { atS: number; byS: number };
  pickup?: boolean;
  /** A pickup's readings are whole multiples of this, rpm. */
  pickupStepRpm?: number;
  throttle?: boolean;
  /** Several drums: each one's share of the torque, and its speed ÷ their mean; each is recorded by itself. */
  drums?: readonly { place: DrumPlace; torqueShare: number; speedFactor: number }[];
  /** One axle's drums fall behind between two engine speeds by up to this share. */
  axleSlip?: { axle: 'front' | 'rear'; fromRpm: number; toRpm: number; share: number };
}

/** One drum; a second that nobody reads draws its share of chance, so that a seed gives the same pull with two. */
const single = ['', 'unread'].map((place) => ({ place, torqueShare: 1, speedFactor: 1 }));

/** Reads a stepped pull as an instrument would. */
export function sampled(
  states: readonly PullState[],
  sensors: Sensors & { rateHz: number; dyno?: DynoProfile },
  random: () => number,
): Recording {
  const { rateHz } = sensors;
  const dyno = sensors.dyno ?? testDyno;
  const noise = normal(random);
  const slow = wandering(random, sensors.slowSpeedNoise ?? 0, 0.05);
  const { pinkCellNoiseNm = 0 } = sensors;
  const octaves =
    pinkCellNoiseNm > 0
      ? [0.03, 0.1, 0.3, 1, 3].map((memoryS) => wandering(random, pinkCellNoiseNm / sqrt(5), memoryS))
      : [];
  const stepS = states[1]!.timeS - states[0]!.timeS;
  const cell = loadCell(states, dyno.loadCellLagS ?? 0, stepS);
  const turn = turns(states, stepS);
  const drums = sensors.drums ?? single;
  const columns: Record<string, number[]> = {
    time: [],
    engine: [],
    throttle: [],
  };
  const lastS = states[states.length - 1]!.timeS;
  for (let sample = 0; sample / rateHz <= lastS + 1e-9; sample++) {
    const dueS = sample / rateHz;
    const takenS = min(lastS, max(0, dueS + (sensors.jitterS ?? 0) * noise()));
    if (random() < (sensors.lostShare ?? 0)) continue;
    if (sensors.gap && dueS >= sensors.gap.atS && dueS < sensors.gap.atS + sensors.gap.lastsS) continue;
    const at = min(states.length - 1, round(takenS / stepS));
    const state = states[at]!;
    const jumped = sensors.clockJump && dueS >= sensors.clockJump.atS ? sensors.clockJump.byS : 0;
    const time = state.timeS + jumped;
    if (columns.time!.length > 0 && time <= columns.time!.at(-1)!) continue;
    const order = sensors.orderNoise ? sensors.orderNoise.amplitude * sin(turn[at]! * sensors.orderNoise.perTurn) : 0;
    const read = state.speedRadS + state.swingRadS + order + slow(1 / rateHz);
    const step = sensors.pickupStepRpm ?? 5;
    columns.time!.push(time);
    for (const { place, speedFactor } of drums) {
      const speed = read * speedFactor * (1 - behind(sensors.axleSlip, place, state.engineRpm));
      (columns[`speed ${place}`] ??= []).push(speed + (sensors.speedNoise ?? 0) * noise());
    }
    columns.engine!.push(round(state.engineRpm / step) * step);
    columns.throttle!.push(100 * state.openness + 0.2 * noise());
    const pink = octaves.reduce((sum, octave) => sum + octave(1 / rateHz), 0);
    for (const { place, torqueShare } of drums)
      (columns[`torque ${place}`] ??= []).push(
        (cell[at]! + pink) * torqueShare + (sensors.loadCellNoiseNm ?? 0) * noise(),
      );
  }
  return { time: Float64Array.from(columns.time!), channels: channelsOf(columns, sensors, dyno) };
}

function channelsOf(columns: Record<string, number[]>, sensors: Sensors, dyno: DynoProfile): Channel[] {
  const channel = (name: string, unit: string, column: string): Channel => ({
    name,
    unit,
    values: Float64Array.from(columns[column]!),
  });
  const channels: Channel[] = [];
  for (const place of sensors.drums?.map((drum) => drum.place) ?? ['']) {
    const suffix = place.charAt(0).toUpperCase() + place.slice(1);
    channels.push(channel(`${dyno.kind === 'hub' ? 'hub' : 'roller'}Speed${suffix}`, 'rad/s', `speed ${place}`));
    if (dyno.kind !== 'inertia-roller') channels.push(channel(`absorberTorque${suffix}`, 'N·m', `torque ${place}`));
  }
  if (sensors.pickup ?? true) channels.push(channel('engineSpeed', 'rpm', 'engine'));
  if (sensors.throttle) channels.push(channel('throttle', '%', 'throttle'));
  return channels;
}

/** By what share a drum falls behind at an engine speed. */
function behind(slip: Sensors['axleSlip'], place: string, rpm: number): number {
  if (!slip || !place.startsWith(slip.axle) || rpm < slip.fromRpm || rpm > slip.toRpm) return 0;
  return slip.share * sin((PI * (rpm - slip.fromRpm)) / (slip.toRpm - slip.fromRpm)) ** 0.5;
}

/** The absorber's torque as a first-order load cell reads it. */
function loadCell(states: readonly PullState[], lagS: number, stepS: number): Float64Array {
  const read = new Float64Array(states.length);
  let value = states[0]!.absorberNm;
  states.forEach(({ absorberNm }, index) => {
    value = lagS > 0 ? value + (absorberNm - value) * (1 - exp(-stepS / lagS)) : absorberNm;
    read[index] = value;
  });
  return read;
}

/** Angle turned by the drum, rad. */
function turns(states: readonly PullState[], stepS: number): Float64Array {
  const angle = new Float64Array(states.length);
  for (let index = 1; index < states.length; index++)
    angle[index] = angle[index - 1]! + states[index]!.speedRadS * stepS;
  return angle;
}
