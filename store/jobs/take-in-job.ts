import { bundlePaths, type BundledJob } from '../../contract/job/bundle.ts';
import { jobKindsWhere, type JobEntryKind } from '../../contract/job/entries.ts';
import type { Baseline } from '../../contract/job/job-file.ts';
import type { Job, Run, Setup } from '../../contract/job/records.ts';
import type { Recording } from '../../core/recording/recording.ts';
import { setupPosition } from '../../core/setup/letter.ts';
import { keepCarriedHistory } from '../runs/carried-history.ts';
import type { Queryable } from '../database/database.ts';
import { addEntry } from '../database/entries.ts';
import { addPhoto, addTuneFile } from './files.ts';
import { changeRow, insertRow } from '../database/rows.ts';
import { insertChannels } from '../runs/samples.ts';
import { addReportsAs } from './take-in-reports.ts';
import { addVehicle, ownerNamed, sameVehicle } from '../shop/vehicles.ts';

/** Reads the parts of a bundle that are no words. */
export interface BundleContents {
  recording(path: string, channels: Run['channels']): Promise<Recording>;
  bytes(path: string): Promise<Buffer>;
}

/** New numbers of rows, by those that they have in the bundle. */
export interface Renumbered {
  setups: Map<number, number>;
  runs: Map<number, number>;
  curves: Map<number, number>;
  photos: Map<number, number>;
}

/** The job of a key, where it is here. */
export async function jobWithKey(database: Queryable, key: string): Promise<number | undefined> {
  const { rows } = await database.query<{ id: number }>('select id from job where key = $1', [key]);
  return rows[0]?.id;
}

/** Runs of these keys that are here, with their jobs. */
export async function runsWithKeys(database: Queryable, keys: readonly string[]): Promise<Map<string, number | null>> {
  const { rows } = await database.query<{ key: string; job_id: number | null }>(
    'select key, job_id from run where key = any($1::uuid[])',
    [keys],
  );
  return new Map(rows.map(({ key, job_id }) => [key, job_id]));
}

/**
 * Writes a job down as it was elsewhere: letters, labels, moments and everything that is said of it. To be called in a
 * transaction, for a job whose key is not here.
 * @param except runs of the bundle that are left out
 * @param onRun told after each run
 * @returns the new number of the job, and what could not be written as it was
 */
export async function takeInJob(
  database: Queryable,
  key: string,
  bundled: BundledJob,
  contents: BundleContents,
  except: ReadonlySet<number>,
  onRun: (done: number) => void,
): Promise<{ jobId: number; remarks: string[] }> {
  const { job } = bundled;
  const { vehicleId, remarks } = await vehicleOf(database, bundled);
  const { setupsLettered } = bundled.counted;
  const jobId = await insertRow(database, 'job', { vehicleId, key, setupsLettered, createdAt: job.createdAt });
  const numbers: Renumbered = { setups: new Map(), runs: new Map(), curves: new Map(), photos: new Map() };
  for (const setup of job.setups)
    numbers.setups.set(setup.id, await addSetupAs(database, jobId, setup, bundled, numbers));
  // A forecast is locked by its setup's first run.
  await addOfSetups(database, 'where its setup is', jobId, job, numbers);
  const runs = job.runs.filter(({ id }) => !except.has(id));
  for (const [index, run] of runs.entries()) {
    numbers.runs.set(run.id, await addRunAs(database, jobId, run, bundled, numbers, contents));
    onRun((index + 1) / runs.length);
  }
  await addFiles(database, jobId, bundled, numbers, contents);
  await addEntries(database, jobId, bundled, numbers);
  await addConsents(database, jobId, bundled);
  for (const one of [...job.earlierBaselines].reverse().concat(job.baseline ?? []))
    await addBaselineAs(database, jobId, one, numbers);
  await addReportsAs(database, jobId, bundled, numbers);
  for (const [device, history] of Object.entries(bundled.learned))
    await keepCarriedHistory(database, jobId, device, history);
  // Last of all: it names setups and runs, which must be there first.
  await changeRow(database, 'job', jobId, {
    ...own(job, jobFields),
    bestRunId: (job.bestRunId !== null && numbers.runs.get(job.bestRunId)) || null,
    deliveredSetupId: (job.deliveredSetupId !== null && numbers.setups.get(job.deliveredSetupId)) || null,
  });
  return { jobId, remarks };
}

const jobFields = [
  ...([
    'question',
    'gear',
    'state',
    'pausedFor',
    'pausedWhy',
    'pausedAt',
    'expectedAt',
    'use',
    'target',
    'notWanted',
    'claimedValue',
    'claimedUnit',
  ] as const),
  ...(['claimedScale', 'claimedSource', 'deliverables', 'gentlerTune', 'wantedPercent', 'dynoKind'] as const),
  ...([
    'tyrePressureKpa',
    'fan',
    'bonnet',
    'pinnedChannels',
    'report',
    'untested',
    'deliveredNote',
    'closedAt',
    'openPoints',
  ] as const),
];
const setupFields = [
  ...([
    'change',
    'items',
    'createdAt',
    'predictionKw',
    'predictionFromRpm',
    'predictionToRpm',
    'predictionWhy',
  ] as const),
  ...(['decision', 'decisionWhy', 'decidedAt', 'decidedOn', 'plannedRuns'] as const),
];
const runFields = [
  ...([
    'kind',
    'state',
    'gear',
    'startedAt',
    'endedAt',
    'setAsideReason',
    'note',
    'dyno',
    'engineToDrumRatio',
  ] as const),
  ...([
    'air',
    'airTakenAt',
    'fuel',
    'startTemperatures',
    'channels',
    'samples',
    'source',
    'recordedBy',
    'device',
    'plan',
  ] as const),
  ...(['logs', 'remarks', 'tyres', 'tyrePressureKpa', 'fan', 'bonnet', 'loadMode', 'remounted', 'airStated'] as const),
  'given' as const,
];

const own = <T extends object, Key extends keyof T>(record: T, fields: readonly Key[]): Record<string, unknown> =>
  Object.fromEntries(fields.map((field) => [field, record[field]]));

/** The vehicle here that says the same, or a new one: figures rest on gears, masses and injectors. */
async function vehicleOf(
  database: Queryable,
  { job, owner, parts }: BundledJob,
): Promise<{ vehicleId: number; remarks: string[] }> {
  const ownerId = owner && (await ownerNamed(database, owner.name, owner));
  const car = { ...job.car, ownerId };
  const found = await sameVehicle(database, car);
  if (found.same !== undefined) return { vehicleId: found.same, remarks: [] };
  const vehicleId = await addVehicle(database, car);
  for (const part of parts) await addEntry(database, 'parts', vehicleId, part);
  const remarks = found.otherFacts
    ? [
        `A vehicle called ${car.name} was here with other facts, so this one was written down beside it: figures rest on its gears, mass and fuel system.`,
      ]
    : [];
  return { vehicleId, remarks };
}

function addSetupAs(
  database: Queryable,
  jobId: number,
  setup: Setup,
  { counted }: BundledJob,
  { setups }: Renumbered,
): Promise<number> {
  return insertRow(database, 'setup', {
    jobId,
    position: setupPosition(setup.letter),
    parentId: setup.parentId === null ? null : (setups.get(setup.parentId) ?? null),
    runsNumbered: counted.runsNumbered[setup.id] ?? 0,
    ...own(setup, setupFields),
  });
}

async function addRunAs(
  database: Queryable,
  jobId: number,
  run: Run,
  { runKeys }: BundledJob,
  { setups }: Renumbered,
  contents: BundleContents,
): Promise<number> {
  const label = run.label ?? '';
  const id = await insertRow(database, 'run', {
    jobId,
    setupId: setups.get(run.setupId ?? 0) ?? null,
    number: Number(/\d+$/.exec(label)?.[0]),
    key: runKeys[run.id],
    ...own(run, runFields),
  });
  await database.query('update run set former_labels = $2 where id = $1', [id, run.formerLabels]);
  const sources = [
    { source: 0, path: bundlePaths.run(label), channels: run.channels },
    ...run.logs.map(({ source, channels }) => ({ source, path: bundlePaths.log(label, source), channels })),
  ];
  for (const { source, path, channels } of sources) {
    const { time, channels: columns } = await contents.recording(path, channels);
    await insertChannels(database, { ...run, id }, source, [time, ...columns.map(({ values }) => values)]);
  }
  return id;
}

async function addFiles(
  database: Queryable,
  jobId: number,
  { job }: BundledJob,
  numbers: Renumbered,
  contents: BundleContents,
): Promise<void> {
  for (const photo of job.photos) {
    const content = await contents.bytes(bundlePaths.photo(photo.id));
    const id = await addPhoto(database, jobId, { ...photo, content });
    await database.query('update photo set at = $2 where id = $1', [id, photo.at]);
    numbers.photos.set(photo.id, id);
  }
  for (const file of job.tuneFiles) {
    const setupId = numbers.setups.get(file.setupId);
    if (setupId === undefined) continue;
    const content = await contents.bytes(bundlePaths.tuneFile(file.sha256));
    const { id } = await addTuneFile(database, { id: setupId, jobId }, { ...file, content });
    await database.query('update setup_tune_file set created_at = $2 where id = $1', [id, file.createdAt]);
  }
  for (const { setupId, runs, createdAt } of job.tunerPackages)
    await insertRow(database, 'tuner_package', {
      jobId,
      setupId: (setupId !== null && numbers.setups.get(setupId)) || null,
      runs,
      createdAt,
    });
}

async function addEntries(database: Queryable, jobId: number, { job }: BundledJob, numbers: Renumbered): Promise<void> {
  const add = (kind: JobEntryKind, entry: Record<string, unknown>) => addEntry(database, kind, jobId, entry);
  for (const kind of jobKindsWhere(({ travels }) => travels === 'as it is'))
    for (const entry of job[kind]) await add(kind, entry);
  await addOfSetups(database, 'with its setup', jobId, job, numbers);
  for (const entry of job.suspicions)
    await add('suspicions', { ...entry, runIds: entry.runIds.flatMap((id) => numbers.runs.get(id) ?? []) });
  for (const entry of job.borrowedCurves) numbers.curves.set(entry.id, await add('borrowedCurves', entry));
  // A view names a borrowed curve by its number.
  const anew = (address: string) =>
    address.replace(/\bcurve-(\d+)/g, (all, id) =>
      numbers.curves.has(Number(id)) ? `curve-${numbers.curves.get(Number(id))}` : all,
    );
  for (const entry of job.views) await add('views', { ...entry, address: anew(entry.address) });
}

/** Entries that name a setup; those of a setup that is not here, but need one, are left out. */
async function addOfSetups(
  database: Queryable,
  travels: 'with its setup' | 'where its setup is',
  jobId: number,
  job: Job,
  { setups }: Renumbered,
): Promise<void> {
  for (const kind of jobKindsWhere((of) => of.travels === travels))
    for (const entry of job[kind] as readonly (Record<string, unknown> & { setupId: number | null })[]) {
      const setupId = entry.setupId === null ? null : (setups.get(entry.setupId) ?? null);
      if (setupId !== null || travels === 'with its setup')
        await addEntry(database, kind, jobId, { ...entry, setupId });
    }
}

/** What was signed stays signed, under the text as it was read; this shop's own texts are others. */
async function addConsents(database: Queryable, jobId: number, { job, hands }: BundledJob): Promise<void> {
  for (const { id, version, title, text, name, signedAt } of job.consents)
    await insertRow(database, 'consent', { jobId, version, title, text, name, signedAt, strokes: hands[id] ?? [] });
}

async function addBaselineAs(database: Queryable, jobId: number, one: Baseline, numbers: Renumbered): Promise<void> {
  const runIds = one.runIds.flatMap((id) => numbers.runs.get(id) ?? []);
  const setupId = numbers.setups.get(one.setupId);
  if (setupId === undefined || runIds.length !== one.runIds.length) return;
  const { version, why, createdAt, spread } = one;
  const id = await insertRow(database, 'baseline', { jobId, setupId, version, why, createdAt, spread });
  await database.query('insert into baseline_run (baseline_id, run_id) select $1, unnest($2::bigint[])', [id, runIds]);
}
