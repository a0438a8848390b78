import { z } from 'zod';
import { reportDraft } from '../report/report.ts';
import { identifier, trimmedText, moment, rpm, freeText } from '../values/parts.ts';

/**
 * The job's file: what is written about it beside setups and runs. Each kind
 * of entry has its fields (what a page sends) and its record (what it gets).
 */
const stored = { id: identifier, revision: z.int().positive() };
const scale = z.enum(['crank', 'wheels']);

export const bandFields = z
  .object({ name: trimmedText(60).min(1, 'name the band, as the owner calls it'), fromRpm: rpm, toRpm: rpm })
  .refine(({ fromRpm, toRpm }) => toRpm > fromRpm, { message: 'must lie above the lower end', path: ['toRpm'] });

export const limitFields = z
  .object({
    quantity: trimmedText(40).min(1),
    value: z.number(),
    scale: scale.nullable(),
    reason: trimmedText(300),
    source: z.enum(['owner', 'maker', 'builder', 'us']),
  })
  .refine(({ quantity, scale: given }) => !['torque', 'power'].includes(quantity) || given !== null, {
    message: 'say whether the figure is one of the crank or of the wheels on this dyno',
    path: ['scale'],
  });

export const inspectionFields = z.object({
  key: trimmedText(40).min(1),
  outcome: z.enum(['open', 'ok', 'fail']),
  note: trimmedText(300),
  measured: z.number().nullable(),
});

export const fuelFields = z
  .object({
    kind: z.enum(['arrived', 'drained', 'added', 'measured']),
    at: moment,
    litres: z.number().nonnegative().max(2000).nullable(),
    ethanolPct: z.number().min(0).max(100).nullable(),
    name: trimmedText(80),
    note: trimmedText(300),
  })
  .refine(({ kind, ethanolPct }) => kind !== 'measured' || ethanolPct !== null, {
    message: 'give the reading',
    path: ['ethanolPct'],
  });

export const suspicionFields = z.object({
  cause: trimmedText(300).min(1, 'name the cause that is suspected'),
  test: trimmedText(300),
  outcome: trimmedText(300),
  state: z.enum(['open', 'confirmed', 'ruled out']),
  runIds: z.array(identifier).max(200),
});

export const noteFields = z.object({ text: trimmedText(1000).min(1, 'write the line first'), at: moment });
export const photoFields = z.object({ caption: trimmedText(300) });
export const tuneFileFields = z.object({
  name: trimmedText(200).min(1, 'name the file'),
  author: trimmedText(120),
  note: trimmedText(500),
});

/** A named look at the comparison: what stands in its address. */
export const viewFields = z.object({
  name: trimmedText(60).min(1, 'name the view'),
  address: z.string().max(2000).regex(/^\?/, 'an address begins with ?'),
});

/** A power curve from elsewhere: engine speed in rpm, power in kW. */
export const borrowedCurveFields = z
  .object({
    name: trimmedText(40).min(1, 'name the curve'),
    origin: trimmedText(300).min(1, 'say where it comes from: a curve of unknown origin is worth nothing'),
    scale,
    points: z
      .array(z.tuple([z.number().positive().max(30_000), z.number().min(-100).max(10_000)]))
      .max(2000)
      .refine((points) => points.every(([rpm], index) => index === 0 || rpm > points[index - 1]![0]), {
        message: 'engine speeds must rise from point to point',
      }),
    /** A norm that is known by its peak alone, kW. */
    peakKw: z.number().positive().max(10_000).nullable().default(null),
    /** How far the curve may be off by the way it was come by (traced from a picture), half of its 95 % interval, kW. */
    errorKw: z.number().min(0).max(1000).nullable().default(null),
  })
  .refine(({ points, peakKw }) => points.length > 1 || peakKw !== null, {
    message: 'two points at least make a curve',
    path: ['points'],
  });

export const band = bandFields.safeExtend(stored);
export const savedView = viewFields.extend(stored);
export const borrowedCurve = borrowedCurveFields.safeExtend(stored);
export type BorrowedCurve = z.infer<typeof borrowedCurve>;
export const limit = limitFields.safeExtend(stored);
export type LimitRecord = z.infer<typeof limit>;
export const inspection = inspectionFields.extend(stored);
export type Inspection = z.infer<typeof inspection>;
export const fuelEntry = fuelFields.safeExtend(stored);
export type FuelRecord = z.infer<typeof fuelEntry>;
export const suspicion = suspicionFields.extend(stored);
export type Suspicion = z.infer<typeof suspicion>;
export const note = noteFields.extend(stored);
export const photo = photoFields.extend({ ...stored, mime: z.string(), at: moment });
export type Photo = z.infer<typeof photo>;
export const tuneFile = tuneFileFields.extend({
  ...stored,
  setupId: identifier,
  sha256: z.string(),
  bytes: z.int().positive(),
  /** Whether it came back from a tuner elsewhere. */
  returned: z.boolean().default(false),
  createdAt: moment,
});
export type TuneFile = z.infer<typeof tuneFile>;

/** A tune file that was taken in: it may be known from elsewhere by what is in it. */
export const takenTuneFile = z.object({
  file: tuneFile,
  knownFrom: z.array(z.object({ jobId: identifier, vehicle: z.string(), setup: z.string(), name: z.string() })),
});

/** Runs and logs that were sent to a remote tuner. */
export const tunerPackage = z.object({
  id: identifier,
  /** That of the last run in it. */
  setupId: identifier.nullable(),
  runs: z.int().positive(),
  createdAt: moment,
});
export type TunerPackage = z.infer<typeof tunerPackage>;

/** A file that came back from a remote tuner: a new setup, or one that this job has seen. */
export const returnedTuneFile = z.object({
  /** Where its content ran in this job before; then nothing was stored. */
  again: z.object({ setup: z.string(), name: z.string() }).nullable(),
  /** The letter of the setup that it became. */
  letter: z.string().nullable(),
});

/** A spread of repeats that was learned: a share of power, and what it is worth. */
export const knownSpread = z.object({
  share: z.number().positive().max(1),
  df: z.number().positive(),
  repeats: z.int().positive().optional(),
});

export const baseline = z.object({
  setupId: identifier,
  version: z.int().positive(),
  runIds: z.array(identifier).min(1),
  why: z.string(),
  createdAt: moment,
  /** The spread of repeats as it was known then; null where none was. */
  spread: knownSpread.nullable(),
});
export type Baseline = z.infer<typeof baseline>;
export const freezing = z.object({
  setupId: identifier,
  runIds: z
    .array(identifier)
    .min(1)
    .max(100)
    .transform((ids) => [...new Set(ids)]),
  why: trimmedText(300),
  spread: knownSpread.nullable().default(null),
});

export const briefFields = z.object({
  question: trimmedText(300),
  gear: trimmedText(20).nullable(),
  use: trimmedText(300),
  target: trimmedText(300),
  notWanted: trimmedText(300),
  claimedValue: z.number().positive().max(5000).nullable(),
  claimedUnit: z.enum(['kW', 'hp', 'PS']),
  claimedScale: scale.nullable(),
  claimedSource: trimmedText(200),
  deliverables: trimmedText(300),
  gentlerTune: z.boolean(),
  /** Smallest change of power that the owner cares about, %. */
  wantedPercent: z.number().min(0.1).max(20).nullable(),
  dynoKind: z.enum(['inertia-roller', 'loaded-roller', 'hub']).nullable(),
  /** What the job's runs begin with, until one is put right. */
  tyrePressureKpa: z.number().min(20).max(1000).nullable(),
  fan: trimmedText(120).nullable(),
  bonnet: trimmedText(120).nullable(),
  bestRunId: identifier.nullable(),
  untested: freeText(1000),
  /** Channels whose lanes the job keeps open. */
  pinnedChannels: z.array(trimmedText(80).min(1)).max(24),
  /** What was changed of the report that composes itself; null where nothing was. */
  report: reportDraft.nullable(),
});

/** One act of the job's history, and what it changed. */
export const change = z.object({
  id: identifier,
  act: z.int(),
  at: moment,
  subject: z.string(),
  rowId: identifier,
  /** Who did it; null while there were no accounts. */
  person: z.string().nullable(),
  before: z.record(z.string(), z.unknown()).nullable(),
  after: z.record(z.string(), z.unknown()),
});
export type Change = z.infer<typeof change>;
