import type { z } from 'zod';
import { jsonIn } from '../../contract/values/text.ts';
import { workLine, type WorkLine } from '../../contract/values/answers.ts';
import { RequestProblem } from './api.ts';
import { headersOfData } from './data-identity.ts';

/** How far the server is with long work. */
export type Doing = Extract<WorkLine, { doing: unknown }>;

/**
 * Asks for long work and hears how far it is.
 * @throws RequestProblem with the server's sentence; an AbortError where the signal ended it
 */
export async function askInLines<T extends z.ZodType>(
  answer: T,
  path: string,
  body: unknown,
  { onDoing, signal }: { onDoing: (doing: Doing) => void; signal: AbortSignal },
): Promise<z.output<T>> {
  const response = await fetch(`/api${path}`, {
    method: 'POST',
    headers: headersOfData({ 'content-type': 'application/json', accept: 'application/x-ndjson' }),
    body: JSON.stringify(body),
    signal,
  }).catch((error: Error) => {
    if (error.name === 'AbortError') throw error;
    throw new RequestProblem(
      'The server does not answer. What was recorded is kept; check that Suvok is running and try again.',
    );
  });
  for await (const line of linesOf(response)) {
    const said = workLine.safeParse(line);
    if (!said.success) break;
    if ('doing' in said.data) onDoing(said.data);
    else if ('error' in said.data) throw new RequestProblem(said.data.error);
    else {
      const found = answer.safeParse(said.data.answer);
      if (found.success) return found.data;
      break;
    }
  }
  throw new RequestProblem('The server’s answer broke off. Nothing was changed; try again.');
}

async function* linesOf({ body, ok }: Response): AsyncGenerator {
  if (!body) return;
  let rest = '';
  const reader = body.pipeThrough(new TextDecoderStream()).getReader();
  for (let piece = await reader.read(); !piece.done; piece = await reader.read()) {
    const lines = (rest + piece.value).split('\n');
    rest = lines.pop() ?? '';
    for (const line of lines) yield jsonIn(line);
  }
  // What was refused before the work began comes as one answer without an end of line.
  const last = jsonIn(rest);
  if (rest !== '') yield ok ? last : { status: 0, ...(last as object) };
}
