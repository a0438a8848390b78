import { keys } from '../state/query-keys.ts';
import {
  keepPreviousData,
  skipToken,
  useQueries,
  useQuery,
  useQueryClient,
  type UseQueryOptions,
} from '@tanstack/react-query';
import { useState } from 'react';
import type { Run } from '../../contract/job/records.ts';
import type { FiguresView } from '../../core/figures/request/figures-request.ts';
import type { JobFigures } from '../../core/figures/job-figures.ts';
import type { KindOutcome } from '../../core/figures/runs/kinds-of-job.ts';
import type { BurntFuel } from '../../core/run-kinds/cruise.ts';
import type { FuellingAxes } from '../../core/fuelling/axes.ts';
import type { FuellingOfRuns } from '../../core/fuelling/fuelling-of-runs.ts';
import type { FuellingSettings } from '../../core/fuelling/fuelling-table.ts';
import type { LoggedEngine } from '../../core/log/pull/run-log.ts';
import { queryClient } from '../state/queries.ts';
import { figuresWorker } from './figures-worker.ts';
import type { Measured, WorkerRequest } from './figures.worker.ts';
import type { LogMean } from '../../core/log/view/mean-log.ts';
import type { LogView } from '../../core/log/view/log-view.ts';
import type { ChannelChange } from '../../core/comparison/channel-changes.ts';

/** Has the worker fetch a job's runs and make them ready while nobody waits for them. */
export function prepareFigures(runs: readonly Run[]): void {
  const ended = runs.filter(hasEnded);
  requestIdleCallback(() => void figuresWorker().prepare(ended));
}

const hasEnded = ({ state }: Pick<Run, 'state'>) => state !== 'recording';

const numbers = new WeakMap<object, number>();
let last = 0;

/** A number for each object: what is fetched anew and has not changed is still the same object. */
function revisionOf(thing: object | null | undefined): number {
  if (!thing) return 0;
  const known = numbers.get(thing) ?? ++last;
  numbers.set(thing, known);
  return known;
}

/**
 * What stands for a request in the cache: the revisions of the long lists that
 * it rests on, and all else as it is, so that nothing is left out.
 */
export function figuresKey({ job, guest, view, learned }: WorkerRequest) {
  const revised = <Of extends Pick<WorkerRequest['job'], 'runs' | 'baseline'>>({ runs, baseline, ...rest }: Of) =>
    [runs.filter(hasEnded).map(revisionOf).join('.'), revisionOf(baseline), rest] as const;
  const [runs, baseline, { setups, ...rest }] = revised(job);
  // What the vehicle is called changes no figure.
  const { vehicle: _name, ...about } = rest;
  return keys.figures(runs, revisionOf(setups), baseline, about, guest && revised(guest), view, learned);
}

/** The figures for a request, the earlier ones standing until new ones are made. */
export function useFigures(request: WorkerRequest | undefined) {
  const client = useQueryClient();
  const queryKey = request ? figuresKey(request) : keys.figures('none');
  const keeping = { staleTime: Infinity, gcTime: 10_000, retry: false } as const;
  const queryFn = request ? () => figuresWorker().figures(request) : skipToken;
  // Asked for at once: the worker makes them while the rest of the screen is still being drawn for the first time.
  if (queryFn !== skipToken && !client.getQueryState(queryKey))
    void client.prefetchQuery({ queryKey, queryFn, ...keeping });
  return useQuery<JobFigures>({ queryKey, queryFn, placeholderData: keepPreviousData, ...keeping });
}

/** Figures made with automatic smoothing are also those of the span that it came to: they are not made twice. */
export function keepForSpan(request: WorkerRequest, figures: JobFigures): void {
  const resolved: FiguresView = { ...request.view, smoothing: figures.spanRpm };
  queryClient.setQueryData(figuresKey({ ...request, view: resolved }), figures);
}

/** With so many runs the curves that are looked at are made first. */
const manyRuns = 16;

/**
 * The figures for a request. In a job with many runs the curves of the setups shown come first; the figures of all
 * runs, on which spread and verdicts rest, follow.
 */
export function useFiguresSoon(request: WorkerRequest | undefined) {
  const [made, setMade] = useState(false);
  const first = useFigures(request && !made && request.job.runs.length > manyRuns ? curvesOfShown(request) : undefined);
  // Asked for together with the first ones: these are made while those are being drawn.
  const all = useFigures(request);
  if (all.data && !made) setMade(true);
  return {
    figures: all.data ?? first.data,
    error: all.error ?? first.error,
    isPlaceholderData: all.isPlaceholderData,
    pending: all.data === undefined && !all.error,
    tryAgain: () => void all.refetch(),
  };
}

/** The same request for the curves of the setups that are shown, and nothing else. */
function curvesOfShown(request: WorkerRequest): WorkerRequest {
  const { baselineId, testId, againstId } = request.view;
  const runs = request.job.runs.filter(({ setupId }) => [baselineId, testId, againstId].includes(setupId ?? undefined));
  return { ...request, job: { ...request.job, runs }, view: { ...request.view, curvesOnly: true, tests: false } };
}

/** What a run of holds or a coast-down measured. */
export function useMeasured(run: Run | undefined) {
  return useQuery<Measured>({
    queryKey: keys.measured(revisionOf(run)),
    queryFn: run ? () => figuresWorker().measured(run) : skipToken,
    staleTime: Infinity,
    retry: false,
  });
}

/** A run's log; recordings never change, so it is made once for a run as it is told and an engine as it is described. */
const logOf = (run: Run, engine: LoggedEngine) => ({
  queryKey: keys.log(revisionOf(run), engine),
  queryFn: () => figuresWorker().log(run, engine),
  staleTime: Infinity,
  retry: false,
});

export function useLog(run: Run | undefined, engine: LoggedEngine | undefined) {
  return useQuery<LogView>(
    run && engine ? logOf(run, engine) : { queryKey: keys.log('none', undefined), queryFn: skipToken },
  );
}

/** How far a run's channels are from the baseline's, in their own spread; undefined until it is known, or where there is no run. */
export function useChannelChanges(
  run: Run | undefined,
  baseline: readonly Run[],
  alike: readonly (readonly Run[])[],
): ChannelChange[] | undefined {
  const revisions = (runs: readonly Run[]) => runs.map(revisionOf).join('.');
  const { data } = useQuery<ChannelChange[]>({
    queryKey: keys.channelChanges(revisionOf(run), revisions(baseline), alike.map(revisions)),
    queryFn: run ? () => figuresWorker().channelChanges(run, baseline, alike) : skipToken,
    staleTime: Infinity,
    retry: false,
  });
  return data;
}

/** The logs of several lists of runs, each as their mean; undefined where one is not there yet. */
export function useLogMeans(
  lists: readonly (readonly { run: Run; engine: LoggedEngine }[])[],
): (LogMean | undefined)[] {
  return useQueries({
    queries: lists.map((runs) => {
      const [only, ...more] = runs;
      // For a single run the key is the one under which its log is kept elsewhere, too.
      if (only && more.length === 0) return logOf(only.run, only.engine) as UseQueryOptions<LogMean>;
      return {
        queryKey: keys.logMean(
          runs.map(({ run }) => revisionOf(run)).join('.'),
          runs.map(({ engine }) => engine),
        ),
        queryFn: () => figuresWorker().logMean(runs.map(({ run, engine }) => [run, engine])),
        staleTime: Infinity,
        retry: false,
      };
    }),
    combine: dataOf,
  });
}

/** One function for all, so that the same answers stay the same list. */
const dataOf = <T>(results: readonly { data: T | undefined }[]): (T | undefined)[] => results.map(({ data }) => data);

/** The fuelling errors of each of several lists of runs; recordings never change, so each is made once for axes and settings. */
export function useFuelling(
  lists: readonly (readonly Run[])[],
  axes: FuellingAxes | null,
  settings: FuellingSettings,
): (FuellingOfRuns | undefined)[] {
  return useQueries({
    queries: lists.map((runs) => ({
      queryKey: keys.fuelling(runs.map(revisionOf).join('.'), axes, settings),
      queryFn: () => figuresWorker().fuelling(runs, axes, settings),
      staleTime: Infinity,
      retry: false,
    })),
    combine: (found) => found.map(({ data }) => data),
  });
}

/** What a run of a kind of its own came to; undefined while it is being made. */
export function useKindOutcome(run: Run, fuel: BurntFuel): KindOutcome | undefined {
  return useQuery({
    queryKey: keys.kindOutcome(revisionOf(run), fuel),
    queryFn: () => figuresWorker().ofKind(run, fuel),
    staleTime: Infinity,
    retry: false,
  }).data;
}
