import { useCallback, useEffect, useRef } from 'react';
import { useSearchParams } from 'react-router';
import { addressWith, logsViewIn, type LogsView } from './log-address.ts';

/** What the address asks for, and a way to ask for something else. */
export function useLogsView() {
  const [address, setAddress] = useSearchParams();
  const write = useRef(setAddress);
  useEffect(() => {
    write.current = setAddress;
  });
  /** Begins from the address as it stands now, so that quick presses of a key all count. */
  const change = useCallback((changes: Partial<LogsView> | ((now: LogsView) => Partial<LogsView>)) => {
    const now = new URLSearchParams(window.location.search);
    const wanted = typeof changes === 'function' ? changes(logsViewIn(now)) : changes;
    write.current(addressWith(now, wanted), { replace: true });
  }, []);
  return [logsViewIn(address), change] as const;
}

export type ChangeLogsView = ReturnType<typeof useLogsView>[1];
