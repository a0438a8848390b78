import { keys } from '../state/query-keys.ts';
import { keepPreviousData, skipToken, useQuery } from '@tanstack/react-query';
import type { Job, Run } from '../../contract/job/records.ts';
import type { BrokenLimit } from '../../core/limits/broken-limits.ts';
import { queryClient } from '../state/queries.ts';
import { figuresWorker } from '../workers/figures-worker.ts';
import { recordOfJob } from '../../core/figures/request/record-of-job.ts';
import { figuresKey } from '../workers/figures.ts';
import type { WorkerRequest } from '../workers/figures.worker.ts';

/** A run that went beyond a limit. */
export interface BrokenRun {
  id: number;
  label: string;
  broken: BrokenLimit[];
}

const patienceMs = 500;

/**
 * The runs of a job that went beyond a limit, in their order, as its figures
 * hold them. Nobody waits for it: it is made once the figures are that the page asked for.
 *
 * @param runs of the job; all of them where left out
 */
export function useBrokenRuns(job: Job | undefined, runs?: readonly Run[]): BrokenRun[] {
  const ended = (runs ?? job?.runs ?? []).filter(({ state }) => state !== 'recording');
  const request: WorkerRequest | undefined =
    job && ended.length > 0
      ? {
          job: recordOfJob({ ...job, runs: ended }),
          view: { standard: 'sae-j1349', share: 1, smoothing: 300, curvesOnly: true, powerUnit: 'kW' },
        }
      : undefined;
  const { data } = useQuery<BrokenRun[]>({
    queryKey: keys.brokenRuns(...(request ? figuresKey(request) : [])),
    queryFn: request ? () => brokenRuns(request) : skipToken,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
  });
  return request ? (data ?? []) : [];
}

async function brokenRuns(request: WorkerRequest): Promise<BrokenRun[]> {
  do await new Promise((resolve) => setTimeout(resolve, patienceMs));
  while (queryClient.isFetching({ queryKey: keys.figures() }) > 0);
  const { runs } = await figuresWorker().figures(request);
  const found = new Map(runs.map(({ id, label, broken }) => [id, { id, label, broken }]));
  return request.job.runs.flatMap(({ id }) => found.get(id) ?? []).filter(({ broken }) => broken.length > 0);
}
