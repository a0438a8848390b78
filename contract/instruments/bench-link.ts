import { z } from 'zod';
import { dynoFile } from '../files/machine-and-air.ts';
import { setupItem } from '../values/setup-item.ts';

/** The open protocol between instruments and Suvok; described in docs/bench-link.md. */
export const benchLinkProtocol = 2;
/** The first form: nothing is acknowledged, and nothing is sent again. */
export const plainProtocol = 1;
/** A line longer than this is rubbish. */
export const longestLine = 65_536;

export const dynoKinds = ['inertia-roller', 'loaded-roller', 'hub'] as const;
export const deviceKinds = [...dynoKinds, 'weather', 'engine-logger'] as const;
export const isDynoKind = (kind: (typeof deviceKinds)[number]): kind is (typeof dynoKinds)[number] =>
  (dynoKinds as readonly string[]).includes(kind);

export const channelDeclaration = z.object({
  name: z.string().min(1).max(64),
  unit: z.string().max(16),
});

export const commandNames = [
  'configure',
  'arm',
  'hold',
  'sweep',
  'steps',
  'coast',
  'idle',
  'start',
  'transient',
  'cruise',
  'stop',
  'fault',
] as const;

export const helloMessage = z
  .object({
    type: z.literal('hello'),
    protocol: z.union([z.literal(plainProtocol), z.literal(benchLinkProtocol)]),
    device: z.string().min(1).max(64),
    /** Another one whenever its sequence numbers begin anew; needed from protocol 2 on. */
    instance: z.string().min(1).max(64).optional(),
    name: z.string().min(1).max(80).optional(),
    kind: z.enum(deviceKinds),
    /** From another machine, and needed there: what it was given when it was paired. */
    key: z.string().min(1).max(100).optional(),
    /** The bay that it stands in, by name, where it knows: heeded until a shop has placed it. */
    bay: z.string().trim().min(1).max(40).optional(),
    channels: z.array(channelDeclaration).min(1).max(64),
    rateHz: z.number().positive().max(20_000).optional(),
    commands: z.array(z.enum(commandNames)).default([]),
    /** Stand-ins only: what they can play, for demonstrations, training and tests. */
    faults: z.array(z.string().min(1).max(40)).max(40).default([]),
    /** Dynos only, and needed there: the machine. */
    dyno: dynoFile.optional(),
    /** Engine speed ÷ drum speed, for a dyno without a pickup. */
    engineToDrumRatio: z.number().positive().optional(),
    /** Wall time at device time 0, for a device that plays something back. */
    startedAt: z.iso.datetime({ offset: true }).optional(),
  })
  .refine((hello) => hello.dyno !== undefined || !isDynoKind(hello.kind), {
    message: 'a dyno must describe itself in "dyno"',
    path: ['dyno'],
  })
  .refine((hello) => hello.protocol === plainProtocol || hello.instance !== undefined, {
    message: 'from protocol 2 on an instrument says which "instance" of itself it is',
    path: ['instance'],
  });
export type Hello = z.infer<typeof helloMessage>;

export const frameMessage = z.object({
  type: z.literal('frame'),
  sequence: z.int().nonnegative(),
  /** Device time, s. */
  time: z.number(),
  /** One for each declared channel, in that order; null where nothing was read. */
  values: z.array(z.number().nullable()).max(64),
});
export type Frame = z.infer<typeof frameMessage>;

/**
 * A frame without fault, told by a look at its numbers: most of what an
 * instrument sends, a thousand times a second, and the schema takes ten times
 * as long. All else is for the schema, which says what is wrong.
 */
export function soundFrame(content: unknown): Frame | undefined {
  if (typeof content !== 'object' || content === null) return undefined;
  const { type, sequence, time, values } = content as Record<keyof Frame, unknown>;
  if (type !== 'frame' || !Number.isSafeInteger(sequence) || (sequence as number) < 0 || !Number.isFinite(time))
    return undefined;
  if (!Array.isArray(values) || values.length > 64) return undefined;
  for (const value of values as unknown[]) if (value !== null && !Number.isFinite(value)) return undefined;
  return { type, sequence, time, values } as Frame;
}

export const eventMessage = z.object({
  type: z.literal('event'),
  time: z.number().optional(),
  text: z.string().min(1).max(500),
});

export const statusMessage = z.object({
  type: z.literal('status'),
  state: z.enum(['ready', 'busy', 'fault']),
  text: z.string().max(500).optional(),
});

/** From another machine, once: the code that an owner was shown on Devices. */
export const pairMessage = z.object({
  type: z.literal('pair'),
  code: z.string().min(1).max(40),
  device: z.string().min(1).max(64),
});
export type PairMessage = z.infer<typeof pairMessage>;

export const deviceMessage = z.discriminatedUnion('type', [
  pairMessage,
  helloMessage,
  frameMessage,
  eventMessage,
  statusMessage,
]);
export type DeviceMessage = z.infer<typeof deviceMessage>;

const pullSpeeds = { fromRpm: z.number().positive().optional(), toRpm: z.number().positive().optional() };

export const suvokMessage = z.discriminatedUnion('type', [
  /** Protocol 2: the answer to the hello. Frames from this number on are wanted, those sent before among them. */
  z.object({ type: z.literal('welcome'), from: z.int().nonnegative() }),
  /** Protocol 2: every frame up to this number is on Suvok's disk, and need not be kept any longer. */
  z.object({ type: z.literal('safe'), sequence: z.int().nonnegative() }),
  z.object({
    type: z.literal('configure'),
    vehicle: z.string(),
    setup: z.string(),
    /** Every item on the way from the first setup to this one, oldest first. */
    items: z.array(setupItem),
    gear: z.string().optional(),
  }),
  z.object({ type: z.literal('arm') }),
  /**
   * A set point that the load keeps until another word: an engine speed, or a torque at the drums. With a
   * manifold pressure the pedal is to keep that beside the speed, where the instrument has the pedal too.
   */
  z
    .object({
      type: z.literal('hold'),
      engineSpeedRpm: z.number().positive().optional(),
      loadNm: z.number().nonnegative().optional(),
      manifoldKpa: z.number().positive().optional(),
      /** For how long it is wanted, s; it is kept beyond that. */
      holdS: z.number().positive().optional(),
    })
    .refine(({ engineSpeedRpm, loadNm }) => (engineSpeedRpm === undefined) !== (loadNm === undefined), {
      message: 'a set point is a speed or a torque',
    }),
  z.object({
    type: z.literal('sweep'),
    /** Device time to let pass first, s. */
    afterS: z.number().nonnegative().optional(),
    ...pullSpeeds,
    /** How fast the load is to let the engine speed rise, rpm/s. */
    rampRpmPerS: z.number().positive().optional(),
    /** Or one torque that it is to give throughout, N·m. */
    loadNm: z.number().nonnegative().optional(),
  }),
  /** Each speed held for a while, one after the other: at full throttle, or each at the manifold pressure of its place. */
  z.object({
    type: z.literal('steps'),
    afterS: z.number().nonnegative().optional(),
    speedsRpm: z.array(z.number().positive()).min(1).max(1280),
    manifoldKpa: z.array(z.number().positive()).max(1280).optional(),
    dwellS: z.number().positive(),
  }),
  /** Up to a speed, then out of gear until the drum has nearly stopped. */
  z.object({
    type: z.literal('coast'),
    afterS: z.number().nonnegative().optional(),
    ...pullSpeeds,
  }),
  /** Out of gear, idling for so long. */
  z.object({ type: z.literal('idle'), afterS: z.number().nonnegative().optional(), forS: z.number().positive() }),
  /** The engine, cold and off, is started and left to idle for so long. */
  z.object({ type: z.literal('start'), afterS: z.number().nonnegative().optional(), forS: z.number().positive() }),
  /** A speed held on a light pedal, then full throttle at that speed. */
  z.object({
    type: z.literal('transient'),
    afterS: z.number().nonnegative().optional(),
    engineSpeedRpm: z.number().positive(),
  }),
  /** A speed and a power at the wheels held for so long. */
  z.object({
    type: z.literal('cruise'),
    afterS: z.number().nonnegative().optional(),
    engineSpeedRpm: z.number().positive(),
    wheelKw: z.number().positive(),
    forS: z.number().positive(),
  }),
  z.object({ type: z.literal('stop') }),
  /** All faults that are to be played from now on; none to be sound again. */
  z.object({ type: z.literal('fault'), faults: z.array(z.string()) }),
  /** The answer to `pair`: its key, which it says in every hello from now on. */
  z.object({ type: z.literal('paired'), key: z.string() }),
  z.object({ type: z.literal('problem'), text: z.string() }),
]);
export type SuvokMessage = z.infer<typeof suvokMessage>;
export type ConfigureMessage = Extract<SuvokMessage, { type: 'configure' }>;
