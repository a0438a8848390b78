import { z } from 'zod';

/** What records and requests are made of. */
export const identifier = z.int().positive();
/** A recorder has so many bays at most. */
export const mostBays = 8;
export const bayNumber = z.int().min(1).max(9999);
/** A moment that a shop can mean: PostgreSQL and browsers read others differently. */
export const moment = z.iso
  .datetime({ offset: true })
  .refine((text) => /^(19|20|21)\d\d-/.test(text), { message: 'lies outside of the years 1900 to 2199' });
export const trimmedText = oncePerLength((longest) => z.string().trim().max(longest));
export const freeText = oncePerLength((longest) => z.string().max(longest));
export const rpm = z.int().positive().max(30_000);

/** A schema is made once for each length: a page makes all of the contract before it shows anything. */
function oncePerLength<Schema>(make: (longest: number) => Schema): (longest: number) => Schema {
  const made = new Map<number, Schema>();
  return (longest) => {
    const schema = made.get(longest) ?? make(longest);
    made.set(longest, schema);
    return schema;
  };
}
