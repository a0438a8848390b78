import { z } from 'zod';

/** What records and requests are made of. */
export const identifier = z.int().positive();
export const moment = z.iso.datetime({ offset: true });
export const trimmedText = (longest: number) => z.string().trim().max(longest);
export const freeText = (longest: number) => z.string().max(longest);
export const rpm = z.int().positive().max(30_000);
