import type { z } from 'zod';
import {
  consent,
  consentTemplate,
  strokes,
  type Consent,
  type ConsentTemplate,
  type newConsent,
} from '../../contract/shop/consents.ts';
import { Refusal } from '../../core/refusal.ts';
import type { Queryable } from '../database/database.ts';
import { recordOf } from '../database/rows.ts';

const columns = 'id, template_id, version, title, text, name, signed_at';
export type Strokes = z.output<typeof strokes>;

export async function consentTemplates(database: Queryable): Promise<ConsentTemplate[]> {
  const { rows } = await database.query(
    'select id, revision, title, text, asked from consent_template where removed_at is null order by id',
  );
  return rows.map((row) => recordOf(consentTemplate, row));
}

export async function consentsOfJob(database: Queryable, jobId: number): Promise<Consent[]> {
  const { rows } = await database.query(
    `select ${columns} from consent where job_id = $1 and removed_at is null order by id`,
    [jobId],
  );
  return rows.map((row) => recordOf(consent, row));
}

/** A consent as it was signed: with the lines of the hand, and the name of the car. */
export async function signedConsent(
  database: Queryable,
  id: number,
): Promise<(Consent & { strokes: Strokes; vehicle: string }) | undefined> {
  const { rows } = await database.query(
    `select ${columns}, strokes, (select vehicle.name from job join vehicle on vehicle.id = vehicle_id where job.id = job_id) as vehicle
     from consent where id = $1 and removed_at is null`,
    [id],
  );
  return (
    rows[0] && {
      ...recordOf(consent, rows[0]),
      strokes: strokes.parse(rows[0].strokes),
      vehicle: String(rows[0].vehicle),
    }
  );
}

/** The lines of the hands under a job's consents, by their numbers. */
export async function handsOfJob(database: Queryable, jobId: number): Promise<Record<string, Strokes>> {
  const { rows } = await database.query('select id, strokes from consent where job_id = $1 and removed_at is null', [
    jobId,
  ]);
  return Object.fromEntries(rows.map((row) => [String(row.id), strokes.parse(row.strokes)]));
}

/** Keeps what was signed, with its text. @throws Refusal where the text is not the one that was read */
export async function addConsent(
  database: Queryable,
  jobId: number,
  { templateId, version, name, strokes }: z.output<typeof newConsent>,
): Promise<number> {
  const { rows } = await database.query<{ id: number }>(
    `insert into consent (job_id, template_id, version, title, text, name, strokes)
     select $1, id, revision, title, text, $4, $5 from consent_template
     where id = $2 and revision = $3 and removed_at is null returning id`,
    [jobId, templateId, version, name, JSON.stringify(strokes)],
  );
  if (!rows[0])
    throw new Refusal('The text was changed or taken away while it was being read. Nothing was signed: read it again.');
  return Number(rows[0].id);
}
