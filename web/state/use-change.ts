import { useMutation } from '@tanstack/react-query';
import { tellProblem } from './queries.ts';
import { fetchWhatChanged } from './what-changed.ts';

/** A change that is told to the server: where it refuses, its sentence is shown; what the change touched is fetched anew. */
export function useChange<Variables, Result>(send: (variables: Variables) => Promise<Result>) {
  return useMutation({ mutationFn: send, onSuccess: fetchWhatChanged, onError: tellProblem });
}
