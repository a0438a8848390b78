import { QueryClient, useMutation, useQuery } from '@tanstack/react-query';
import { notifications } from '@mantine/notifications';
import { api } from './api.ts';

export const queryClient = new QueryClient({
  defaultOptions: { queries: { retry: 1, staleTime: 60_000, refetchOnWindowFocus: false } },
});

export const jobKey = (id: number) => ['job', id] as const;

export function useJobs() {
  return useQuery({ queryKey: ['jobs'], queryFn: api.jobs });
}

export function useJob(id: number) {
  return useQuery({ queryKey: jobKey(id), queryFn: () => api.job(id) });
}

/** Fetches a job ahead of the screen that shows it. */
export function prefetchJob(id: number): void {
  void queryClient.prefetchQuery({ queryKey: jobKey(id), queryFn: () => api.job(id) });
}

export function useUnclaimedRuns() {
  return useQuery({ queryKey: ['unclaimed'], queryFn: api.unclaimedRuns });
}

/** A change that is told to the server; a no comes up as a sentence, and what depends on it is fetched anew. */
export function useChange<Variables, Result>(send: (variables: Variables) => Promise<Result>) {
  return useMutation({
    mutationFn: send,
    onSuccess: () => queryClient.invalidateQueries(),
    onError: (error) => notifications.show({ message: error.message, color: 'red', autoClose: 9000 }),
  });
}
