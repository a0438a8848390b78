import { z } from 'zod';
import { deviceKinds, helloMessage, isDynoKind, plainProtocol, type Hello } from './bench-link.ts';
import { dynoFile } from '../files/machine-and-air.ts';
import { bayNumber } from '../values/parts.ts';

/** An instrument that sends lines of text, connected by what somebody entered on Devices. */

const port = z.int().min(1).max(65_535);
/** A name or an address of a machine, as people write one. */
const host = z
  .string()
  .trim()
  .max(255)
  .regex(/^[A-Za-z0-9_.:-]+$/, 'write a name or an address such as 192.168.1.20');

/** How its lines come. */
export const lineWay = z.discriminatedUnion('by', [
  /** Suvok connects to it. */
  z.object({ by: z.literal('tcp client'), host, port }),
  /** It connects to Suvok; from this machine alone. */
  z.object({ by: z.literal('tcp server'), port, from: host }),
  z.object({ by: z.literal('udp'), port, from: host }),
  z.object({
    by: z.literal('serial'),
    path: z
      .string()
      .trim()
      .max(200)
      .regex(/^(\/dev\/[\w./:-]+|COM\d{1,3})$/, 'write a port such as /dev/ttyUSB0 or COM3'),
    baud: z.int().min(300).max(4_000_000),
  }),
]);
export type LineWay = z.infer<typeof lineWay>;

/** What one column of a line is. */
export const lineColumn = z.discriminatedUnion('is', [
  z.object({ is: z.literal('channel'), name: z.string().trim().min(1).max(64), unit: z.string().trim().max(16) }),
  /** The instrument's own clock. */
  z.object({ is: z.literal('time'), unit: z.enum(['s', 'ms', 'µs']) }),
  z.object({ is: z.literal('nothing') }),
]);

/** How a line is read. */
export const lineForm = z
  .object({
    separator: z.enum([',', ';', '\t', ' ', '|']),
    decimalComma: z.boolean(),
    /** Lines that do not begin so are passed over; every line counts where it is empty. */
    begins: z.string().max(32).default(''),
    /** From the left, after what the line begins with. */
    columns: z.array(lineColumn).min(1).max(64),
  })
  .refine(({ separator, decimalComma }) => !(decimalComma && separator === ','), {
    message: 'commas cannot part the columns and stand in the numbers too',
    path: ['separator'],
  })
  .refine(({ columns }) => columns.some(({ is }) => is === 'channel'), {
    message: 'name at least one column',
    path: ['columns'],
  })
  .refine(({ columns }) => columns.filter(({ is }) => is === 'time').length < 2, {
    message: 'one column at most is the time',
    path: ['columns'],
  });

export const plainInstrument = z
  .object({
    /** Its own lasting name, as on the bench link. */
    device: z.string().trim().min(1).max(64),
    kind: z.enum(deviceKinds),
    way: lineWay,
    form: lineForm,
    /** Sent to it once it is connected, where it must be asked; a line end is added. */
    greeting: z.string().max(200).default(''),
    /** Dynos only, and needed there. */
    dyno: dynoFile.nullable().default(null),
    engineToDrumRatio: z.number().positive().nullable().default(null),
  })
  .refine(({ kind, dyno }) => !isDynoKind(kind) || dyno?.kind === kind, {
    message: 'a dyno needs its machine: inertia, and the drum’s radius',
    path: ['dyno'],
  });
export type PlainInstrument = z.infer<typeof plainInstrument>;

/** The hello that is said for it on the bench link. @throws ZodError where what was entered makes no instrument */
export function helloOf({ device, kind, form, dyno, engineToDrumRatio }: PlainInstrument): Hello {
  return helloMessage.parse({
    type: 'hello',
    // What is said besides once it speaks: a protocol that sends again, and which of its lives it is.
    protocol: plainProtocol,
    device,
    kind,
    channels: form.columns.flatMap((column) =>
      column.is === 'channel' ? [{ name: column.name, unit: column.unit }] : [],
    ),
    ...(dyno ? { dyno } : {}),
    ...(engineToDrumRatio === null ? {} : { engineToDrumRatio }),
  });
}

/** Asked of the recorder: connect it, in the place of one of the same name. */
export const plainRequest = z.object({ instrument: plainInstrument, bay: bayNumber.nullable().default(null) });
export const plainName = z.object({ device: z.string().max(64) });

/** Listening to lines before anything is settled; ends by itself when nobody asks any more. */
export const trialRequest = z.object({ way: lineWay, greeting: z.string().max(200).default('') });
export type TrialRequest = z.infer<typeof trialRequest>;

/** What is heard of lines: the newest last. */
export const trialState = z.object({
  way: lineWay,
  connected: z.boolean(),
  /** Why nothing comes, as a sentence. */
  problem: z.string().nullable(),
  lines: z.array(z.string()),
  /** All that came, and how many a second. */
  count: z.int().nonnegative(),
  rateHz: z.number().nullable(),
});
export type TrialState = z.infer<typeof trialState>;
