import { z } from 'zod';

/** A path relative to the file that names it. */
const path = z.string().trim().min(1, 'name a file');
const label = z.string().trim().min(1, 'give a label').max(40);
const plan = z.object({ runsEach: z.int().min(1).max(30) });

/** `JOB.json` of `suvok judge`: a job's setups and the recordings of its runs. */
export const judgeFile = z.object({
  dyno: path,
  air: path.optional(),
  /** Runs of each setup, stated before the first was made. */
  plan: plan.optional(),
  /** Repeats of earlier jobs on this dyno: how many runs, and their spread. */
  history: z.array(z.object({ runs: z.int().min(1).max(1000), spreadPercent: z.number().min(0).max(50) })).default([]),
  setups: z
    .array(
      z.object({ label, parent: label.optional(), change: z.string().max(300).default(''), plan: plan.optional() }),
    )
    .min(1, 'name at least one setup'),
  runs: z.array(
    z.object({
      label,
      setup: label,
      file: path,
      at: z.iso.datetime({ offset: true }).optional(),
      counted: z.boolean().default(true),
      dyno: path.optional(),
      air: path.optional(),
      gear: z.string().trim().min(1).max(20).optional(),
    }),
  ),
});
export type JudgeFile = z.infer<typeof judgeFile>;

const claim = z.enum(['gain', 'loss', 'within-repeatability']).nullable();
const kw = z.number().nullable();
const estimate = { setup: z.string(), meanKw: kw, lowKw: kw, highKw: kw, claim };

/** What `suvok judge` prints. */
export const judgementJson = z.object({
  spread: z.object({
    percent: z.number(),
    degreesOfFreedom: z.number(),
    from: z.enum(['learned', 'assumed', 'pooled', 'welch', 'none']),
  }),
  /** Every setup against its parent and against the baseline; `claim` is the pair's own. */
  pairs: z.array(
    z.object({
      ...estimate,
      against: z.string(),
      fromRpm: z.number(),
      toRpm: z.number(),
      withheld: z.array(z.object({ id: z.string(), sentence: z.string() })),
      rule: z.enum(['planned', 'every-look']),
      sentence: z.string(),
    }),
  ),
  /** Against the baseline, and against the run setup before it: `claim` is what may be said among all of the job's. */
  cards: z.array(z.object(estimate)),
  steps: z.array(z.object(estimate)),
  /** `setup` is null where enough was run. */
  next: z.object({ setup: z.string().nullable(), why: z.string(), runs: z.int().nonnegative() }),
  /** What was taken for what the file does not say, in sentences. */
  assumed: z.array(z.string()),
});
export type JudgementJson = z.infer<typeof judgementJson>;
