import { writeFileSync } from 'node:fs';
import { papers, reportPdf } from '../contract/report/report.ts';
import { Refusal } from '../core/refusal.ts';
import { unitSets } from '../core/units/told-units.ts';
import { standardNamed } from './input.ts';
import { askedInLines, serverOf } from './running-suvok.ts';
import { sortedWords, wordOf } from './words.ts';

export const reportUsage = `suvok report JOB --pdf FILE [--paper A4|LETTER] [--units METRIC|US|UK] [--standard ID] [--server ADDRESS]
    The report of a job as its draft stands, as a PDF, made by the Suvok that runs here (http://127.0.0.1:5180, or
    --server). JOB is its number. Units are the draft's own where it has some. Where people sign in it is made on the
    page instead.`;

const options = ['pdf', 'paper', 'units', 'standard', 'server'];

/** What was written, and where. */
interface ReportFile {
  file: string;
  pages: number;
}

/**
 * `suvok report`: a job's report as a PDF, by the server that runs.
 * @throws Refusal with a sentence, the server's own among them
 */
export async function reportCommand(words: readonly string[]): Promise<ReportFile> {
  const sorted = sortedWords(words, options);
  const [job, ...more] = sorted.before;
  if (job === undefined || more.length > 0 || !/^[1-9]\d*$/.test(job))
    throw new Refusal(`Say the number of one job. ${reportUsage}`);
  const file = wordOf(sorted, 'pdf');
  if (file === undefined) throw new Refusal('Say where the PDF goes: --pdf FILE.');
  const paper = papers.find((name) => name === (wordOf(sorted, 'paper') ?? 'A4').toUpperCase());
  if (!paper) throw new Refusal(`There is no paper "${wordOf(sorted, 'paper')}": ${papers.join(', ')} are.`);
  const wished = wordOf(sorted, 'units') ?? 'METRIC';
  const set = unitSets.find(({ name }) => name.toUpperCase() === wished.toUpperCase());
  if (!set)
    throw new Refusal(
      `There are no units "${wished}": ${unitSets.map(({ name }) => name.toUpperCase()).join(', ')} are.`,
    );
  const standard = standardNamed(wordOf(sorted, 'standard'));
  const { pages, base64 } = await askedInLines(
    serverOf(sorted),
    `/jobs/${job}/report/pdf`,
    JSON.stringify({ paper, units: set.units, standard }),
    reportPdf,
  );
  try {
    writeFileSync(file, Buffer.from(base64, 'base64'));
  } catch (error) {
    throw new Refusal(`${file} could not be written (${(error as NodeJS.ErrnoException).code}).`);
  }
  return { file, pages };
}
