import type { Job, JobSummary } from '../../contract/job/records.ts';
import { runKindWords } from '../job/run-kind-words.ts';

/** Something that can be gone to or done. */
export interface PaletteEntry {
  id: string;
  label: string;
  description: string;
  /** Where it leads; or what it does. */
  to?: string;
  run?: () => void;
  /** Its key. */
  shown?: string;
}

export interface PaletteGroup {
  name: string;
  entries: PaletteEntry[];
}

const place = (label: string, to: string, description = ''): PaletteEntry => ({ id: to, label, description, to });

export const places: readonly PaletteEntry[] = [
  place('Today', '/today', 'what now, what next, who waits'),
  place('Week', '/today?view=week', 'the bookings of this week'),
  place('Jobs', '/jobs', 'all of them'),
  place('Vehicles', '/vehicles', 'with owners and parts'),
  place('Devices', '/devices', 'instruments, calibration, check runs'),
  place('Equipment', '/equipment', 'what must be kept in date'),
  place('Prices', '/prices', 'what the shop asks for its work'),
  place('Consents', '/consents', 'texts that owners sign'),
  place('People', '/people', 'who works here'),
  place('Driver’s view', '/drive', 'for the phone in the car'),
];

const stages = [
  ['Brief', 'brief', 'question, limits, inspection, timeline'],
  ['Record', 'record', 'the next run'],
  ['Compare', 'compare', 'setups laid over each other'],
  ['Logs', 'logs', 'channels of a run'],
  ['Fuelling', 'logs?show=fuelling', 'errors over the fuel table'],
  ['Report', 'report', 'for the owner'],
] as const;

/** Everything of a job: its stages, setups, runs and views. */
export function entriesOfJob(job: Job): PaletteGroup[] {
  const at = (path: string) => `/jobs/${job.id}/${path}`;
  return [
    {
      name: job.vehicle,
      entries: stages.map(([label, path, description]) => ({ id: at(path), label, description, to: at(path) })),
    },
    {
      name: 'Setups',
      entries: job.setups.map(({ letter, change }) => ({
        id: `setup ${letter}`,
        label: `${letter}, ${change}`,
        description: 'compare it',
        to: at(`compare?setup=${letter}`),
      })),
    },
    {
      name: 'Runs',
      entries: job.runs
        .filter(({ label, state }) => label !== null && state !== 'recording')
        .map(({ label, kind, note }) => ({
          id: `run ${label ?? ''}`,
          label: `${label ?? ''}, ${runKindWords[kind].name}`,
          description: note || 'its log',
          to: at(`logs?run=${label ?? ''}`),
        })),
    },
    {
      name: 'Views',
      entries: job.views.map(({ id, name, address }) => ({
        id: `view ${id}`,
        label: name,
        description: 'a view of the comparison',
        to: at(`compare${address}`),
      })),
    },
  ];
}

export const entryOfJob = ({ id, vehicle, owner, question, waiting }: JobSummary): PaletteEntry => ({
  id: `job ${id}`,
  label: `${vehicle}${owner && `, ${owner}`}`,
  description: question || `waits for ${waiting}`,
  to: `/jobs/${id}/brief`,
});

/** Groups with what holds every word that was typed; empty ones fall out. @param most of each group */
export function matching(groups: readonly PaletteGroup[], typed: string, most: number): PaletteGroup[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  return groups
    .map(({ name, entries }) => ({
      name,
      entries: entries
        .filter(({ label, description }) => {
          const text = `${label} ${description} ${name}`.toLowerCase();
          return words.every((word) => text.includes(word));
        })
        .slice(0, most),
    }))
    .filter(({ entries }) => entries.length > 0);
}
