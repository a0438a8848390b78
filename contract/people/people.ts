import { z } from 'zod';
import { identifier, moment, trimmedText } from '../values/parts.ts';
import { role } from '../values/role.ts';
import { units } from '../values/units.ts';

/** Long beats odd: no rule about kinds of characters. */
export const shortestPassword = 12;
const password = z.string().min(shortestPassword, `a password has ${shortestPassword} characters at least`).max(128);
const name = trimmedText(60).min(1, 'give a name');

export const person = z.object({
  id: identifier,
  name: z.string(),
  role,
  createdAt: moment,
  /** Cannot sign in any more; what they did carries their name. */
  disabledAt: moment.nullable(),
  /** What they are told quantities in; null until they chose. */
  units: units.nullable(),
});
export type Person = z.infer<typeof person>;

/** Who asks, and whether Suvok has accounts at all. */
export const account = z.object({ accounts: z.boolean(), me: person.nullable() });
export type Account = z.infer<typeof account>;

/** How other machines reach Suvok. */
export const outside = z.object({
  hosts: z.array(z.string()),
  port: z.int(),
  /** SHA-256 of the certificate, as browsers show it. */
  fingerprint: z.string(),
  /** Made here and signed by nobody: whoever opens the page first compares the fingerprint. */
  madeHere: z.boolean(),
});
export type Outside = z.infer<typeof outside>;

/** The addresses that others open, one for each name. */
export const outsideOrigins = ({ hosts, port }: Outside): string[] =>
  hosts.map((host) => `https://${host.includes(':') ? `[${host}]` : host}:${port}`);

/** The same in one line. */
export const outsideAddresses = (outside: Outside): string => outsideOrigins(outside).join(', ');

export const signIn = z.object({ name, password: z.string().max(1000) });
export const firstAccount = z.object({ name, password });
export const newPerson = z.object({ name, role, password });
export type NewPerson = z.input<typeof newPerson>;
export const personChange = z.object({ role, password, disabled: z.boolean() }).partial();
export type PersonChange = z.input<typeof personChange>;
export const ownPassword = z.object({ before: z.string().max(1000), password });
