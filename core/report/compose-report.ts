import { deliveryPoints, type PointId } from '../handover/open-points.ts';
import { say, type Sentence } from '../sentence/sentence.ts';
import { answer } from './answer.ts';
import { dayWords, largeFigures } from './large-figures.ts';
import { blockIds, blockTitles, type Block, type BlockId, type Content, type Report } from './report.ts';
import type { ReportSource } from './reported-job.ts';
import { expectation } from './expectation.ts';
import { otherTests, testedPair } from './other-tests.ts';
import { onTheRoad } from './on-the-road.ts';
import { laterName } from './reported-job.ts';
import { reportSides } from './report-request.ts';
import { bands, costs, ladder, limits, targets } from './tables.ts';
import { care, conditions, file, made, putBack, untested } from './texts.ts';

/**
 * A job's report as it is composed by itself: every block that something is
 * known for, in the usual order, and what is missing for a reader who was not
 * there.
 */
export function composeReport(source: ReportSource): Report {
  const { job } = source;
  const { arrivedId, deliveredId } = reportSides(job);
  const { usual: large, others } = largeFigures(source, arrivedId, deliveredId);
  // A job of tests alone has no curve that it could miss.
  const swept = testedPair(source, '') === undefined || source.figures.runs.length + source.figures.unusable.length > 0;
  const contents: Record<BlockId, Content | undefined> = {
    answer: answer(source),
    figures: swept ? { is: 'figures', figures: large, others } : undefined,
    lanes: swept ? { is: 'lanes' } : undefined,
    bands: bands(source, laterName(job)),
    targets: targets(source, arrivedId, deliveredId),
    ladder: ladder(source, deliveredId),
    tests: otherTests(source, laterName(job)),
    road: onTheRoad(source, arrivedId, deliveredId, { before: 'arrived', after: laterName(job) }),
    expectation: expectation(
      source,
      large.find(({ id }) => id === 'arrived'),
    ),
    limits: limits(source),
    care: care(source, deliveredId),
    untested: untested(source),
    putBack: putBack(source),
    photos:
      job.photos.length === 0
        ? undefined
        : { is: 'photos', photos: job.photos.map(({ id, caption }) => ({ id, caption })) },
    conditions: conditions(source, arrivedId, deliveredId),
    made: swept ? made(source) : undefined,
    file: file(source, deliveredId),
    costs: costs(source),
  };
  const last = job.runs
    .flatMap(({ startedAt }) => startedAt ?? [])
    .sort()
    .at(-1);
  return {
    head: { car: job.vehicle, plate: job.plate, owner: job.owner, date: last ? dayWords(last) : '', job: job.id },
    blocks: blockIds.flatMap((id): Block[] =>
      contents[id] ? [{ id, title: blockTitles[id], content: contents[id] }] : [],
    ),
    missing: missing(source, deliveredId),
  };
}

/** What a sceptical owner would ask and nobody has written down or done yet. */
function missing({ job, figures }: ReportSource, deliveredId: number): Sentence[] {
  const points = deliveryPoints(job, deliveredId);
  const open = (...ids: PointId[]) => points.flatMap(({ id, done, says }) => (!done && ids.includes(id) ? [says] : []));
  // A job without a run says so by itself.
  const ran = job.runs.some(({ kind, state }) => kind === 'power' && state !== 'recording');
  return [
    ...open('delivered'),
    job.question === '' && 'No question is written in the brief: there is nothing to answer.',
    job.owner === '' && 'No owner is named on the vehicle.',
    job.bands.length === 0 && 'No band is named: the whole range is judged.',
    ...(ran ? open('verified') : []),
    ...open('decided'),
    ...open('file'),
    ...open('untested'),
    ...open('putBack'),
    figures.comparison === undefined &&
      !figures.tests?.shown.length &&
      deliveredId !== figures.sides.againstId &&
      say`There is no comparison: ${figures.noComparison ?? 'runs are missing'}`,
  ].filter((sentence) => sentence !== false);
}
