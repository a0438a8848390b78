import { notifications } from '@mantine/notifications';
import { useEffect, useRef, useState } from 'react';
import { bundleMade } from '../../contract/job/bundle.ts';
import { askInLines } from '../state/in-lines.ts';

export interface ExportState {
  /** How much is done, from 0 to 1; undefined while nothing is written. */
  done: number | undefined;
  problem: string | undefined;
  make: (wishes: object) => Promise<void>;
  cancel: () => void;
}

/** Has a file written by the server, and the browser save it. @param onSaved once it is on its way */
export function useExport(path: string, onSaved: () => void): ExportState {
  const [done, setDone] = useState<number>();
  const [problem, setProblem] = useState<string>();
  const control = useRef<AbortController>(undefined);
  // Closing the dialog cancels the export.
  useEffect(() => () => control.current?.abort(), []);
  const make = async (wishes: object) => {
    const { signal } = (control.current = new AbortController());
    setProblem(undefined);
    setDone(0);
    try {
      const made = await askInLines(bundleMade, path, wishes, { onDoing: ({ done }) => setDone(done), signal });
      const link = document.createElement('a');
      link.href = `/api/bundles/${made.fetch}`;
      link.download = made.name;
      link.click();
      notifications.show({ message: `${made.name}, ${megabytes(made.bytes)}, is saved by the browser.` });
      onSaved();
    } catch (error) {
      if (!signal.aborted) setProblem((error as Error).message);
    } finally {
      setDone(undefined);
    }
  };
  return { done, problem, make, cancel: () => control.current?.abort() };
}

const megabytes = (bytes: number) => `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB`;
