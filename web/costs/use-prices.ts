import { keys } from '../state/query-keys.ts';
import { useQuery } from '@tanstack/react-query';
import { api } from '../state/api.ts';

/** The shop's price list. */
export const usePrices = () => useQuery({ queryKey: keys.prices, queryFn: api.prices });
