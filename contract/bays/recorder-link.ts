import { z } from 'zod';
import {
  armRequest,
  bayName,
  deviceRequest,
  deviceSettingsRequest,
  faultsRequest,
  mounting,
  ratioRequest,
} from './bay-requests.ts';
import { baysState } from './live.ts';
import { bayNumber, identifier } from '../values/parts.ts';
import { pairedName, pairingCode } from '../people/pairing.ts';
import { plainName, plainRequest, trialRequest } from '../instruments/plain-instrument.ts';
import { runPlan, setPoint } from '../instruments/recording.ts';

/** What the server asks of the recorder over their local socket, and what the recorder says. */

const bay = bayNumber;
const job = z.object({ jobId: identifier });
const nothing = z.object({});

/** Each question with what it is asked with. The answer is the state of all bays after it. */
export const bayAsk = z.discriminatedUnion('ask', [
  z.object({ ask: z.literal('mount'), bay, with: mounting }),
  z.object({ ask: z.literal('clear'), bay, with: nothing }),
  z.object({ ask: z.literal('plan'), bay, with: runPlan }),
  z.object({ ask: z.literal('arm'), bay, with: armRequest.extend({ by: z.string().max(120) }) }),
  z.object({ ask: z.literal('end'), bay, with: nothing }),
  z.object({ ask: z.literal('hold'), bay, with: setPoint }),
  z.object({ ask: z.literal('add bay'), with: bayName }),
  z.object({ ask: z.literal('rename bay'), bay, with: bayName }),
  z.object({ ask: z.literal('remove bay'), bay, with: nothing }),
  z.object({ ask: z.literal('unmount'), with: job }),
  z.object({ ask: z.literal('refresh'), with: job }),
  z.object({ ask: z.literal('set device'), with: deviceSettingsRequest }),
  z.object({ ask: z.literal('calibrate ratio'), with: ratioRequest }),
  z.object({ ask: z.literal('zero load cell'), with: deviceRequest }),
  z.object({ ask: z.literal('bring to rest'), with: deviceRequest }),
  z.object({ ask: z.literal('play faults'), with: faultsRequest }),
  z.object({ ask: z.literal('connect plain'), with: plainRequest }),
  z.object({ ask: z.literal('disconnect plain'), with: plainName }),
  z.object({ ask: z.literal('listen'), with: trialRequest }),
  z.object({ ask: z.literal('end listening'), with: nothing }),
  z.object({ ask: z.literal('offer pairing'), with: pairingCode }),
  z.object({ ask: z.literal('withdraw pairing'), with: nothing }),
  z.object({ ask: z.literal('revoke pairing'), with: pairedName }),
]);
export type BayAsk = z.infer<typeof bayAsk>;

/**
 * What is asked in haste names when it is no longer worth doing, ms since the machine began: whoever asked has been told
 * by then that it was not done.
 */
export const recorderRequest = z.object({
  id: z.int().nonnegative(),
  of: bayAsk,
  notAfterMs: z.number().optional(),
});

export const recorderMessage = z.discriminatedUnion('type', [
  /** Said whenever a bay has changed, and first of all. */
  baysState,
  /** Columns of the rows of a bay that follow. */
  z.object({ type: z.literal('columns'), bay, device: z.string(), columns: z.array(z.string()) }),
  /** `refusal` is a sentence for whoever asked, `failure` one for the log. */
  z.object({
    type: z.literal('answer'),
    id: z.int().nonnegative(),
    state: baysState,
    refusal: z.string().optional(),
    failure: z.string().optional(),
  }),
]);
export type RecorderMessage = z.infer<typeof recorderMessage>;
