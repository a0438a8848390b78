import { useQuery } from '@tanstack/react-query';
import { api } from '../state/api.ts';

/** The shop's price list. */
export const usePrices = () => useQuery({ queryKey: ['prices'], queryFn: api.prices });
