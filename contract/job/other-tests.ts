import { z } from 'zod';
import type { Endpoint } from '../values/endpoint.ts';
import { runKinds } from '../instruments/recording.ts';

const figure = { id: z.string(), label: z.string(), unit: z.string(), digits: z.int() };
const number = z.number().nullable();

/** Runs of a setup that are no power runs, kind by kind, against those of another. Half widths are of 95 % intervals; null where there is none. */
export const setupTests = z.object({
  setup: z.string(),
  against: z.string(),
  kinds: z.array(
    z.object({
      kind: z.enum(runKinds),
      /** Labels of the runs that are judged; null where only one of the two has such runs. */
      judged: z
        .object({
          before: z.array(z.string()),
          after: z.array(z.string()),
          figures: z.array(
            z.object({
              ...figure,
              before: number,
              after: number,
              difference: number,
              halfWidth: number,
              /** Whether it is one that a claim may be made of. */
              asked: z.boolean(),
              claim: z.enum(['less', 'more']).nullable(),
              /** Whether the claim is what is wanted. */
              good: z.boolean().nullable(),
            }),
          ),
          caveats: z.array(z.object({ severity: z.enum(['mind', 'stop']), text: z.string() })),
          next: z.string().nullable(),
        })
        .nullable(),
      runs: z.array(
        z.object({
          id: z.int(),
          label: z.string(),
          figures: z.array(z.object({ ...figure, value: number, halfWidth: number })),
          found: z.array(z.object({ id: z.string(), severity: z.string(), message: z.string() })),
          /** Why it has no figures. */
          why: z.string().nullable(),
        }),
      ),
    }),
  ),
});

export const testEndpoints: readonly Endpoint[] = [
  {
    method: 'get',
    path: '/setups/:id/tests',
    does: 'Runs of a setup that are no power runs (idle, cold start, response, cruise, road check, steady-speed steps), judged against those of another setup: `against` is its letter, else the one that it was changed from.',
    query: ['against'],
    answer: setupTests,
  },
];
