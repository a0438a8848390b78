import type { BundledJob } from '../../contract/job/bundle.ts';
import type { Queryable } from '../database/database.ts';
import { addReportVersion } from '../reports/report-versions.ts';

/** New numbers, by those that they have in the bundle. */
type Numbers = Record<'setups' | 'runs' | 'photos', ReadonlyMap<number, number>>;

/** Writes the kept reports of a job down as they were, with the numbers that setups, runs and photos have here. */
export async function addReportsAs(
  database: Queryable,
  jobId: number,
  { reports }: BundledJob,
  numbers: Numbers,
): Promise<void> {
  for (const report of reports) {
    const side = ({ setupId, letter, runs }: (typeof report)['restsOn']['arrived']) => ({
      setupId: numbers.setups.get(setupId) ?? setupId,
      letter,
      runs: runs.map(({ id, label }) => ({ id: numbers.runs.get(id) ?? id, label })),
    });
    const { arrived, delivered, judgement } = report.restsOn;
    const restsOn = {
      ...report.restsOn,
      arrived: side(arrived),
      delivered: side(delivered),
      judgement: judgement && judgedAnew(judgement, numbers.setups),
    };
    const blocks = report.written.blocks.map((block) => withPhotos(block, numbers.photos));
    await addReportVersion(
      database,
      { ...report, jobId, restsOn, written: { ...report.written, blocks } },
      { number: report.number, createdAt: report.createdAt },
    );
  }
}

/** A judgement names its two setups by their numbers. */
function judgedAnew(judgement: Record<string, unknown>, setups: ReadonlyMap<number, number>): Record<string, unknown> {
  const anew = (id: unknown) => setups.get(Number(id)) ?? id;
  return { ...judgement, testId: anew(judgement.testId), againstId: anew(judgement.againstId) };
}

/** A block of photos names them by their numbers. */
function withPhotos<Block extends object>(block: Block, photos: ReadonlyMap<number, number>): Block {
  const { content } = block as { content?: { is?: string; photos?: { id: number }[] } };
  if (content?.is !== 'photos' || !content.photos) return block;
  const anew = content.photos.map((photo) => ({ ...photo, id: photos.get(photo.id) ?? photo.id }));
  return { ...block, content: { ...content, photos: anew } };
}
