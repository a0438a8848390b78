import type { Run } from '../../contract/job/records.ts';
import { addressesOfRun, besideRun, logAddresses } from '../../core/exchange/recordings/runs-recorded.ts';
import { recordingFromBytes, recordingsFromBytes } from '../../core/exchange/recordings/recording-bytes.ts';
import { curveOf, usualGridRpm, type CurveSettings } from '../../core/figures/runs/corrected-curve.ts';
import { hasCurve, readingOf, type Reading } from '../../core/figures/runs/reading.ts';
import type { LoggerBeside } from '../../core/log/view/logged-pull.ts';
import type { Recording } from '../../core/recording/recording.ts';
import type { SweepDrive } from '../../core/reduction/sweep-drive.ts';

/** Samples did not come: no fault of the run's, and worth another try. */
export class NotFetched extends Error {
  constructor() {
    super('the samples did not come from the server. What was recorded is kept; check that Suvok is running');
  }
}

/** @throws NotFetched when no whole answer comes */
async function fetchedBytes(path: string): Promise<ArrayBuffer> {
  const response = await fetch(path).catch(() => undefined);
  const bytes = response?.ok ? await response.arrayBuffer().catch(() => undefined) : undefined;
  if (!bytes) throw new NotFetched();
  return bytes;
}

/** A run's own recording as it is stored. @throws NotFetched */
export async function fetchedRecording(run: Run): Promise<Recording> {
  return recordingFromBytes(await fetchedBytes(`/api/runs/${run.id}/recording?key=${run.key}`));
}

/** What loggers recorded beside a run. @throws NotFetched */
export async function fetchedBeside(run: Run): Promise<LoggerBeside[]> {
  if (run.logs.length === 0) return [];
  return besideOf(run, await fetchedSources(logAddresses(run)));
}

/** @throws NotFetched */
function besideOf(run: Run, recordings: ReadonlyMap<string, Recording>): LoggerBeside[] {
  const beside = besideRun(run, recordings);
  if (!beside) throw new NotFetched();
  return beside;
}

/** Readings by run: recordings never change once a run has ended. The oldest give way to new ones. */
const readings = new Map<string, Promise<Reading>>();

/** What a reading rests on: the samples, which never change, and what is said of the machine and of what recorded beside it, which may be put right. */
const readingKey = ({ key, kind, dyno, engineToDrumRatio, logs }: Run) =>
  JSON.stringify([key, kind, dyno, engineToDrumRatio, logs]);

const mostReadings = 400;
/** Runs are fetched together, so many at a time: the first are made ready while the next are on their way. */
const togetherRuns = 12;

/** Recordings by `sourceKey`. @param addresses as `addressesOfRun` gives them @throws NotFetched */
async function fetchedSources(addresses: readonly string[]): Promise<Map<string, Recording>> {
  return recordingsFromBytes(await fetchedBytes(`/api/recordings?of=${addresses.join('.')}`));
}

/** The recordings of several runs, and of the loggers beside them. @throws NotFetched */
function fetchedTogether(runs: readonly Run[]): Promise<Map<string, Recording>> {
  return fetchedSources(runs.flatMap((run) => addressesOfRun(run)));
}

async function madeReading(run: Run, recordings: Promise<Map<string, Recording>>): Promise<Reading> {
  const found = await recordings;
  const recording = found.get(run.key);
  if (!recording) throw new NotFetched();
  const reading = readingOf(run, recording, besideOf(run, found));
  // A mistake of the program is told to whoever looks into the browser's log, too.
  if (reading.kind === 'unusable' && reading.unusable.fault === 'program') console.error(reading.unusable.cause);
  return reading;
}

/** Recordings on their way, or come and not yet looked at, by the run's key. */
const fetched = new Map<string, Promise<Map<string, Recording>>>();

/** Has pulls fetched ahead of time; what fails is said when they are asked for. */
export function fetchRuns(runs: readonly Run[]): void {
  fetchMissing(runs.filter(hasCurve));
}

/** Has runs fetched that are neither here nor on their way. */
function fetchMissing(runs: readonly Run[]): void {
  const missing = runs.filter((run) => !readings.has(readingKey(run)) && !fetched.has(run.key));
  for (let from = 0; from < missing.length; from += togetherRuns) {
    const together = missing.slice(from, from + togetherRuns);
    const recordings = fetchedTogether(together);
    for (const { key } of together) fetched.set(key, recordings);
    recordings.catch(() => together.forEach(({ key }) => fetched.delete(key)));
  }
}

/** What the recordings of runs hold, each made once. @throws NotFetched */
export async function cachedReadings(runs: readonly Run[]): Promise<Map<number, Reading>> {
  fetchMissing(runs);
  const found = runs.map((run) => ({
    id: run.id,
    key: readingKey(run),
    reading: readings.get(readingKey(run)) ?? newReading(run),
  }));
  // Asked for again they are the newest.
  for (const { key, reading } of found) {
    readings.delete(key);
    readings.set(key, reading);
  }
  for (const key of readings.keys()) {
    if (readings.size <= Math.max(mostReadings, runs.length)) break;
    readings.delete(key);
  }
  return new Map(await Promise.all(found.map(async ({ id, reading }) => [id, await reading] as const)));
}

function newReading(run: Run): Promise<Reading> {
  const made = madeReading(run, fetched.get(run.key) ?? fetchedTogether([run]));
  made.then(
    () => fetched.delete(run.key),
    () => {
      readings.delete(readingKey(run));
      fetched.delete(run.key);
    },
  );
  return made;
}

/** What one run's recording holds. @throws NotFetched */
export async function cachedReading(run: Run): Promise<Reading> {
  const reading = (await cachedReadings([run])).get(run.id);
  if (!reading) throw new Error(`Run ${run.id} was asked for and not read.`);
  return reading;
}

/** A run's sweep and what was logged in it. @throws NotFetched, or what is wrong with the run */
export async function cachedPull(run: Run): Promise<Extract<Reading, { kind: 'sweep' }>> {
  const reading = await cachedReading(run);
  if (reading.kind === 'sweep') return reading;
  throw reading.kind === 'unusable' ? reading.unusable.cause : new TypeError(`run ${run.id} is no sweep`);
}

const anyView: CurveSettings = { standard: 'none', share: 1, spanRpm: 300, gridRpm: usualGridRpm };

/**
 * Reads runs one after another; whoever asks for figures meanwhile comes first.
 * @returns those that could be read; what failed is said when it is asked for
 */
export async function readInTurn(runs: readonly Run[]): Promise<Map<number, Reading>> {
  const wanted = runs.filter(hasCurve);
  fetchRuns(wanted);
  const found = new Map<number, Reading>();
  for (const run of wanted) {
    const reading = await cachedReading(run).catch(() => undefined);
    if (reading) found.set(run.id, reading);
    await othersHaveHadTheirTurn();
  }
  return found;
}

/** Sweeps of which a curve was made already. */
const prepared = new WeakSet<SweepDrive>();

/** Makes runs ready that figures will be asked of soon. */
export async function prepareRuns(runs: readonly Run[]): Promise<void> {
  for (const reading of (await readInTurn(runs)).values()) {
    if (reading.kind !== 'sweep' || prepared.has(reading.sweep)) continue;
    prepared.add(reading.sweep);
    // One curve looks at everything in the run that does not depend on the view.
    curveWhereItCan(reading.sweep);
    await othersHaveHadTheirTurn();
  }
}

/** Lets whoever asks for figures meanwhile be answered first; a timer would wait some ms each time. */
export function othersHaveHadTheirTurn(): Promise<void> {
  return new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(undefined);
  });
}

function curveWhereItCan(sweep: SweepDrive): void {
  try {
    curveOf(sweep, undefined, anyView);
  } catch {
    // Too short for a curve: said when figures are asked for.
  }
}
