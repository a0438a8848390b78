import { useCallback, useEffect, useRef } from 'react';
import { useSearchParams } from 'react-router';
import type { Job } from '../../../../contract/job/records.ts';
import { useStandard } from '../../../job/use-standard.ts';
import { useUnits } from '../../../units/use-own-units.tsx';
import { addressProblems } from './address-problems.ts';
import { addressWith, fieldIn, viewIn, type Changes } from './view-address.ts';

/** What the address asks for, a way to ask for something else, and what it names that is not there. */
export function useCompareView(job: Job) {
  const [address, setAddress] = useSearchParams();
  const standard = useStandard(job);
  const units = useUnits();
  const view = viewIn(address, job, { standard, units });
  const write = useRef(setAddress);
  useEffect(() => {
    write.current = setAddress;
  });
  /** Begins from the address as it stands now, so that quick presses of a key all count. */
  const change = useCallback((changes: Changes | ((at: number | undefined) => Changes), replace = true) => {
    const now = new URLSearchParams(window.location.search);
    const wanted = typeof changes === 'function' ? changes(fieldIn(now, 'at')) : changes;
    write.current(addressWith(now, wanted), { replace });
  }, []);
  return [view, change, addressProblems(address, job)] as const;
}

export type ChangeView = ReturnType<typeof useCompareView>[1];
