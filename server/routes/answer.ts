import type { ErrorRequestHandler, Request } from 'express';
import type { z } from 'zod';
import { problemIn } from '../../contract/files.ts';
import { identifier } from '../../contract/records.ts';
import { Refusal } from '../../core/refusal.ts';

/** A request that cannot be answered, with the status and sentence to say so. */
export class HttpRefusal extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** The request's body in the form of a schema. @throws HttpRefusal 400 with a sentence */
export function bodyAs<T extends z.ZodType>(request: Request, schema: T): z.output<T> {
  const parsed = schema.safeParse(request.body ?? {});
  if (!parsed.success) throw new HttpRefusal(400, `The request was not understood: ${problemIn(parsed.error)}.`);
  return parsed.data;
}

/** The number in the address. @throws HttpRefusal 404 */
export function idOf(request: Request): number {
  const parsed = identifier.safeParse(Number(request.params.id));
  if (!parsed.success) throw new HttpRefusal(404, `"${String(request.params.id)}" is not a number of anything stored.`);
  return parsed.data;
}

/** @throws HttpRefusal 404 when there is nothing */
export function found<T>(thing: T | undefined | false, what: string): T {
  if (thing === undefined || thing === false) throw new HttpRefusal(404, `There is no such ${what}.`);
  return thing;
}

/** Every error as one sentence in JSON; what we did not expect is logged in full and told in short. */
export function errorAnswer(log: (error: unknown) => void): ErrorRequestHandler {
  return (error: unknown, _request, response, next) => {
    if (response.headersSent) return next(error);
    const { status, text } = sentenceFor(error);
    if (status === 500) log(error);
    response.status(status).json({ error: text });
  };
}

function sentenceFor(error: unknown): { status: number; text: string } {
  if (error instanceof HttpRefusal) return { status: error.status, text: error.message };
  if (error instanceof Refusal) return { status: 422, text: error.message };
  const { type, code, status } = error as { type?: string; code?: string; status?: number };
  if (type === 'entity.parse.failed') return { status: 400, text: 'The request is not JSON.' };
  if (type === 'entity.too.large' || code === 'LIMIT_FILE_SIZE') {
    return { status: 413, text: 'The file is larger than 200 MB; cut the recording or lower its rate.' };
  }
  if (code?.startsWith('LIMIT_'))
    return { status: 400, text: 'The upload holds more than a recording and its settings.' };
  // PostgreSQL: a foreign key or a check of the schema said no.
  if (code === '23503' || code === '23514') {
    return {
      status: 409,
      text: 'That does not fit what is stored; it may have changed meanwhile. Open the job anew and try again.',
    };
  }
  if (status === 404) return { status: 404, text: 'There is nothing at this address.' };
  return {
    status: 500,
    text: 'Something went wrong in the server. Nothing recorded is lost; try again, and see the log if it stays.',
  };
}
