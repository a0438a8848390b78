import { z } from 'zod';
import { charge, chargeFields, price, priceFields } from '../shop/charges.ts';
import { consentTemplate, consentTemplateFields } from '../shop/consents.ts';
import { forecast, forecastFields } from '../shop/forecasts.ts';
import { equipmentFields, equipmentRecord } from '../shop/equipment.ts';
import * as file from './job-file.ts';
import { workTime, workTimeFields } from '../shop/day.ts';
import { shiftNote, shiftNoteFields } from '../shop/shifts.ts';
import { target, targetFields } from './targets.ts';
import { part, partFields } from '../shop/vehicles.ts';

/**
 * The short lists of a job, a vehicle or the shop, each described once. What a
 * page sends and gets, the API's requests, the statements of the database, undo,
 * the job's record, its timeline and what travels with it follow from here; a
 * test holds each kind's table and triggers against it.
 */
interface AnyEntryKind {
  path: string;
  /** With its article, as in “Adds …”. */
  what: string;
  /** What a page sends, and what it gets. */
  fields: z.ZodObject;
  record: z.ZodType<Record<string, unknown>>;
  table: string;
  /** The order of the list, as columns; `id` where it is left out. */
  order?: string;
  /** Fields that are kept as exact decimals. */
  amounts?: readonly string[];
  /** Fields that are kept beside the table, by code of their own. */
  beside?: readonly string[];
  /** Column that there is one entry for in each job: adding it again changes it. */
  onlyOne?: string;
}

interface JobEntryKindForm extends AnyEntryKind {
  of: 'jobs';
  /** Whether one can be added or changed while the job is closed. */
  whileClosed: 'refused' | 'taken';
  /** What the job’s timeline says of a change: a word and the field that names the entry; words made by code; or nothing. */
  timeline: { word: string; named: string } | 'own words' | 'nothing';
  /** How it goes into another Suvok with its job: as it is, with its setup’s new number (or without one), only where its setup is there, or by code of its own. */
  travels: 'as it is' | 'with its setup' | 'where its setup is' | 'own way';
}

interface OtherEntryKindForm extends AnyEntryKind {
  /** `shop`: it belongs to nothing, and stands at a path of its own. */
  of: 'vehicles' | 'shop';
}

/** Where an entry of a kind is added. */
export const addedAt = ({ of, path }: Pick<JobEntryKindForm | OtherEntryKindForm, 'of' | 'path'>): string =>
  of === 'shop' ? `/${path}` : `/${of}/:id/${path}`;

export const jobEntryKinds = {
  bands: {
    of: 'jobs',
    path: 'bands',
    what: 'a band of engine speeds that matters',
    fields: file.bandFields,
    record: file.band,
    table: 'band',
    order: 'from_rpm, id',
    whileClosed: 'refused',
    timeline: { word: 'Band', named: 'name' },
    travels: 'as it is',
  },
  limits: {
    of: 'jobs',
    path: 'limits',
    what: 'a limit',
    fields: file.limitFields,
    record: file.limit,
    table: 'job_limit',
    whileClosed: 'refused',
    timeline: 'own words',
    travels: 'as it is',
  },
  targets: {
    of: 'jobs',
    path: 'targets',
    what: 'a figure that the owner wants a setup to make',
    fields: targetFields,
    record: target,
    table: 'target',
    whileClosed: 'refused',
    timeline: { word: 'Target:', named: 'quantity' },
    travels: 'as it is',
  },
  inspections: {
    of: 'jobs',
    path: 'inspections',
    what: 'a line of the inspection',
    fields: file.inspectionFields,
    record: file.inspection,
    table: 'inspection',
    onlyOne: 'key',
    whileClosed: 'refused',
    timeline: 'own words',
    travels: 'as it is',
  },
  fuelEntries: {
    of: 'jobs',
    path: 'fuel-entries',
    what: 'a line of the fuel ledger',
    fields: file.fuelFields,
    record: file.fuelEntry,
    table: 'fuel_entry',
    order: 'at, id',
    whileClosed: 'refused',
    timeline: 'own words',
    travels: 'as it is',
  },
  suspicions: {
    of: 'jobs',
    path: 'suspicions',
    what: 'a suspicion',
    fields: file.suspicionFields,
    record: file.suspicion,
    table: 'suspicion',
    beside: ['runIds'],
    whileClosed: 'refused',
    timeline: 'own words',
    travels: 'own way',
  },
  views: {
    of: 'jobs',
    path: 'views',
    what: 'a named look at the comparison',
    fields: file.viewFields,
    record: file.savedView,
    table: 'saved_view',
    order: 'name, id',
    whileClosed: 'taken',
    timeline: { word: 'View', named: 'name' },
    travels: 'own way',
  },
  borrowedCurves: {
    of: 'jobs',
    path: 'borrowed-curves',
    what: 'a power curve from elsewhere, for orientation',
    fields: file.borrowedCurveFields,
    record: file.borrowedCurve,
    table: 'borrowed_curve',
    order: 'name, id',
    whileClosed: 'taken',
    timeline: { word: 'Borrowed curve', named: 'name' },
    travels: 'own way',
  },
  notes: {
    of: 'jobs',
    path: 'notes',
    what: 'a note',
    fields: file.noteFields,
    record: file.note,
    table: 'note',
    order: 'at, id',
    whileClosed: 'taken',
    // It stands in the timeline itself.
    timeline: 'nothing',
    travels: 'as it is',
  },
  workTimes: {
    of: 'jobs',
    path: 'work-times',
    what: 'time worked on a job, put right by hand',
    fields: workTimeFields,
    record: workTime,
    table: 'work_time',
    order: 'starts_at, id',
    whileClosed: 'taken',
    timeline: { word: 'Time worked:', named: 'why' },
    travels: 'as it is',
  },
  charges: {
    of: 'jobs',
    path: 'charges',
    what: 'a line of what a job comes to',
    fields: chargeFields,
    record: charge,
    table: 'charge',
    amounts: ['quantity', 'amount'],
    whileClosed: 'taken',
    timeline: { word: 'Charge:', named: 'what' },
    travels: 'with its setup',
  },
  forecasts: {
    of: 'jobs',
    path: 'forecasts',
    what: 'what somebody says that a setup will make, until its first run',
    fields: forecastFields,
    record: forecast,
    table: 'forecast',
    whileClosed: 'taken',
    timeline: { word: 'Forecast by', named: 'who' },
    travels: 'where its setup is',
  },
} as const satisfies Record<string, JobEntryKindForm>;

const otherEntryKinds = {
  prices: {
    of: 'shop',
    path: 'prices',
    what: 'a price',
    fields: priceFields,
    record: price,
    table: 'price',
    amounts: ['amount'],
  },
  consentTemplates: {
    of: 'shop',
    path: 'consent-templates',
    what: 'a text that owners are asked to agree to',
    fields: consentTemplateFields,
    record: consentTemplate,
    table: 'consent_template',
  },
  equipment: {
    of: 'shop',
    path: 'equipment',
    what: 'equipment that must be kept in date',
    fields: equipmentFields,
    record: equipmentRecord,
    table: 'equipment',
  },
  shiftNotes: {
    of: 'shop',
    path: 'shift-notes',
    what: 'what a shift hands over to the next',
    fields: shiftNoteFields,
    record: shiftNote,
    table: 'shift_note',
  },
  parts: {
    of: 'vehicles',
    path: 'parts',
    what: 'a part of a vehicle',
    fields: partFields,
    record: part,
    table: 'vehicle_part',
  },
} as const satisfies Record<string, OtherEntryKindForm>;

export const entryKinds = { ...jobEntryKinds, ...otherEntryKinds };
export type EntryKind = keyof typeof entryKinds;
export type JobEntryKind = keyof typeof jobEntryKinds;
/** Where entries of a kind are found, below the job, the vehicle or the shop. */
export type EntryPath = (typeof entryKinds)[EntryKind]['path'];

/** One kind, with all that a kind may have. */
export const entryKind = (kind: EntryKind): JobEntryKindForm | OtherEntryKindForm => entryKinds[kind];

/** The fields of a kind that are columns of its table. */
export function columnFields(kind: EntryKind): string[] {
  const { fields, beside = [] } = entryKind(kind);
  return Object.keys(fields.shape).filter((field) => !beside.includes(field));
}

/** The kinds of a job’s entries of which something holds. */
export const jobKindsWhere = (holds: (kind: JobEntryKindForm) => boolean): JobEntryKind[] =>
  (Object.keys(jobEntryKinds) as JobEntryKind[]).filter((kind) => holds(jobEntryKinds[kind]));

type ListOf<Kind extends JobEntryKind> = z.ZodDefault<z.ZodArray<(typeof jobEntryKinds)[Kind]['record']>>;

/** The lists of a job’s record. One that an earlier Suvok did not know is empty. */
export const jobEntryLists = Object.fromEntries(
  Object.entries(jobEntryKinds).map(([kind, { record }]) => [kind, z.array(record as z.ZodType).default([])]),
) as { [Kind in JobEntryKind]: ListOf<Kind> };
