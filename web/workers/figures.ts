import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { wrap, type Remote } from 'comlink';
import type { JobFigures } from '../../core/gain/job-figures.ts';
import type { Run } from '../../contract/records.ts';
import type { LoggedEngine } from '../../core/log/run-log.ts';
import type { FiguresWorker, LogView, Measured, WorkerRequest } from './figures.worker.ts';

let remote: Remote<FiguresWorker> | undefined;

/** The worker that makes all figures; started at the first use. */
export function figuresWorker(): Remote<FiguresWorker> {
  remote ??= wrap<FiguresWorker>(new Worker(new URL('./figures.worker.ts', import.meta.url), { type: 'module' }));
  return remote;
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
