import { z } from 'zod';
import {
  importResult,
  refusal,
  type ImportSettings,
  type JobChange,
  type Mounting,
  type NewJob,
  type RunChange,
} from '../../contract/http.ts';
import { bayState, unclaimedRuns } from '../../contract/live.ts';
import { job, jobSummary, run, setup } from '../../contract/records.ts';

/** A request that the server, or the way to it, said no to; the message is a sentence for the screen. */
export class RequestProblem extends Error {
  override name = 'RequestProblem';
}

async function ask<T extends z.ZodType>(schema: T, path: string, init?: RequestInit): Promise<z.output<T>> {
  let response: Response;
  try {
    response = await fetch(`/api${path}`, init);
  } catch {
    throw new RequestProblem(
      'The server does not answer. What was recorded is kept; check that Suvok is running and try again.',
    );
  }
  const content: unknown = await response.json().catch(() => undefined);
  if (!response.ok) {
    const said = refusal.safeParse(content);
    throw new RequestProblem(
      said.success ? said.data.error : `The server answered with ${response.status} and no reason.`,
    );
  }
  const parsed = schema.safeParse(content);
  if (!parsed.success)
    throw new RequestProblem('The server answered in a form this page does not know. Reload the page.');
  return parsed.data;
}

function sending(method: string, body: unknown): RequestInit {
  return { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
}

/** Everything that the page asks of the server. */
export const api = {
  jobs: () => ask(z.array(jobSummary), '/jobs'),
  job: (id: number) => ask(job, `/jobs/${id}`),
  addJob: (fields: NewJob) => ask(job, '/jobs', sending('POST', fields)),
  changeJob: (id: number, change: JobChange) => ask(job, `/jobs/${id}`, sending('PATCH', change)),
  addSetup: (jobId: number, fields: { parentId: number | null; change: string }) =>
    ask(setup, `/jobs/${jobId}/setups`, sending('POST', fields)),
  rewordSetup: (id: number, change: string) => ask(setup, `/setups/${id}`, sending('PATCH', { change })),
  changeRun: (id: number, change: RunChange) => ask(run, `/runs/${id}`, sending('PATCH', change)),
  unclaimedRuns: () => ask(unclaimedRuns, '/unclaimed-runs'),
  mount: (mounting: Mounting) => ask(bayState, '/bay/mounted', sending('PUT', mounting)),
  arm: () => ask(bayState, '/bay/arm', sending('POST', {})),
  end: () => ask(bayState, '/bay/end', sending('POST', {})),
  importRun(file: File, settings: ImportSettings) {
    const form = new FormData();
    form.append('file', file);
    form.append('settings', JSON.stringify(settings));
    return ask(importResult, '/imports', { method: 'POST', body: form });
  },
};
