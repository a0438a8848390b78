import { z } from 'zod';
import { moment } from '../values/parts.ts';
import { outside } from './people.ts';

/** Instruments on other machines: each is let in once by a code, and then by a key of its own. */

export const pairedInstrument = z.object({
  /** Its own lasting name on the bench link; the key is for this name alone. */
  device: z.string().min(1).max(64),
  at: moment,
});

/** What pages know of it: never a code, never a key. */
export const pairingState = z.object({
  /** How instruments on other machines reach Suvok; none while it listens to this machine alone. */
  outside: outside.nullable(),
  /** Until when the code that an owner was shown lets one in. */
  until: moment.nullable(),
  instruments: z.array(pairedInstrument),
});

export const pairedName = z.object({ device: pairedInstrument.shape.device });
export const pairingCode = z.object({ code: z.string(), until: moment });
/** The code as its owner is shown it, once, and where the instrument is to say it. */
export const pairingOffer = z.object({ ...pairingCode.shape, at: moment, outside });
export type PairingOffer = z.infer<typeof pairingOffer>;
