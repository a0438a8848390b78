import { z } from 'zod';
import type { Endpoint } from '../values/endpoint.ts';
import { freeText, identifier, moment, trimmedText } from '../values/parts.ts';

/** What one shift tells the next: what is on the dynos, who waits, what to look out for. */
export const shiftNoteFields = z.object({
  text: freeText(4000).refine((text) => text.trim() !== '', { message: 'write what the next shift must know' }),
  /** Who hands over, and when. */
  handedBy: trimmedText(120),
  at: moment,
  /** Who read it and took over; null until somebody has. */
  takenBy: trimmedText(120).nullable().default(null),
  takenAt: moment.nullable().default(null),
});
export const shiftNote = shiftNoteFields.extend({ id: identifier, revision: z.int().positive() });
export type ShiftNote = z.infer<typeof shiftNote>;

export const shiftEndpoints: readonly Endpoint[] = [
  {
    method: 'get',
    path: '/shift-notes',
    does: 'What shifts handed over to the next ones, the last first.',
    answer: z.array(shiftNote),
  },
];
