import type { DynoProfile } from '../dyno/dyno-profile.ts';
import type { Sensors } from './sensors.ts';

/**
 * A recording with a known truth, for tests and the bench only. Its physics
 * are written here anew, by stepping the drum's motion in time (`pull.ts`)
 * and reading it with faulty instruments (`sensors.ts`), so that neither the
 * core nor the simulator is judged by its own code.
 */
export interface GeneratedRun extends Sensors {
  seed?: number;
  /** How often the motion is stepped, 1/s; slow motions need no more than a few hundred. */
  stepHz?: number;
  fromRpm?: number;
  toRpm?: number;
  /** Torque at the drum over engine speed, N·m, throttle open. */
  drumTorque?: (rpm: number) => number;
  dyno?: DynoProfile;
  /** Engine speed ÷ drum speed, locked. */
  ratio?: number;
  /** Steady time before the throttle opens, and recording after the lift, s. */
  leadInS?: number;
  coastS?: number;
  /** Share by which the engine outruns the drum at the highest torque; tyres creep. */
  creep?: number;
  /** Loaded roller and hubs: how fast the absorber lets engine speed rise, rpm/s, and how it wanders, N·m. */
  rampRpmPerS?: number;
  controlNoiseNm?: number;
  /** Swing of the driveline after the throttle opens: a decaying sine on drum speed, rad/s. */
  shuffle?: { hz: number; amplitude: number; decayS: number };
  /** The driver opens to this share of full torque first, for so long. */
  feather?: { share: number; lastsS: number } | undefined;
  /** A first stab up to this speed, given up, with a coast back before the real pull. */
  stab?: { toRpm: number } | undefined;
  /** The recording ends here, before the lift. */
  recordedToRpm?: number;
  faults?: Faults;
}

/** Things that go wrong in a pull. Shares are of engine speed or of torque. */
export interface Faults {
  fuelCut?: { atRpm: number; lastsS: number };
  limiter?: { atRpm: number; lastsS: number };
  /** The driver lets off to this share for a while. */
  letOff?: { atRpm: number; share: number; lastsS: number };
  /** The engine outruns the drum by this much more than creep between two speeds. */
  tyreSlip?: SlipZone & { again?: SlipZone };
  hop?: { fromRpm: number; toRpm: number; share: number; hz: number };
  /** A clutch or lock-up that slips with torque: share at the highest torque, none below half of it. */
  clutchSlip?: { share: number };
  /** An open converter: share at the start, gone by the top. */
  converter?: { share: number };
  /** The controller takes torque away between two speeds, down to this share of it, and gives it back no more. */
  /** `softRpm`: its middle 80 % take so much, about the middle of a ramp that `overRpm` would take. */
  limp?: { fromRpm: number; overRpm: number; share: number; softRpm?: number };
  /** Torque comes and goes at random, in shares of itself. */
  misfire?: { share: number };
}

interface SlipZone {
  fromRpm: number;
  toRpm: number;
  share: number;
}
