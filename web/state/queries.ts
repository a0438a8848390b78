import { QueryClient, keepPreviousData, skipToken, useQuery } from '@tanstack/react-query';
import { notifications } from '@mantine/notifications';
import { useMemo } from 'react';
import type { Job } from '../../contract/job/records.ts';
import type { Learned } from '../../core/figures/request/figures-request.ts';
import { learnedFrom } from '../../core/figures/request/learned.ts';
import { api } from './api.ts';
import { keys } from './query-keys.ts';

export const queryClient = new QueryClient({
  defaultOptions: { queries: { retry: 1, staleTime: 60_000, refetchOnWindowFocus: false } },
});

/** A page of the job list; while the next one is on its way the last one stays. */
export function useJobs(query: { search: string; state: string; offset: number }) {
  return useQuery({ queryKey: keys.jobs(query), queryFn: () => api.jobs(query), placeholderData: keepPreviousData });
}

export function useJob(id: number, enabled = true) {
  return useQuery({ queryKey: keys.job(id), queryFn: () => api.job(id), enabled });
}

/** Fetches a job ahead of the screen that shows it. @returns undefined where it does not come; the screen says why */
export function prefetchedJob(id: number): Promise<Job | undefined> {
  return queryClient.fetchQuery({ queryKey: keys.job(id), queryFn: () => api.job(id) }).catch(() => undefined);
}

export function useHistory(id: number) {
  return useQuery({ queryKey: keys.history(id), queryFn: () => api.history(id) });
}

export function useVehicles(search: string) {
  return useQuery({
    queryKey: keys.vehicles(search),
    queryFn: () => api.vehicles(search),
    placeholderData: keepPreviousData,
  });
}

export function useVehicle(id: number, enabled = true) {
  return useQuery({ queryKey: keys.vehicle(id), queryFn: () => api.vehicle(id), enabled });
}

/** A dyno's own repeatability, from its check runs. */
export function useCheckHistory(device: string | undefined, jobId?: number) {
  return useQuery({
    queryKey: keys.checkHistory(device, jobId),
    queryFn: device ? () => api.checkHistory(device, jobId) : skipToken,
  });
}

/** What the shop has learned of its spread: waited for, so that figures are made once. */
export function useLearned(
  device: string | undefined,
  jobId: number,
): { learned: Learned | undefined; pending: boolean } {
  const { data, isPending } = useCheckHistory(device, jobId);
  const learned = useMemo(() => data && learnedFrom(data), [data]);
  return { learned, pending: Boolean(device) && isPending };
}

export function useUnclaimedRuns() {
  return useQuery({ queryKey: keys.unclaimed, queryFn: api.unclaimedRuns });
}

export function tellProblem(error: Error): void {
  notifications.show({ message: error.message, color: 'red', autoClose: 9000 });
}

/** The shop's price list. */
export const usePrices = () => useQuery({ queryKey: keys.prices, queryFn: api.prices });
