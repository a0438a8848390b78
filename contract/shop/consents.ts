import { z } from 'zod';
import type { Endpoint } from '../values/endpoint.ts';
import { freeText, identifier, moment, trimmedText } from '../values/parts.ts';

/** When a consent is asked for. */
export const consentAsked = ['every job', 'settings changed', 'diesel', 'by hand'] as const;

export const consentTemplateFields = z.object({
  title: trimmedText(120).min(1, 'name it'),
  text: freeText(6000).refine((text) => text.trim() !== '', { message: 'write what is agreed to' }),
  asked: z.enum(consentAsked),
});
/** `revision` is its version. */
export const consentTemplate = consentTemplateFields.extend({ id: identifier, revision: z.int().positive() });
export type ConsentTemplate = z.infer<typeof consentTemplate>;

/** Lines of the hand, each a list of points: across, down, pressure from 0 to 1. */
export const strokes = z
  .array(
    z
      .array(z.tuple([z.number(), z.number(), z.number()]))
      .min(1)
      .max(4000),
  )
  .min(1, 'sign with pen or finger first')
  .max(200);

/** A signature under a template as it was read: its version must still be that. */
export const newConsent = z.object({
  templateId: identifier,
  version: z.int().positive(),
  name: trimmedText(120).min(1, 'write the name of who signs'),
  strokes,
});

/** What was signed, in words; the hand itself is in the PDF. */
export const consent = z.object({
  id: identifier,
  /** Null: signed under a text of another shop. */
  templateId: identifier.nullable(),
  version: z.int().positive(),
  title: z.string(),
  text: z.string(),
  name: z.string(),
  signedAt: moment,
});
export type Consent = z.infer<typeof consent>;

export const consentEndpoints: readonly Endpoint[] = [
  {
    method: 'get',
    path: '/consent-templates',
    does: 'What owners are asked to agree to.',
    answer: z.array(consentTemplate),
  },
  {
    method: 'post',
    path: '/jobs/:id/consents',
    does: 'Keeps what was signed, with its text as it was read; refused where the text was changed meanwhile.',
    body: newConsent,
    answer: consent,
  },
  { method: 'delete', path: '/consents/:id', does: 'Takes a signed consent away: it stays stored.' },
  { method: 'get', path: '/consents/:id/consent.pdf', does: 'A signed consent as PDF.', binary: 'application/pdf' },
];
