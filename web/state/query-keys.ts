import type { QueryKey } from '@tanstack/react-query';
import type { Subject } from '../../contract/job/changes.ts';

/** What a page has fetched and keeps, each under its key. The first word is what it is; what follows tells which. */
export const keys = {
  account: ['account'],
  jobs: (query: object) => ['jobs', query],
  job: (id: number) => ['job', id],
  history: (jobId: number) => ['history', jobId],
  vehicles: (search: string) => ['vehicles', search],
  vehicle: (id: number) => ['vehicle', id],
  owners: ['owners'],
  day: (from: string, to: string) => ['day', from, to],
  unclaimed: ['unclaimed'],
  checkHistory: (device: string | undefined, jobId: number | undefined) => ['check-history', device, jobId],
  fuelSags: (vehicleId: number, runs: number) => ['fuel-sags', vehicleId, runs],
  sharedLinks: (jobId: number) => ['shared-links', jobId],
  shared: (key: string) => ['shared', key],
  reportVersion: (id: number) => ['report-version', id],
  equipment: ['equipment'],
  prices: ['prices'],
  consentTemplates: ['consent-templates'],
  shiftNotes: ['shift-notes'],
  forecasts: ['forecasts'],
  people: ['people'],
  outside: ['outside'],
  logSources: ['log-sources'],
  watchedFolder: ['watched-folder'],
  // Made here, by the worker, out of recordings that never change: whatever tells one from another is in the key.
  figures: (...of: readonly unknown[]) => ['figures', ...of],
  brokenRuns: (...of: readonly unknown[]) => ['broken-runs', ...of],
  measured: (run: number) => ['measured', run],
  log: (run: number | string, engine: unknown) => ['log', run, engine],
  logMean: (runs: string, engines: unknown) => ['log-mean', runs, engines],
  channelChanges: (run: number, baseline: string, alike: readonly string[]) => [
    'channel-changes',
    run,
    baseline,
    alike,
  ],
  fuelling: (runs: string, axes: unknown, settings: unknown) => ['fuelling', runs, axes, settings],
  kindOutcome: (run: number, fuel: unknown) => ['kind-outcome', run, fuel],
  startTemperatures: (run: string) => ['start-temperatures', run],
  filePreview: (file: File) => ['file-preview', file.name, file.lastModified, file.size],
  loggerFile: (file: File | undefined) => ['logger-file', file?.name, file?.size, file?.lastModified],
  foundInLog: (headings: unknown, mapping: unknown, runs: readonly number[]) => [
    'found-in-log',
    headings,
    mapping,
    runs,
  ],
} as const satisfies Record<string, QueryKey | ((...words: never[]) => QueryKey)>;

/** Subjects that are kept job by job. */
const byJob: readonly Subject[] = ['job', 'history', 'shared-links'];

/** Under what a subject is kept; of one that is kept job by job, that of a job, where it is known. */
export const keyOfSubject = (subject: Subject, jobId: number | null): QueryKey =>
  jobId !== null && byJob.includes(subject) ? [subject, jobId] : [subject];
