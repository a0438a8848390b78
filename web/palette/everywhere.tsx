import { lazy, Suspense } from 'react';
import { create } from 'zustand';
import type { Job } from '../../contract/job/records.ts';
import { useKeys } from '../keys/use-keys.ts';
import { usePrint } from '../ui/printing.ts';
import { KeysHelp } from './keys-help.tsx';

const Palette = lazy(async () => ({ default: (await import('./palette.tsx')).Palette }));

/** What is open over every screen. */
const useOpened = create<{ palette: boolean; keys: boolean }>(() => ({ palette: false, keys: false }));

/** Opens what goes to everything; its code comes when it is asked for first. */
export function openPalette(): void {
  useOpened.setState({ palette: true });
  void import('./palette.tsx').then((palette) => setTimeout(palette.openPalette));
}

/** Opens the list of keys. */
export const openKeysHelp = (): void => useOpened.setState({ keys: true });

/** Keys that work on every screen: go to or do anything, the list of keys, print. */
export function EverywhereKeys({ job }: { job: Job | undefined }) {
  const opened = useOpened();
  const print = usePrint();
  useKeys(
    [
      {
        keys: ['mod+K'],
        shown: 'Ctrl K',
        says: 'Go to a job, car, setup or run, or do a command',
        run: openPalette,
        onlyHere: true,
      },
      { keys: ['mod+P'], shown: 'Ctrl P', says: 'Print', run: print },
    ],
    true,
  );
  useKeys([{ keys: ['shift+?', '?'], shown: '?', says: 'Keys of this screen', run: openKeysHelp }]);
  return (
    <>
      {opened.palette && (
        <Suspense>
          <Palette job={job} />
        </Suspense>
      )}
      <KeysHelp opened={opened.keys} onClose={() => useOpened.setState({ keys: false })} />
    </>
  );
}
