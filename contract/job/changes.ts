import { z } from 'zod';
import { jobEntryKinds } from './entries.ts';
import { identifier } from '../values/parts.ts';

/** What a page fetches by itself and keeps, by name. */
export const subjects = [
  'job',
  'history',
  'jobs',
  'vehicle',
  'vehicles',
  'owners',
  'day',
  'unclaimed',
  'check-history',
  'fuel-sags',
  'shared-links',
  'equipment',
  'prices',
  'consent-templates',
  'shift-notes',
  'forecasts',
] as const;
export type Subject = (typeof subjects)[number];

/** Whatever is said of a job is seen in the job, its timeline, the lists of jobs and of its vehicle, and the day. */
const ofJob: readonly Subject[] = ['job', 'history', 'jobs', 'vehicle', 'day'];

/** What a change of each table touches: every table of which changes are told, or kept in the history. */
export const touches: Readonly<Record<string, readonly Subject[]>> = {
  ...Object.fromEntries(Object.values(jobEntryKinds).map(({ table }) => [table, ofJob])),
  forecast: [...ofJob, 'forecasts'],
  job: [...ofJob, 'vehicles', 'forecasts'],
  setup: [...ofJob, 'forecasts'],
  run: [...ofJob, 'vehicles', 'unclaimed', 'check-history', 'fuel-sags', 'forecasts'],
  baseline: ofJob,
  consent: ofJob,
  photo: ofJob,
  setup_tune_file: ofJob,
  tuner_package: ofJob,
  report_version: [...ofJob, 'shared-links'],
  shared_link: ['shared-links', 'history'],
  booking: ['day', 'job', 'jobs'],
  owner: ['owners', 'vehicle', 'vehicles', 'job', 'jobs', 'history', 'day'],
  vehicle: ['vehicle', 'vehicles', 'owners', 'job', 'jobs', 'history', 'day'],
  vehicle_part: ['vehicle', 'history'],
  equipment: ['equipment', 'day'],
  equipment_file: ['equipment', 'day'],
  price: ['prices'],
  consent_template: ['consent-templates', 'day'],
  shift_note: ['shift-notes', 'day'],
};

/** What a change of some tables touches; everything where one of them is not known here. */
export function touchedBy(tables: Iterable<string>): readonly Subject[] {
  const touched = new Set<Subject>();
  for (const table of tables) for (const subject of touches[table] ?? subjects) touched.add(subject);
  return [...touched];
}

/** What the database says of a change: which table, and whose; `null` where it belongs to no job. */
export const changeNotice = z.object({ table: z.string(), job: identifier.nullable() });

/** The header of an answer that names the tables which the act changed. */
export const touchedHeader = 'suvok-touched';
