import { z } from 'zod';

/** A comparison as JSON: what `suvok compare` prints and the page exports. Null where there is no spread to make an interval from. */
const kw = z.number().nullable();
const interval = { fromRpm: z.number(), toRpm: z.number(), meanKw: kw, lowKw: kw, highKw: kw };
const severity = z.enum(['note', 'mind', 'stop']);

export const comparisonJson = z.object({
  commonRange: z.object({ fromRpm: z.number(), toRpm: z.number() }),
  /** `lowKw` and `highKw` hold at all speeds at once, 95 %. */
  gain: z.object({
    engineSpeedRpm: z.array(z.number()),
    powerKw: z.array(kw),
    lowKw: z.array(kw),
    highKw: z.array(kw),
    torqueNm: z.array(z.number()),
  }),
  /** The bands asked for, or the common range where none was. */
  bands: z.array(
    z.object({
      ...interval,
      percent: z.number(),
      verdict: z.enum([
        'gain',
        'loss',
        'within-repeatability',
        'drift-suspected',
        'spread-assumed',
        'clear-alone',
        'plan-not-full',
        'band-not-covered',
        'unknown',
        'withheld',
      ]),
    }),
  ),
  /** Bands asked for that some run does not cover, and where the runs begin above or end below. */
  notCovered: z.array(
    z.object({
      fromRpm: z.number(),
      toRpm: z.number(),
      beginsRpm: z.number().nullable(),
      endsRpm: z.number().nullable(),
    }),
  ),
  /** Found in the data: stretches over which the gain is clear of scatter. */
  spans: z.array(z.object({ ...interval, verdict: z.enum(['gain', 'loss']) })),
  sameSpeedMax: z.object({ kw, rpm: z.number() }),
  peaks: z.object({
    baseline: z.object({ kw, rpm: z.number(), atEdge: z.boolean() }),
    test: z.object({ kw, rpm: z.number(), atEdge: z.boolean() }),
    gainKw: kw,
    torque: z.object({
      baseline: z.object({ nm: z.number(), rpm: z.number() }),
      test: z.object({ nm: z.number(), rpm: z.number() }),
    }),
  }),
  earliness: z.object({ baselinePeakKw: kw, reachesRpm: z.number().nullable(), staysToRpm: z.number().nullable() }),
  /** One look at what was planned, or so many looks that were each paid for. */
  rule: z.enum(['planned', 'every-look']),
  look: z.int().positive().nullable(),
  spreadKw: kw,
  spreadFrom: z.enum(['pooled', 'welch', 'learned', 'assumed', 'none']),
  leastSignificantKw: kw,
  smallestDetectableKw: kw,
  likeForLike: z.array(
    z.object({ id: z.string(), severity, message: z.string(), matters: z.string(), remedy: z.string().nullable() }),
  ),
  /** What else changed: logged channels, the largest in their own spread first; intervals only. */
  channels: z.array(
    z.object({
      channel: z.string(),
      unit: z.string(),
      fromRpm: z.number(),
      toRpm: z.number(),
      baseline: z.number(),
      test: z.number(),
      difference: z.number(),
      low: z.number().nullable(),
      high: z.number().nullable(),
      largest: z.object({ rpm: z.number(), difference: z.number() }),
    }),
  ),
  sentence: z.string(),
  /** How the figures were made. */
  standard: z.string(),
  share: z.number(),
  /** What power and torque rest on where they are estimated for the crank; null for figures at the wheels. */
  crankEstimate: z.string().nullable(),
  smoothing: z.object({ spanRpm: z.union([z.number(), z.tuple([z.number(), z.number()])]), auto: z.boolean() }),
  runs: z.array(
    z.object({
      /** Its label, or the name of its file. */
      name: z.string(),
      side: z.enum(['baseline', 'test']),
      factor: z.number(),
      checks: z.array(z.object({ id: z.string(), severity, message: z.string() })),
    }),
  ),
  /** What the command line took for what nobody said, in sentences. */
  assumed: z.array(z.string()).optional(),
});
export type ComparisonJson = z.infer<typeof comparisonJson>;
