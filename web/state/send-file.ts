import type { z } from 'zod';
import { jsonIn } from '../../contract/values/text.ts';
import { workLine } from '../../contract/values/answers.ts';
import { RequestProblem } from './api.ts';
import { headersOfData } from './data-identity.ts';

/** How far a file is that is sent and taken in: each part from 0 to 1. */
export interface SendProgress {
  doing: 'sending' | 'reading' | 'storing';
  done: number;
}

/** Somebody cancelled: nothing was stored. */
export class SendCancelled extends Error {}

/**
 * Sends a file, and tells of it as it goes. With XMLHttpRequest: fetch tells nothing of what it sends.
 * @param fields words beside the file
 * @throws RequestProblem with the server's sentence, SendCancelled
 */
export function sendFile<Schema extends z.ZodType>(
  path: string,
  file: File,
  fields: Record<string, string>,
  answer: Schema,
  onProgress: (progress: SendProgress) => void,
  signal: AbortSignal,
): Promise<z.output<Schema>> {
  const form = new FormData();
  form.append('file', file);
  for (const [name, value] of Object.entries(fields)) form.append(name, value);
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    let taken = 0;
    /** Whole lines of the answer so far. */
    const take = () => {
      const text = request.responseText;
      for (let end = text.indexOf('\n', taken); end >= 0; end = text.indexOf('\n', taken)) {
        const line = workLine.safeParse(jsonIn(text.slice(taken, end)));
        taken = end + 1;
        if (!line.success) continue;
        if ('doing' in line.data)
          onProgress({ ...line.data, doing: line.data.doing === 'reading' ? 'reading' : 'storing' });
        else if ('error' in line.data) reject(new RequestProblem(line.data.error));
        else {
          const result = answer.safeParse(line.data.answer);
          if (result.success) resolve(result.data);
          else reject(new RequestProblem('The server answered in a form this page does not know. Reload the page.'));
        }
      }
    };
    request.upload.onprogress = ({ loaded, total }) =>
      onProgress({ doing: 'sending', done: total ? loaded / total : 0 });
    request.onprogress = take;
    request.onload = () => {
      take();
      // A refusal before the file was read comes as one answer without lines. A settled promise ignores a second
      // result.
      const said = jsonIn(request.responseText) as { error?: string } | undefined;
      reject(new RequestProblem(said?.error ?? `The server answered with ${request.status} and no reason.`));
    };
    request.onerror = () => reject(new RequestProblem('The server does not answer any more.'));
    request.onabort = () => reject(new SendCancelled());
    signal.addEventListener('abort', () => request.abort(), { once: true });
    request.open('POST', `/api${path}`);
    for (const [name, value] of Object.entries(headersOfData({ accept: 'application/x-ndjson' })))
      request.setRequestHeader(name, value);
    request.send(form);
  });
}
