import { z } from 'zod';
import type { Endpoint } from '../values/endpoint.ts';
import { identifier, moment, trimmedText } from '../values/parts.ts';

/** What a shop must keep in date. */
export const equipmentKinds = [
  'probe',
  'load cell',
  'straps',
  'extinguisher',
  'alarm',
  'licence',
  'weights',
  'instrument',
  'other',
] as const;

/** A day of the calendar, `2026-05-14`. */
export const calendarDay = z.iso.date();

export const equipmentFields = z.object({
  name: trimmedText(120).min(1, 'name it'),
  kind: z.enum(equipmentKinds),
  serial: trimmedText(80),
  /** What is done to it: checked in free air, calibrated, renewed. */
  what: trimmedText(120),
  lastOn: calendarDay.nullable(),
  everyDays: z.int().min(1).max(7300).nullable(),
  /** In the place of the last day and the interval. */
  dueOn: calendarDay.nullable(),
  /** The instrument on the bench link that it belongs to; empty for none. */
  device: trimmedText(64),
  note: trimmedText(500),
});
/** An entry as it is stored, before its files are told. */
export const equipmentRecord = equipmentFields.extend({ id: identifier, revision: z.int().positive() });

export const equipmentFile = z.object({
  id: identifier,
  name: z.string(),
  mime: z.string(),
  bytes: z.int().nonnegative(),
  createdAt: moment,
});
export const equipment = equipmentRecord.extend({ files: z.array(equipmentFile) });
export type Equipment = z.infer<typeof equipment>;

export const equipmentEndpoints: readonly Endpoint[] = [
  { method: 'get', path: '/equipment', does: 'All equipment with its dates and files.', answer: z.array(equipment) },
  {
    method: 'post',
    path: '/equipment/:id/files',
    does: 'Takes a certificate in: PDF, JPEG, PNG or WebP.',
    form: ['file'],
    answer: equipmentFile,
  },
  {
    method: 'get',
    path: '/equipment-files/:id/content',
    does: 'A certificate as it came.',
    binary: 'application/octet-stream',
  },
  { method: 'delete', path: '/equipment-files/:id', does: 'Takes a certificate away.' },
];
