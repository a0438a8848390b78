import type { ErrorRequestHandler, Request, Response } from 'express';
import { z } from 'zod';
import { touchedHeader } from '../../contract/job/changes.ts';
import { problemIn } from '../../contract/files/machine-and-air.ts';
import { jsonIn } from '../../contract/values/text.ts';
import { identifier } from '../../contract/values/parts.ts';
import type { Log } from '../../contract/values/service-log.ts';
import { Refusal } from '../../core/refusal.ts';
import { inTransaction, type Database, type Queryable } from '../../store/database/database.ts';
import { asRefusal, EditConflict } from '../../store/database/rows.ts';
import { HttpRefusal } from '../http-refusal.ts';

/**
 * The request's body in the form of a schema.
 * @throws HttpRefusal 400 with a sentence; a field that nobody knows or that cannot be set is refused too, for it would seem to be taken
 */
export function bodyAs<T extends z.ZodType>(request: Pick<Request, 'body'>, schema: T): z.output<T> {
  refuseStrangers(request.body, schema);
  const parsed = schema.safeParse(request.body ?? {});
  if (!parsed.success) {
    const field = parsed.error.issues[0]?.path.join('.');
    throw new HttpRefusal(400, `The request was not understood: ${problemIn(parsed.error)}.`, field || undefined);
  }
  return parsed.data;
}

/**
 * What a form says in its field `settings`, as JSON.
 * @throws HttpRefusal 400 with a sentence
 */
export function settingsAs<T extends z.ZodType>(request: Pick<Request, 'body'>, schema: T): z.output<T> {
  const words = (request.body as { settings?: string } | undefined)?.settings ?? '';
  const settings = schema.safeParse(jsonIn(words));
  if (!settings.success) throw new HttpRefusal(400, `The settings were not understood: ${problemIn(settings.error)}.`);
  return settings.data;
}

/** Refuses a body that names a field which cannot be set. @throws HttpRefusal 400 */
export function refuseStrangers(body: unknown, schema: z.ZodType): void {
  if (!(schema instanceof z.ZodObject) || typeof body !== 'object' || body === null) return;
  const known = Object.keys(schema.shape);
  // The revision is asked for beside the fields, and read by itself.
  const stranger = Object.keys(body).find((field) => field !== 'revision' && !known.includes(field));
  if (stranger === undefined) return;
  const what = known.length === 0 ? 'nothing can be set here' : `what can be set here is ${known.join(', ')}`;
  throw new HttpRefusal(400, `"${stranger.slice(0, 40)}" cannot be set; ${what}. Nothing was changed.`, stranger);
}

/** The number in the address. @throws HttpRefusal 404 */
export function idOf(request: Request): number {
  const written = String(request.params.id);
  const parsed = identifier.safeParse(/^[1-9]\d{0,14}$/.test(written) ? Number(written) : undefined);
  if (!parsed.success) throw new HttpRefusal(404, `"${written.slice(0, 40)}" is not a number of anything stored.`);
  return parsed.data;
}

/** @throws HttpRefusal 404 when there is nothing */
export function found<T>(thing: T | undefined | false, what: string): T {
  if (thing === undefined || thing === false) throw new HttpRefusal(404, `There is no such ${what}.`);
  return thing;
}

/** Marks a transaction as that of whoever asks, so that the history says who it was. */
export const marksPerson = (response: Response) => async (client: Queryable) => {
  const { person } = response.locals;
  if (person) await client.query(`select set_config('suvok.person', $1, true)`, [String(person.id)]);
};

/**
 * Does one act in a transaction, and names it in the header `suvok-act`, so
 * that the page can offer to undo it; in another, the tables that it changed.
 */
export async function act<T>(
  database: Database,
  response: Response,
  work: (client: Queryable) => Promise<T>,
): Promise<T> {
  return inTransaction(database, async (client) => {
    await marksPerson(response)(client);
    const result = await work(client);
    const { rows } = await client.query<{ act: string | null; touched: string | null }>(
      `select act, (select string_agg(distinct subject, ',') from history where history.act = present.act::bigint) as touched
       from (select pg_current_xact_id_if_assigned()::text as act) as present`,
    );
    if (rows[0]?.act) response.set('suvok-act', rows[0].act);
    if (rows[0]?.touched) response.set(touchedHeader, rows[0].touched);
    return result;
  });
}

/** Every error as one sentence in JSON; what we did not expect is logged in full and told in short, a refusal with its place. */
export function errorAnswer(log: Log): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    if (response.headersSent && !response.locals.inLines) return next(error);
    const { status, text, ...about } = sentenceFor(asRefusal(error));
    // The key of a shared link opens it: no log has one.
    const path = request.path.replace(/^\/api\/shared\/[^/]+/, '/api/shared/…');
    const place = { method: request.method, path, status };
    if (status === 500) log.error({ ...place, err: error }, 'a request failed');
    else log.info(place, 'refused');
    if (response.locals.inLines) return void response.end(`${JSON.stringify({ status, error: text, ...about })}\n`);
    // Whatever a route had promised of its answer, nobody may keep a refusal.
    response
      .set('cache-control', 'no-store')
      .status(status)
      .json({ error: text, ...about });
  };
}

interface Sentence {
  status: number;
  text: string;
  field?: string | undefined;
  current?: Record<string, unknown> | undefined;
}

function sentenceFor(error: unknown): Sentence {
  if (error instanceof HttpRefusal) return { status: error.status, text: error.message, field: error.field };
  if (error instanceof EditConflict)
    return { status: 409, text: error.message, field: error.field, current: error.current };
  if (error instanceof Refusal) return { status: 422, text: error.message };
  const { type, code, status } = error as { type?: string; code?: string; status?: number };
  if (type === 'entity.parse.failed') return { status: 400, text: 'The request is not JSON.' };
  if (type === 'entity.too.large' || code === 'LIMIT_FILE_SIZE') {
    return {
      status: 413,
      text: 'The file is larger than can be taken: 200 MB for a recording, 25 MB for a photo, 64 MB for a tune file, 4 GB for a job bundle.',
    };
  }
  if (code?.startsWith('LIMIT_'))
    return { status: 400, text: 'The upload holds more than a recording and its settings.' };
  // PostgreSQL: a foreign key, a check or a uniqueness of the schema said no.
  if (code === '23503' || code === '23514' || code === '23505') {
    return {
      status: 409,
      text: 'That does not fit what is stored; it may have changed meanwhile. Open the job anew and try again.',
    };
  }
  // PostgreSQL, class 22: a number or a date beyond what its column can hold.
  if (code?.startsWith('22') && code.length === 5)
    return { status: 400, text: 'A value lies outside of what can be stored. Nothing was stored.' };
  if (status === 404) return { status: 404, text: 'There is nothing at this address.' };
  // Found by Express or its parsers before any route was asked.
  if (status === 415)
    return {
      status,
      text: 'The request is written in an encoding or a character set that is not read here: UTF-8 is.',
    };
  if (status !== undefined && status >= 400 && status < 500) return { status, text: 'The request is not well formed.' };
  return {
    status: 500,
    text: 'Something went wrong in the server. Nothing recorded is lost; try again, and see the log if it stays.',
  };
}

/** The revision that a page had before a change; undefined where it names none. */
export function revisionOf(body: unknown): number | undefined {
  const revision = (body as { revision?: unknown } | undefined)?.revision;
  return Number.isInteger(revision) ? (revision as number) : undefined;
}
