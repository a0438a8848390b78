import { z } from 'zod';
import { armRequest, deviceRequest, deviceSettingsRequest, faultsRequest, mounting, ratioRequest } from './http.ts';
import { bayState } from './live.ts';
import { identifier } from './parts.ts';
import { runPlan } from './recording.ts';

/** What the server asks of the recorder over their local socket, and what the recorder says. */

const job = z.object({ jobId: identifier });

/** Each question with what it is asked with. The answer is the bay's state after it. */
export const bayAsk = z.discriminatedUnion('ask', [
  z.object({ ask: z.literal('mount'), with: mounting }),
  z.object({ ask: z.literal('unmount'), with: job }),
  z.object({ ask: z.literal('refresh'), with: job }),
  z.object({ ask: z.literal('plan'), with: runPlan }),
  z.object({ ask: z.literal('arm'), with: armRequest }),
  z.object({ ask: z.literal('end'), with: z.object({}) }),
  z.object({ ask: z.literal('set device'), with: deviceSettingsRequest }),
  z.object({ ask: z.literal('calibrate ratio'), with: ratioRequest }),
  z.object({ ask: z.literal('zero load cell'), with: deviceRequest }),
  z.object({ ask: z.literal('bring to rest'), with: deviceRequest }),
  z.object({ ask: z.literal('play faults'), with: faultsRequest }),
]);
export type BayAsk = z.infer<typeof bayAsk>;

export const recorderRequest = z.object({ id: z.int().nonnegative(), of: bayAsk });

export const recorderMessage = z.discriminatedUnion('type', [
  /** Said whenever the bay has changed, and first of all. */
  bayState,
  /** Columns of the rows that follow. */
  z.object({ type: z.literal('columns'), device: z.string(), columns: z.array(z.string()) }),
  /** `refusal` is a sentence for whoever asked, `failure` one for the log. */
  z.object({
    type: z.literal('answer'),
    id: z.int().nonnegative(),
    state: bayState,
    refusal: z.string().optional(),
    failure: z.string().optional(),
  }),
]);
export type RecorderMessage = z.infer<typeof recorderMessage>;
