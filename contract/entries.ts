import type { z } from 'zod';
import { charge, chargeFields, price, priceFields } from './charges.ts';
import { consentTemplate, consentTemplateFields } from './consents.ts';
import { forecast, forecastFields } from './forecasts.ts';
import { equipmentFields, equipmentRecord } from './equipment.ts';
import * as file from './job-file.ts';
import { workTime, workTimeFields } from './day.ts';
import { shiftNote, shiftNoteFields } from './shifts.ts';
import { target, targetFields } from './targets.ts';
import { part, partFields } from './vehicles.ts';

/** A kind of entry in a job's or vehicle's file: where it is found, what a page sends of it and what it gets. */
interface EntryForm {
  /** `shop`: it belongs to nothing, and stands at a path of its own. */
  of: 'jobs' | 'vehicles' | 'shop';
  path: string;
  /** With its article, as in “Adds …”. */
  what: string;
  fields: z.ZodObject;
  record: z.ZodType;
}

/** Where an entry of a kind is added. */
export const addedAt = ({ of, path }: Pick<EntryForm, 'of' | 'path'>): string =>
  of === 'shop' ? `/${path}` : `/${of}/:id/${path}`;

/** What the server answers to, and what the API's description lists: one statement for both. */
export const entryForms = {
  bands: {
    of: 'jobs',
    path: 'bands',
    what: 'a band of engine speeds that matters',
    fields: file.bandFields,
    record: file.band,
  },
  limits: { of: 'jobs', path: 'limits', what: 'a limit', fields: file.limitFields, record: file.limit },
  targets: {
    of: 'jobs',
    path: 'targets',
    what: 'a figure that the owner wants a setup to make',
    fields: targetFields,
    record: target,
  },
  inspections: {
    of: 'jobs',
    path: 'inspections',
    what: 'a line of the inspection',
    fields: file.inspectionFields,
    record: file.inspection,
  },
  fuelEntries: {
    of: 'jobs',
    path: 'fuel-entries',
    what: 'a line of the fuel ledger',
    fields: file.fuelFields,
    record: file.fuelEntry,
  },
  suspicions: {
    of: 'jobs',
    path: 'suspicions',
    what: 'a suspicion',
    fields: file.suspicionFields,
    record: file.suspicion,
  },
  views: {
    of: 'jobs',
    path: 'views',
    what: 'a named look at the comparison',
    fields: file.viewFields,
    record: file.savedView,
  },
  borrowedCurves: {
    of: 'jobs',
    path: 'borrowed-curves',
    what: 'a power curve from elsewhere, for orientation',
    fields: file.borrowedCurveFields,
    record: file.borrowedCurve,
  },
  notes: { of: 'jobs', path: 'notes', what: 'a note', fields: file.noteFields, record: file.note },
  workTimes: {
    of: 'jobs',
    path: 'work-times',
    what: 'time worked on a job, put right by hand',
    fields: workTimeFields,
    record: workTime,
  },
  prices: { of: 'shop', path: 'prices', what: 'a price', fields: priceFields, record: price },
  charges: { of: 'jobs', path: 'charges', what: 'a line of what a job comes to', fields: chargeFields, record: charge },
  consentTemplates: {
    of: 'shop',
    path: 'consent-templates',
    what: 'a text that owners are asked to agree to',
    fields: consentTemplateFields,
    record: consentTemplate,
  },
  forecasts: {
    of: 'jobs',
    path: 'forecasts',
    what: 'what somebody says that a setup will make, until its first run',
    fields: forecastFields,
    record: forecast,
  },
  equipment: {
    of: 'shop',
    path: 'equipment',
    what: 'equipment that must be kept in date',
    fields: equipmentFields,
    record: equipmentRecord,
  },
  shiftNotes: {
    of: 'shop',
    path: 'shift-notes',
    what: 'what a shift hands over to the next',
    fields: shiftNoteFields,
    record: shiftNote,
  },
  parts: { of: 'vehicles', path: 'parts', what: 'a part of a vehicle', fields: partFields, record: part },
} as const satisfies Record<string, EntryForm>;
