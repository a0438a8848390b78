import type { Run } from '../../contract/job/records.ts';
import type { Database } from '../../store/database/database.ts';
import type { ReportThread } from './report-thread.ts';
import { recordingsToBytes } from '../../core/exchange/recordings/recording-bytes.ts';
import { sourcesOfRun } from '../../core/exchange/recordings/runs-recorded.ts';
import { recordingsOf } from '../../store/runs/samples.ts';

/** Runs are read so many at a time: a long job is never in memory as a whole. */
const togetherRuns = 12;

/** Has a thread read what runs recorded. @param told hears how much of it is done before each part, 0 to 1 */
export async function readRuns(
  thread: ReportThread,
  database: Database,
  runs: readonly Run[],
  told: (done: number) => void = () => undefined,
): Promise<void> {
  for (let from = 0; from < runs.length; from += togetherRuns) {
    told(from / runs.length);
    const part = runs.slice(from, from + togetherRuns);
    const bytes = await recordedBytes(database, part);
    await thread.ask('read', { runs: part, recordings: bytes }, [bytes]);
  }
}

/** Everything that was recorded of runs, as bytes that a thread is handed. */
export async function recordedBytes(database: Database, runs: readonly Run[]): Promise<ArrayBuffer> {
  const recordings = await recordingsOf(
    database,
    runs.flatMap((run) => sourcesOfRun(run)),
  );
  return recordingsToBytes(recordings).buffer as ArrayBuffer;
}
