import type { dynoKinds } from '../contract/instruments/bench-link.ts';
import type { DynoFile } from '../contract/files/machine-and-air.ts';

/** How a machine describes itself. */
type MachineProfile = DynoFile & { kind: (typeof dynoKinds)[number] };

/** One drum or hub of a dyno. */
export interface Drum {
  /** Of its channels, such as `Left`; empty for the only one. */
  place: string;
  axle: 'front' | 'rear';
  /** Its share of the torque of its axle. */
  share: number;
  /** Its speed ÷ the drums' mean: no two wheels are quite alike. */
  speedFactor: number;
}

/** A stand-in dyno as it describes itself, and what its physics needs beside that. */
export interface Machine {
  device: string;
  name: string;
  profile: MachineProfile;
  drums: readonly Drum[];
  /** Engine ÷ drum (or hub) speed as a multiple of the car's ratio on the inertia roller. */
  ratioFactor: number;
  /** How fast the load lets the engine speed rise in a pull, rpm/s; absent where there is no absorber. */
  rampRpmPerS?: number;
  /** What the load cells together read with nothing on them, N·m. */
  zeroNm?: number;
  /** Standard deviations of a drum's readings, rad/s and N·m. */
  noise: { speed: number; torque: number };
}

const only: readonly Drum[] = [{ place: '', axle: 'rear', share: 1, speedFactor: 1 }];
/** One hub takes a little more than the other, and its tyreless wheel turns a little slower, by this share. */
const unevenness = 0.012;
const pairOf = (axle: Drum['axle'], prefix: string): Drum[] => [
  { place: `${prefix}Left`, axle, share: 0.5 * (1 + unevenness), speedFactor: 1 + unevenness / 10 },
  { place: `${prefix}Right`, axle, share: 0.5 * (1 - unevenness), speedFactor: 1 - unevenness / 10 },
];
const hubs: MachineProfile = {
  kind: 'hub',
  inertiaKgM2: 1.4,
  parasitic: { aNm: 1.5, bNmPerRadS: 0.02, cNmPerRadS2: 0 },
  loadCellLagS: 0.03,
};
const loadedRollers: MachineProfile = {
  kind: 'loaded-roller',
  inertiaKgM2: 9.5,
  radiusM: 0.159,
  parasitic: { aNm: 4, bNmPerRadS: 0.03, cNmPerRadS2: 0.0002 },
  loadCellLagS: 0.05,
};
/** A wheel turns where a drum of 0.26 m would be driven by a tyre of 0.31 m. */
const hubRatio = 0.31 / 0.26;

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
    drums: only,
    ratioFactor: 1,
    noise: { speed: 0.01, torque: 0 },
  },
  'loaded-roller': {
    device: 'stand-in-loaded-roller',
    name: 'Stand-in loaded roller',
    profile: loadedRollers,
    drums: only,
    ratioFactor: 0.159 / 0.26,
    rampRpmPerS: 430,
    zeroNm: 3,
    noise: { speed: 0.012, torque: 1.2 },
  },
  'two-axles': {
    device: 'stand-in-two-axles',
    name: 'Stand-in rollers, two axles',
    profile: { ...loadedRollers, inertiaKgM2: 5.2 },
    drums: [
      { place: 'Front', axle: 'front', share: 1, speedFactor: 1.004 },
      { place: 'Rear', axle: 'rear', share: 1, speedFactor: 0.996 },
    ],
    ratioFactor: 0.159 / 0.26,
    rampRpmPerS: 430,
    zeroNm: 3,
    noise: { speed: 0.012, torque: 1.2 },
  },
  hub: {
    device: 'stand-in-hubs',
    name: 'Stand-in hub pair',
    profile: hubs,
    drums: pairOf('rear', ''),
    ratioFactor: hubRatio,
    rampRpmPerS: 430,
    noise: { speed: 0.01, torque: 0.9 },
  },
  'four-hubs': {
    device: 'stand-in-four-hubs',
    name: 'Stand-in, four hubs',
    profile: hubs,
    drums: [...pairOf('front', 'Front'), ...pairOf('rear', 'Rear')],
    ratioFactor: hubRatio,
    rampRpmPerS: 430,
    noise: { speed: 0.01, torque: 0.9 },
  },
} as const satisfies Record<string, Machine>;
export type MachineKind = keyof typeof machines;

/** What a dyno reads of its own drums: every speed, then every load. */
export function drumChannels({ profile, drums }: Machine): { name: string; unit: string }[] {
  const speed = profile.kind === 'hub' ? 'hubSpeed' : 'rollerSpeed';
  const loads = profile.kind === 'inertia-roller' ? [] : drums;
  return [
    ...drums.map(({ place }) => ({ name: `${speed}${place}`, unit: 'rad/s' })),
    ...loads.map(({ place }) => ({ name: `absorberTorque${place}`, unit: 'N·m' })),
  ];
}
