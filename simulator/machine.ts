import type { DynoFile } from '../contract/files.ts';

/** A stand-in dyno as it describes itself, and what its physics needs beside that. */
export interface Machine {
  device: string;
  name: string;
  profile: DynoFile;
  channels: { name: string; unit: string }[];
  /** Engine ÷ drum (or hub) speed as a multiple of the car's ratio on the inertia roller. */
  ratioFactor: number;
  /** All that turns with the drum, or both hubs, kg·m². */
  turningKgM2: number;
  /** How fast the load lets the engine speed rise in a pull, rpm/s; absent where there is no absorber. */
  rampRpmPerS?: number;
  /** What the load cell reads with nothing on it, N·m. */
  zeroNm?: number;
}

const speed = { name: 'rollerSpeed', unit: 'rad/s' };
const torque = { name: 'absorberTorque', unit: 'N·m' };

export const machines = {
  'inertia-roller': {
    device: 'stand-in-roller',
    name: 'Stand-in inertia roller',
    profile: {
      kind: 'inertia-roller',
      inertiaKgM2: 58,
      radiusM: 0.26,
      parasitic: { aNm: 5.5, bNmPerRadS: 0.05, cNmPerRadS2: 0.00055 },
    },
    channels: [speed],
    ratioFactor: 1,
    turningKgM2: 58,
  },
  'loaded-roller': {
    device: 'stand-in-loaded-roller',
    name: 'Stand-in loaded roller',
    profile: {
      kind: 'loaded-roller',
      inertiaKgM2: 9.5,
      radiusM: 0.159,
      parasitic: { aNm: 4, bNmPerRadS: 0.03, cNmPerRadS2: 0.0002 },
      loadCellLagS: 0.05,
    },
    channels: [speed, torque],
    ratioFactor: 0.159 / 0.26,
    turningKgM2: 9.5,
    rampRpmPerS: 430,
    zeroNm: 3,
  },
  hub: {
    device: 'stand-in-hubs',
    name: 'Stand-in hub pair',
    profile: {
      kind: 'hub',
      inertiaKgM2: 1.4,
      parasitic: { aNm: 1.5, bNmPerRadS: 0.02, cNmPerRadS2: 0 },
      loadCellLagS: 0.03,
    },
    channels: [
      { name: 'hubSpeedLeft', unit: 'rad/s' },
      { name: 'hubSpeedRight', unit: 'rad/s' },
      { name: 'absorberTorqueLeft', unit: 'N·m' },
      { name: 'absorberTorqueRight', unit: 'N·m' },
    ],
    // A wheel turns where a drum of 0.26 m would be driven by a tyre of 0.31 m.
    ratioFactor: 0.31 / 0.26,
    turningKgM2: 2.8,
    rampRpmPerS: 430,
  },
} as const satisfies Record<string, Machine>;
export type MachineKind = keyof typeof machines;
