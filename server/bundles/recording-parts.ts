import { bundlePaths } from '../../contract/job/bundle.ts';
import type { Run } from '../../contract/job/records.ts';
import type { Database } from '../../store/database/database.ts';
import { recordingOf } from '../../store/runs/samples.ts';
import type { CsvThread } from './csv-thread.ts';
import type { Part } from './write-zip.ts';

/** The recordings of a run that has ended, its loggers' among them, as CSV. */
export function recordingParts(database: Database, csv: CsvThread, run: Run): Part[] {
  const label = run.label ?? String(run.id);
  async function* pieces(source: number) {
    yield* csv.pieces(await recordingOf(database, run, source));
  }
  return [
    { path: bundlePaths.run(label), compress: true, pieces: () => pieces(0) },
    ...run.logs.map(({ source }) => ({
      path: bundlePaths.log(label, source),
      compress: true,
      pieces: () => pieces(source),
    })),
  ];
}
