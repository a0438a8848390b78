import { keys } from '../state/query-keys.ts';
import { useQuery } from '@tanstack/react-query';
import dayjs from 'dayjs';
import { api } from '../state/api.ts';

/** All equipment with its dates. */
export const useEquipment = () => useQuery({ queryKey: keys.equipment, queryFn: api.equipment });

/** Today by the clock of whoever looks, as a day of the calendar. */
export const calendarToday = (nowMs = Date.now()): string => dayjs(nowMs).format('YYYY-MM-DD');
