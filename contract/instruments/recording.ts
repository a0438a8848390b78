import { z } from 'zod';
import { channelDeclaration } from './bench-link.ts';
import type { torqueChannels } from '../files/drums.ts';
import { bayNumber, rpm } from '../values/parts.ts';
import { dynoFile } from '../files/machine-and-air.ts';
import { plainInstrument } from './plain-instrument.ts';

/** What is to be recorded next, and what is written with a run of how it was made. */

export const runKinds = [
  'power',
  'conditioning',
  'step',
  'part-load',
  'idle',
  'cold-start',
  'transient',
  'cruise',
  'road-check',
  'coast-down',
  'check',
] as const;
export type RunKind = (typeof runKinds)[number];

/** A manifold pressure to be held, kPa absolute. */
export const heldKpa = z.number().min(10).max(500);

/** Speeds to be held one after the other, each at every one of the loads; at full throttle where there are none. */
export const stepTable = z.object({
  speedsRpm: z.array(rpm).min(1).max(40),
  loadsKpa: z.array(heldKpa).max(32).default([]),
  dwellS: z.number().min(1).max(120),
  /** A hold counts while the speed stays within this share of itself in a second. */
  tolerance: z.number().min(0.001).max(0.05),
});
export type StepTable = z.infer<typeof stepTable>;

export const usualSteps: StepTable = { speedsRpm: [2500, 3500, 4500, 5500], loadsKpa: [], dwellS: 5, tolerance: 0.01 };

/** What runs of kinds with figures of their own are made by. */
export const kindPlan = z.object({
  /** How long an idle is recorded, and a start with what follows it, s. */
  idleS: z.number().min(15).max(300),
  startS: z.number().min(15).max(600),
  /** The speed that is held for a step of the throttle, and at a cruise. */
  heldRpm: rpm,
  /** Power at the wheels of a cruise, kW, and how long it is held, s. */
  wheelKw: z.number().min(0.5).max(500),
  cruiseS: z.number().min(60).max(1800),
});
export const usualKindPlan: z.infer<typeof kindPlan> = {
  idleS: 45,
  startS: 60,
  heldRpm: 2500,
  wheelKw: 12,
  cruiseS: 180,
};

/** How the next runs are made; null where the car's or the dyno's own way is taken. */
export const runPlan = z
  .object({
    kind: z.enum(runKinds),
    fromRpm: rpm.nullable(),
    toRpm: rpm.nullable(),
    /** How fast the load lets the engine speed rise, rpm/s; loaded dynos only. */
    rampRpmPerS: z.number().positive().max(5000).nullable(),
    steps: stepTable,
    ofKind: kindPlan.default(usualKindPlan),
    /** Runs of one setup, and the rest between them, min. */
    repeats: z.int().min(1).max(30),
    coolDownMin: z.number().min(0).max(240),
  })
  .refine(({ fromRpm, toRpm }) => fromRpm === null || toRpm === null || toRpm > fromRpm, {
    message: 'the end speed must lie above the start speed',
    path: ['toRpm'],
  });
export type RunPlan = z.infer<typeof runPlan>;

export const usualPlan: RunPlan = {
  kind: 'power',
  fromRpm: null,
  toRpm: null,
  rampRpmPerS: null,
  steps: usualSteps,
  ofKind: usualKindPlan,
  repeats: 3,
  coolDownMin: 8,
};

/** A speed and a load to be held now, and for how long. */
export const setPoint = z.object({
  engineSpeedRpm: rpm,
  /** Left out: full throttle. */
  manifoldKpa: heldKpa.optional(),
  holdS: z.number().min(1).max(120),
});
export type SetPoint = z.infer<typeof setPoint>;

/** The part of a plan that is kept with a run. */
export const madeAs = z.object({
  fromRpm: rpm.nullable(),
  toRpm: rpm.nullable(),
  rampRpmPerS: z.number().positive().nullable(),
  steps: stepTable.nullable(),
});

/** Where a λ probe sits. */
export const probePlace = z.object({
  /** How late its reading is, s. */
  delayS: z.number().min(0).max(3),
  /** By how much it reads too lean, λ. */
  offset: z.number().min(-0.2).max(0.2),
});

/** A logger's recording beside the dyno's. */
export const runLogRecord = z.object({
  /** 1, 2 …; the dyno's own samples are source 0. */
  source: z.int().positive(),
  device: z.string(),
  name: z.string(),
  channels: z.array(channelDeclaration),
  probe: probePlace,
  /** Of a file that was joined later: in restored data its number may be another one's. */
  key: z.uuid().optional(),
});
export type RunLogRecord = z.infer<typeof runLogRecord>;

const nm = z.number().min(-500).max(500).optional();
const zeroFields = {
  absorberTorque: nm,
  absorberTorqueLeft: nm,
  absorberTorqueRight: nm,
  absorberTorqueFront: nm,
  absorberTorqueRear: nm,
  absorberTorqueFrontLeft: nm,
  absorberTorqueFrontRight: nm,
  absorberTorqueRearLeft: nm,
  absorberTorqueRearRight: nm,
} satisfies Record<(typeof torqueChannels)[number], typeof nm>;

/** What the shop sets of an instrument. */
export const deviceSettings = z.object({
  /** The bay that it stands in; null until it is placed, by itself or by hand. */
  bay: bayNumber.nullable().default(null),
  /** Declared channel name → the name it is kept under; an empty one leaves it out. */
  channelNames: z.record(z.string().max(64), z.string().max(64)).default({}),
  probe: probePlace.default({ delayS: 0, offset: 0 }),
  /** Engine ÷ drum speed as calibrated, and for which vehicle and gear. */
  ratio: z
    .object({
      value: z.number().positive(),
      /** Null once the data were restored: the number may be another car’s there. */
      vehicleId: z.int().positive().nullable(),
      vehicle: z.string(),
      gear: z.string().nullable(),
      /** Of each axle by itself, where the dyno has two; `value` is then that of their mean speed. */
      axles: z.object({ front: z.number().positive(), rear: z.number().positive() }).nullable().default(null),
      rpmPerKmh: z.number().positive().nullable(),
      at: z.iso.datetime({ offset: true }),
    })
    .nullable()
    .default(null),
  /** Height of the shop above the sea, m, where the machine does not tell it. */
  altitudeM: dynoFile.shape.altitudeM.unwrap().nullable().default(null),
  /** How it is connected, where somebody entered it on Devices; null for one that comes by itself. */
  plain: plainInstrument.nullable().default(null),
  /** What each load cell read with nothing on it, N·m; taken off. */
  zero: z
    .object({ ...zeroFields, at: z.iso.datetime({ offset: true }) })
    .nullable()
    .default(null),
});
export type DeviceSettings = z.infer<typeof deviceSettings>;
export const plainSettings: DeviceSettings = deviceSettings.parse({});
