import { joined, say, type Sentence } from '../sentence/sentence.ts';
import { answer } from './answer.ts';
import { dayWords, largeFigures } from './large-figures.ts';
import { blockIds, blockTitles, type Block, type BlockId, type Content, type Report } from './report.ts';
import type { ReportSource, ReportedJob } from './reported-job.ts';
import { expectation } from './expectation.ts';
import { onTheRoad } from './on-the-road.ts';
import { laterName } from './later-name.ts';
import { reportSides } from './report-request.ts';
import { bands, ladder, limits } from './tables.ts';
import { care, conditions, file, made, putBack, untested } from './texts.ts';

/**
 * A job's report as it is composed by itself: every block that something is
 * known for, in the usual order, and what is missing for a reader who was not
 * there.
 */
export function composeReport(source: ReportSource): Report {
  const { job } = source;
  const { arrivedId, deliveredId } = reportSides(job);
  const large = largeFigures(source, arrivedId, deliveredId);
  const contents: Record<BlockId, Content | undefined> = {
    answer: answer(source),
    figures: { is: 'figures', figures: large },
    lanes: { is: 'lanes' },
    bands: bands(source, laterName(job)),
    ladder: ladder(source, deliveredId),
    road: onTheRoad(source, arrivedId, deliveredId, { before: 'arrived', after: laterName(job) }),
    expectation: expectation(
      source,
      large.find(({ name }) => name === 'Arrived'),
    ),
    limits: limits(source),
    care: care(source, deliveredId),
    untested: untested(source),
    putBack: putBack(source),
    photos: job.photos.length === 0 ? undefined : { is: 'photos', photos: job.photos.map(({ id, caption }) => ({ id, caption })) }, // prettier-ignore
    conditions: conditions(source, arrivedId, deliveredId),
    made: made(source),
    file: file(source, deliveredId),
  };
  const last = job.runs.flatMap(({ startedAt }) => startedAt ?? []).sort().at(-1); // prettier-ignore
  return {
    head: { car: job.vehicle, plate: job.plate, owner: job.owner, date: last ? dayWords(last) : '', job: job.id },
    blocks: blockIds.flatMap((id): Block[] =>
      contents[id] ? [{ id, title: blockTitles[id], content: contents[id] }] : [],
    ),
    missing: missing(source, deliveredId),
  };
}

const nameOf = ({ setups }: ReportedJob, id: number) => setups.find((setup) => setup.id === id)?.letter ?? '?';

/** What a sceptical owner would ask and nobody has written down or done yet. */
function missing({ job, figures }: ReportSource, deliveredId: number): Sentence[] {
  const { setups, runs } = job;
  const open = job.putBack.filter(({ done }) => !done);
  const latest = runs.filter(({ kind, state }) => kind === 'power' && state !== 'recording').at(-1);
  const unclear = setups.filter(({ parentId, decision, id }) => parentId !== null && decision === null && runs.some((run) => run.setupId === id)); // prettier-ignore
  return [
    job.deliveredSetupId === null && say`No setup is named as delivered: ${nameOf(job, deliveredId)} stands in.`,
    job.question === '' && 'No question is written in the brief: there is nothing to answer.',
    job.owner === '' && 'No owner is named on the vehicle.',
    job.bands.length === 0 && 'No band is named: the whole range is judged.',
    latest !== undefined && latest.setupId !== deliveredId && say`The last run is ${latest.label ?? 'another'}: ${nameOf(job, deliveredId)} was not verified after it.`, // prettier-ignore
    unclear.length > 0 && say`Nothing is decided on ${unclear.map(({ letter }) => letter).join(', ')}.`,
    !job.tuneFiles.some(({ setupId }) => setupId === deliveredId) && 'No tune file is stored with what is delivered.',
    job.untested === '' && 'Nothing is written of what was not tested.',
    open.length > 0 && say`Not ticked as put back: ${joined(open.map(({ text }) => text), '; ')}.`, // prettier-ignore
    figures.comparison === undefined && deliveredId !== figures.sides.againstId && say`There is no comparison: ${figures.noComparison ?? 'runs are missing'}`, // prettier-ignore
  ].filter((sentence) => sentence !== false);
}
