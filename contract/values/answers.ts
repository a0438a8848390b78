import { z } from 'zod';

/**
 * The one form in which the server says no.
 *
 * `field`: the one that the sentence is about. `current`: what is stored now, where somebody else changed it meanwhile.
 */
export const refusal = z.object({
  error: z.string(),
  field: z.string().optional(),
  current: z.record(z.string(), z.unknown()).optional(),
});

/** Long work as it is told, a line of JSON each; the last one is the answer or the error. */
export const workLine = z.union([
  z.object({ doing: z.enum(['reading', 'storing', 'comparing', 'writing']), done: z.number().min(0).max(1) }),
  z.object({ answer: z.unknown() }),
  z.object({ status: z.int(), ...refusal.shape }),
]);
export type WorkLine = z.infer<typeof workLine>;
