import type { Run } from '../../contract/job/records.ts';
import { recordingsToBytes } from '../../core/exchange/recordings/recording-bytes.ts';
import { sourcesOfRun } from '../../core/exchange/recordings/runs-recorded.ts';
import type { Database } from '../../store/database/database.ts';
import { recordingsOf } from '../../store/runs/samples.ts';

/** Everything that was recorded of runs, as bytes that a thread is handed. */
export async function recordedBytes(database: Database, runs: readonly Run[]): Promise<ArrayBuffer> {
  const recordings = await recordingsOf(
    database,
    runs.flatMap((run) => sourcesOfRun(run)),
  );
  return recordingsToBytes(recordings).buffer as ArrayBuffer;
}
