import { z } from 'zod';
import { refusal } from './http.ts';

/** Long work as it is told, a line of JSON each; the last one is the answer or the error. */
export const workLine = z.union([
  z.object({ doing: z.enum(['reading', 'storing', 'comparing', 'writing']), done: z.number().min(0).max(1) }),
  z.object({ answer: z.unknown() }),
  z.object({ status: z.int(), ...refusal.shape }),
]);
export type WorkLine = z.infer<typeof workLine>;
