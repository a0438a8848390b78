import { keys } from './query-keys.ts';
import { useQuery } from '@tanstack/react-query';
import { outsideOrigins } from '../../contract/people/people.ts';
import { api } from './api.ts';

/** Where other machines reach this Suvok; a page of this machine alone knows no address of its own that they could open. */
export function useReachedOrigin(): { pending: boolean; origin: string | undefined; madeHere: boolean } {
  const here = /^(localhost|127\.[\d.]+|\[::1\])$/.test(window.location.hostname);
  const { data: outside, isPending } = useQuery({
    queryKey: keys.outside,
    queryFn: api.outside,
    enabled: here,
    retry: false,
  });
  if (!here) return { pending: false, origin: window.location.origin, madeHere: false };
  const [origin] = outside ? outsideOrigins(outside) : [];
  return { pending: isPending, origin, madeHere: outside?.madeHere ?? false };
}
