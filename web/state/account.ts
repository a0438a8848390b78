import { keys } from './query-keys.ts';
import { useQuery } from '@tanstack/react-query';
import type { Account } from '../../contract/people/people.ts';
import { api, whenSignedOut } from './api.ts';
import { queryClient } from './queries.ts';

whenSignedOut(() => queryClient.setQueryData<Account>(keys.account, { accounts: true, me: null }));

/** Who uses this page; undefined until the server has said so. */
export function useAccount(): Account | undefined {
  return useQuery({ queryKey: keys.account, queryFn: api.account, staleTime: 30_000 }).data;
}

/** The page is made anew for whoever uses it now, so that nothing of the person before stays in it. */
export function beginAnew(address = window.location.pathname + window.location.search): void {
  window.location.assign(address);
}
