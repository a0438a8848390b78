import { z } from 'zod';
import { trimmedText } from './parts.ts';
import { units } from './units.ts';

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
  /** What the owner is told quantities in; null for the units of whoever looks. */
  units: units.nullable(),
});
export type ReportDraft = z.infer<typeof reportDraft>;
