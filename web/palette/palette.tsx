import { useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import { useDebouncedValue } from '@mantine/hooks';
import { createSpotlight, Spotlight } from '@mantine/spotlight';
import '@mantine/spotlight/styles.css';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Job } from '../../contract/job/records.ts';
import { useJobs, useVehicles } from '../state/queries.ts';
import { Keycap } from '../ui/keycap.tsx';
import { entriesOfJob, entryOfJob, matching, places, type PaletteEntry, type PaletteGroup } from './palette-entries.ts';
import classes from './palette.module.css';
import { useAllKeys } from '../keys/use-keys.ts';

const [store, actions] = createSpotlight();
export const openPalette = actions.open;

/** So many of each group stand at most; whoever looks for more types more. */
const mostWithoutWords = 8;
const mostFound = 12;

/** Goes to every job, vehicle, setup, run and view, and does every command of the screen, by what is typed. */
export function Palette({ job }: { job: Job | undefined }) {
  const [typed, setTyped] = useState('');
  const [asked] = useDebouncedValue(typed.trim(), 120);
  const navigate = useNavigate();
  const { data: jobs } = useJobs({ search: asked, state: 'all', offset: 0 });
  const { data: vehicles } = useVehicles(asked);
  const commands = useCommands();
  const own: PaletteGroup[] = [
    { name: 'Commands', entries: commands },
    ...(job ? entriesOfJob(job) : []),
    { name: 'Places', entries: [...places] },
  ];
  // The server has looked through these: what it found stands, whatever word it was found by.
  const found: PaletteGroup[] = [
    { name: 'Jobs', entries: (jobs?.jobs ?? []).map(entryOfJob) },
    {
      name: 'Vehicles',
      entries: (vehicles ?? []).map(({ id, name, ownerName, plate }) => ({
        id: `vehicle ${id}`,
        label: name,
        description: [ownerName, plate].filter(Boolean).join(', '),
        to: `/vehicles/${id}`,
      })),
    },
  ];
  const most = typed.trim() === '' ? mostWithoutWords : mostFound;
  const groups = [...matching(own, typed, most), ...matching(found, '', most)];
  const choose = ({ to, run }: PaletteEntry) => {
    if (to) void navigate(to);
    // The focus is back on the screen by then.
    else setTimeout(() => run?.());
  };
  return (
    <Spotlight.Root
      store={store}
      query={typed}
      onQueryChange={setTyped}
      shortcut={null}
      scrollable
      maxHeight="min(60vh, 560px)"
      returnFocus
      attributes={{ content: { 'aria-label': 'Go to, or do' } }}
    >
      <Spotlight.Search
        onKeyDown={(event) => {
          // What is found while one types takes the selection away: then the first is meant.
          const [first] = groups.flatMap(({ entries }) => entries);
          if (event.key !== 'Enter' || !first || document.querySelector('[data-action][data-selected]')) return;
          event.preventDefault();
          actions.close();
          choose(first);
        }}
        placeholder="Job, car, plate, setup, run, command"
        aria-label="Go to, or do"
      />
      <Spotlight.ActionsList>
        {groups.map(({ name, entries }) => (
          <Spotlight.ActionsGroup key={name} label={name}>
            {entries.map((entry) => (
              <Spotlight.Action
                key={entry.id}
                className={classes.action}
                label={entry.label}
                description={entry.description}
                onClick={() => choose(entry)}
                rightSection={entry.shown ? <Keycap>{entry.shown}</Keycap> : undefined}
              />
            ))}
          </Spotlight.ActionsGroup>
        ))}
        {groups.length === 0 && <Spotlight.Empty>Nothing is called that.</Spotlight.Empty>}
      </Spotlight.ActionsList>
    </Spotlight.Root>
  );
}

/** What the screen can do, and what can be done everywhere. */
function useCommands(): PaletteEntry[] {
  const keys = useAllKeys();
  const { setColorScheme } = useMantineColorScheme();
  const scheme = useComputedColorScheme('light');
  const theme: PaletteEntry =
    scheme === 'light'
      ? { id: 'bay theme', label: 'Bay theme', description: 'for the dim cell', run: () => setColorScheme('dark') }
      : { id: 'paper theme', label: 'Paper theme', description: 'for the office', run: () => setColorScheme('light') };
  const told = keys.flatMap(({ says, shown, run }): PaletteEntry[] =>
    run ? [{ id: `key ${says}`, label: says, description: '', shown, run }] : [],
  );
  return [...told, theme];
}
