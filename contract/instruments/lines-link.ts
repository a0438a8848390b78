import { z } from 'zod';
import { plainInstrument, trialRequest, trialState } from './plain-instrument.ts';

/** What the recorder and whoever takes lines of instruments for it say to each other: one line of JSON each. */

/** Said by the recorder: all that is to be taken from now on. */
export const linesWanted = z.object({
  benchLinkPort: z.int().min(1).max(65_535),
  instruments: z.array(plainInstrument),
  /** What somebody listens to before it is settled. */
  listening: trialRequest.nullable(),
});
export type LinesWanted = z.infer<typeof linesWanted>;

/** Said to the recorder whenever it changes. */
export const linesTold = z.object({
  /** Why nothing comes from one, as a sentence, by its name. */
  problems: z.record(z.string(), z.string()),
  trial: trialState.nullable(),
});
export type LinesTold = z.infer<typeof linesTold>;
