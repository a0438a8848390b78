import type { RequestHandler } from 'express';
import { cleanJson, isStorable, UncleanInput, withoutUnseen } from '../contract/values/text.ts';
import { HttpRefusal } from './http-refusal.ts';

/** Refuses an address, a query or a body with text that cannot be stored; takes out of the body what is never seen. */
export const cleanInput: RequestHandler = (request, _response, next) => {
  refuseUnstorable(addressText(request.path), 'The address');
  for (const [name, value] of Object.entries(request.query)) {
    refuseUnstorable(name, 'The address');
    if (typeof value === 'string') refuseUnstorable(value, `"${withoutUnseen(name).slice(0, 40)}"`);
  }
  request.body = cleanBody(request.body);
  next();
};

/** @throws HttpRefusal 400 with the field that cannot be stored */
export function cleanBody(body: unknown): unknown {
  try {
    return cleanJson(body);
  } catch (error) {
    if (!(error instanceof UncleanInput)) throw error;
    const { message, field } = error;
    throw new HttpRefusal(
      400,
      `The request was not understood${field ? `, "${field}"` : ''}: ${message}.`,
      field || undefined,
    );
  }
}

function addressText(path: string): string {
  try {
    return decodeURIComponent(path);
  } catch {
    throw new HttpRefusal(400, 'The address is not well formed: a % stands for itself only as %25.');
  }
}

function refuseUnstorable(text: string, what: string): void {
  if (!isStorable(text)) throw new HttpRefusal(400, `${what} holds characters that cannot be stored.`);
}
