import { z } from 'zod';
import { identifier, moment, rpm, trimmedText } from '../values/parts.ts';
import { units } from '../values/units.ts';

/** Languages that a report is written in, as core/language has them. */
export const reportLanguages = ['en', 'de'] as const;

/** So many large figures stand beside one another at most. */
export const mostFigures = 6;

/** What a person changed of a report that composes itself. */
export const reportDraft = z.strictObject({
  /** The whole report, or one page of it. */
  form: z.enum(['long', 'short']),
  /** Blocks in the order in which they stand; those that are not named follow in the usual order. */
  order: z.array(trimmedText(40)).max(40),
  /** Blocks that are left out. */
  hidden: z.array(trimmedText(40)).max(40),
  /** In the place of the answer that was composed; empty for that one. */
  headline: trimmedText(300),
  /** Words of the operator, after the answer. */
  words: trimmedText(2000),
  language: z.enum(reportLanguages).default('en'),
  /** Large figures that stand, by their names within the job (`arrived`, `setup B`, `run B3`); null for the usual ones. */
  figures: z.array(trimmedText(60)).max(mostFigures).nullable().default(null),
  /** By block: a title in the place of its own, and words under it. */
  titles: z.record(trimmedText(40), trimmedText(120)).default({}),
  notes: z.record(trimmedText(40), trimmedText(1000)).default({}),
  /** What the owner is told quantities in; null for the units of whoever looks. */
  units: units.nullable(),
});
export type ReportDraft = z.infer<typeof reportDraft>;

/** How a report is looked at, beside what its draft says: what it is corrected to, and the units of a draft that names none. */
export const reportView = z.strictObject({ standard: trimmedText(40), units });
export type ReportView = z.infer<typeof reportView>;

export const papers = ['A4', 'LETTER'] as const;
/** A report as a file. */
export const reportPdfWishes = reportView.extend({ paper: z.enum(papers) });
/** A finished PDF, as its bytes in base64: what the last line of the work holds. */
export const reportPdf = z.object({ name: z.string(), pages: z.int().positive(), base64: z.string() });

/** A version that is about to be kept, and why it was made. */
export const newReportVersion = reportView.extend({ note: trimmedText(300).default('') });

const side = z.object({
  setupId: identifier,
  letter: z.string(),
  runs: z.array(z.object({ id: identifier, label: z.string() })),
});
/** What the figures of a version rest on. */
export const restsOn = z.object({
  standard: z.string(),
  /** The smoothing that it came to, in words. */
  smoothing: z.string(),
  arrived: side,
  delivered: side,
  /** What was judged of the two, as core/judgement has it; null where nothing was compared. */
  judgement: z.record(z.string(), z.unknown()).nullable(),
  /** The spread of repeats that intervals were made with, as a share of power. */
  spread: z.object({ share: z.number(), df: z.number(), from: z.string() }),
  bands: z.array(z.object({ name: z.string(), fromRpm: rpm, toRpm: rpm })),
});

/** A report as it was on a day: nothing of it changes any more. */
export const reportVersion = z.object({
  id: identifier,
  number: z.int().positive(),
  note: z.string(),
  view: reportView,
  restsOn,
  createdAt: moment,
});
export type ReportVersion = z.infer<typeof reportVersion>;

/** With what it says, as core/report wrote it. */
export const wholeReportVersion = reportVersion.extend({
  jobId: identifier,
  draft: reportDraft.nullable(),
  written: z.object({
    head: z.object({ about: z.string(), when: z.string() }),
    blocks: z.array(z.looseObject({ id: z.string() })),
  }),
});

/** What a remote tuner is sent: these runs, with what the job's report says of them. */
export const remoteWishes = reportView.extend({ runIds: z.array(identifier).min(1).max(60) });
