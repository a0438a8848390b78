import { fileNameOf } from '../exchange/results/file-name.ts';
import type { Severity } from '../checks/check.ts';
import { ratioOfJob } from '../fuel/ledger.ts';
import type { JobFigures } from '../figures/job-figures.ts';
import type { Picture } from '../scene/picture.ts';
import { languageNamed } from '../language/languages.ts';
import { say, written, type Reader, type Sentence } from '../sentence/sentence.ts';
import { halfWidthText } from '../units/spoken.ts';
import { figureIn, keptUnits, toldIn, type Units } from '../units/told-units.ts';
import { drafted, type Draft } from './drafted.ts';
import { narrowWidth, reportPicture, reportWidth } from './report-scene.ts';
import type { BlockId, Cell, Content, LargeFigure, Report } from './report.ts';
import type { ReportedJob } from './reported-job.ts';

/** A large figure as it stands: its interval is the beginning of its note. */
export interface WrittenFigure {
  name: string;
  sign?: LargeFigure['sign'];
  figure: string;
  unit: string;
  note: string;
}

export interface WrittenCell {
  text: string;
  tone?: Cell['tone'];
  right?: true;
}

/** Lanes over one axis, as wide as a page and as narrow as a phone; absent where no curve can be drawn. */
export interface WrittenLanes {
  is: 'lanes';
  wide?: Picture;
  narrow?: Picture;
  /** What is seen, for those who do not see it; in the place of the lanes where there are none. */
  says: string;
}

/** What stands under a block's title, in its reader's words and units. */
export type WrittenContent =
  | { is: 'answer'; headline: string; lead: string }
  | { is: 'figures'; figures: readonly WrittenFigure[] }
  | WrittenLanes
  | { is: 'table'; head: readonly WrittenCell[]; rows: readonly (readonly WrittenCell[])[]; note?: string }
  | { is: 'list'; items: readonly { severity: Severity; text: string }[] }
  | { is: 'text'; paragraphs: readonly string[] }
  | Extract<Content, { is: 'photos' }>;

export interface WrittenBlock {
  id: BlockId;
  title: string;
  note?: string;
  content: WrittenContent;
}

/**
 * A report as its reader has it in hand: screen, PDF, plain text and a version
 * that is kept are all made from this, so that no two of them differ.
 */
export interface WrittenReport {
  /** At the head of each page: the car and for whom; when and which job. */
  head: { about: string; when: string };
  blocks: readonly WrittenBlock[];
}

/** Who reads a job's report: in these units and this language, a mixture by what is in the tank; no figure parts from its unit at a line's end. */
export function reportReader(job: Parameters<typeof ratioOfJob>[0], units: Units, language: string): Reader {
  return { ...units, stoichiometric: ratioOfJob(job), space: '\u00a0', language: languageNamed(language) };
}

/** Writes a report in its reader's units, in the draft's order and words. */
export function writtenReport(
  report: Report,
  draft: Draft,
  { job, figures }: { job: Pick<ReportedJob, 'setups' | 'bands' | 'deliveredSetupId'>; figures: JobFigures },
  reader: Reader,
): WrittenReport {
  const { car, plate, owner, date, job: number } = report.head;
  const write = (sentence: Sentence) => written(sentence, reader);
  const together = (parts: readonly Sentence[]) => parts.map(write).filter(Boolean).join(' · ');
  const lanes = (): WrittenLanes => {
    const [wide, narrow] = [reportWidth, narrowWidth].map((width) => reportPicture(job, figures, reader, width));
    if (!wide || !narrow) return { is: 'lanes', says: write('No curve can be drawn of these runs.') };
    return {
      is: 'lanes',
      wide,
      narrow,
      says: write('Power, torque and gain over engine speed, arrived and delivered.'),
    };
  };
  return {
    head: {
      about: together([car, plate, owner && say`for ${owner}`]),
      when: together([date, say`job ${String(number)}`]),
    },
    blocks: drafted(report, draft).map(({ id, title, note, content }) => ({
      id,
      title: write(title),
      ...(note && { note }),
      content: content.is === 'lanes' ? lanes() : writtenContent(content, reader),
    })),
  };
}

function writtenContent(content: Exclude<Content, { is: 'lanes' }>, reader: Reader): WrittenContent {
  const write = (sentence: Sentence) => written(sentence, reader);
  switch (content.is) {
    case 'answer':
      return { is: 'answer', headline: write(content.headline), lead: content.lead.map(write).join(' ') };
    case 'figures':
      return { is: 'figures', figures: content.figures.map((figure) => writtenFigure(figure, reader)) };
    case 'table':
      return writtenTable(content, reader);
    case 'list':
      return {
        is: 'list',
        items: content.items.map(({ severity = 'note', text }) => ({ severity, text: write(text) })),
      };
    case 'text':
      return { is: 'text', paragraphs: content.paragraphs.map(write) };
    case 'photos':
      return content;
  }
}

/** A table in its reader's words and units. */
export function writtenTable(
  { head, rows, note }: Extract<Content, { is: 'table' }>,
  reader: Reader,
): Extract<WrittenContent, { is: 'table' }> {
  const cell = ({ text, ...look }: Cell): WrittenCell => ({ ...look, text: written(text, reader) });
  return {
    is: 'table',
    head: head.map(cell),
    rows: rows.map((row) => row.map(cell)),
    ...(note !== undefined && { note: written(note, reader) }),
  };
}

function writtenFigure({ name, kw, halfWidthKw, sign, note }: LargeFigure, reader: Reader): WrittenFigure {
  const { unit, of } = toldIn('kW', reader);
  const here = (english: string) => (reader.language ? reader.language.figures(english) : english);
  const interval = halfWidthKw === undefined ? '' : `± ${here(halfWidthText(figureIn(of(halfWidthKw), unit, 1)))}, `;
  return {
    name: written(name, reader),
    ...(sign && { sign }),
    figure: here(figureIn(of(kw), unit, 1)),
    unit,
    note: `${interval}${written(note, reader)}`,
  };
}

/** A kept report says at its head which version it is, in its own language. */
export function versioned({ head, blocks }: WrittenReport, number: number, language = 'en'): WrittenReport {
  const version = written(say`version ${String(number)}`, { ...keptUnits, language: languageNamed(language) });
  return { head: { ...head, when: `${head.when} · ${version}` }, blocks };
}

/** What a file of a report is called, without its ending: a name that every system takes. */
export function reportFileName({ head: { about, when } }: WrittenReport): string {
  return fileNameOf(`${about} ${when}`);
}
