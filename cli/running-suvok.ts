import type { z } from 'zod';
import { jsonIn } from '../contract/values/text.ts';
import { workLine } from '../contract/values/answers.ts';
import { Refusal } from '../core/refusal.ts';
import { wordOf, type Words } from './words.ts';

const usualServer = 'http://127.0.0.1:5180';

/** Where the Suvok runs that is asked: `--server`, or the usual place. */
export const serverOf = (words: Words): string => wordOf(words, 'server') ?? usualServer;

/** @throws Refusal where nobody answers */
export async function asked(server: string, path: string, request: RequestInit = {}): Promise<Response> {
  return fetch(`${server}/api${path}`, request).catch(() => {
    throw new Refusal(`No Suvok answers at ${server}. Start it with npm start, or say where it is with --server.`);
  });
}

/**
 * Asks a running Suvok for long work and waits for its last word.
 * @throws Refusal with the server's own sentence
 */
export async function askedInLines<Schema extends z.ZodType>(
  server: string,
  path: string,
  body: string | FormData,
  answer: Schema,
): Promise<z.output<Schema>> {
  const response = await asked(server, path, {
    method: 'POST',
    headers: {
      accept: 'application/x-ndjson',
      ...(typeof body === 'string' && { 'content-type': 'application/json' }),
    },
    body,
  });
  const lines = (await response.text()).trim().split('\n').map(jsonIn);
  const last = workLine.safeParse(lines.at(-1));
  const said = lines.at(-1) as { error?: string } | undefined;
  if (said?.error !== undefined) throw new Refusal(said.error);
  const made = last.success && 'answer' in last.data ? answer.safeParse(last.data.answer) : undefined;
  if (!made?.success) throw new Refusal(`What answers at ${server} is no Suvok of this kind.`);
  return made.data;
}
