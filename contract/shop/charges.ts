import { z } from 'zod';
import type { Endpoint } from '../values/endpoint.ts';
import { identifier, trimmedText } from '../values/parts.ts';

/** What something is asked for. */
export const chargedPer = ['dyno hour', 'work hour', 'litre', 'tune file', 'piece'] as const;
const currency = trimmedText(8).min(1, 'name the currency');
const stored = { id: identifier, revision: z.int().positive() };

export const priceFields = z.object({
  name: trimmedText(120).min(1, 'name what it is asked for'),
  per: z.enum(chargedPer),
  amount: z.number().min(0).max(10_000_000),
  currency,
});
export const price = priceFields.extend(stored);
export type Price = z.infer<typeof price>;

export const chargeFields = z.object({
  what: trimmedText(200).min(1, 'say what it is for'),
  per: z.enum(chargedPer),
  quantity: z.number().min(-1_000_000).max(1_000_000),
  /** For one of it. */
  amount: z.number().min(0).max(10_000_000),
  currency,
  /** Why it is not what the acts tell; empty where it is. */
  why: trimmedText(300),
  /** The setup whose part it is. */
  setupId: identifier.nullable(),
});
export const charge = chargeFields.extend(stored);
export type Charge = z.infer<typeof charge>;

export const chargeEndpoints: readonly Endpoint[] = [
  { method: 'get', path: '/prices', does: 'The price list.', answer: z.array(price) },
];
