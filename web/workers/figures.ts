import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { wrap, type Remote } from 'comlink';
import { useState } from 'react';
import type { JobFigures } from '../../core/gain/job-figures.ts';
import type { Job, Run } from '../../contract/records.ts';
import type { LoggedEngine } from '../../core/log/run-log.ts';
import type { FiguresWorker, LogView, Measured, WorkerRequest } from './figures.worker.ts';

let remote: Remote<FiguresWorker> | undefined;

/** The worker that makes all figures; started at the first use. */
export function figuresWorker(): Remote<FiguresWorker> {
  remote ??= wrap<FiguresWorker>(new Worker(new URL('./figures.worker.ts', import.meta.url), { type: 'module' }));
  return remote;
}

/** Has the worker fetch a job's runs and make them ready while nobody waits for them. */
export function prepareFigures(job: Job): void {
  const ended = job.runs.filter(({ state }) => state !== 'recording');
  requestIdleCallback(() => void figuresWorker().prepare(ended));
}

/** The figures for a request, the earlier ones standing until new ones are made. */
export function useFigures(request: WorkerRequest | undefined) {
  return useQuery<JobFigures>({
    queryKey: ['figures', request],
    queryFn: () => figuresWorker().figures(request!),
    enabled: request !== undefined,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 10_000,
    retry: false,
  });
}

/** With so many runs the curves that are looked at are made first. */
const manyRuns = 16;

/**
 * The figures for a request. Of a job with many runs the curves of the setups
 * shown come first, while those of all its runs, which spread and verdicts
 * rest on, are still being made.
 */
export function useFiguresSoon(request: WorkerRequest | undefined) {
  const shown = request && [request.baselineId, request.testId, request.againstId];
  const [made, setMade] = useState(false);
  const first = useFigures(
    request && !made && request.job.runs.length > manyRuns
      ? {
          ...request,
          job: { ...request.job, runs: request.job.runs.filter(({ setupId }) => shown!.includes(setupId!)) },
          curvesOnly: true,
        }
      : undefined,
  );
  // One after the other: the worker makes one thing at a time.
  const all = useFigures(first.isFetching ? undefined : request);
  if (all.data && !made) setMade(true);
  return {
    figures: all.data ?? first.data,
    error: all.error ?? first.error,
    isPlaceholderData: all.isPlaceholderData,
    pending: all.data === undefined && !all.error,
    tryAgain: () => void all.refetch(),
  };
}

/** What a run of holds or a coast-down measured. */
export function useMeasured(run: Run | undefined) {
  return useQuery<Measured>({
    queryKey: ['measured', run?.id, run?.kind],
    queryFn: () => figuresWorker().measured(run!),
    enabled: run !== undefined,
    staleTime: Infinity,
    retry: false,
  });
}

/** A run's log; recordings never change, so it is made once for an engine as it is described. */
export function useLog(run: Run | undefined, engine: LoggedEngine | undefined) {
  return useQuery<LogView>({
    queryKey: ['log', run?.id, engine],
    queryFn: () => figuresWorker().log(run!, engine!),
    enabled: run !== undefined,
    staleTime: Infinity,
    retry: false,
  });
}
