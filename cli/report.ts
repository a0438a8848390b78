import { writeFileSync } from 'node:fs';
import { papers, reportPdf } from '../contract/report.ts';
import { jsonIn } from '../contract/text.ts';
import { workLine } from '../contract/work-lines.ts';
import { Refusal } from '../core/refusal.ts';
import { unitSets } from '../core/units/told-units.ts';
import { standardNamed } from './input.ts';
import { sortedWords, wordOf } from './words.ts';

export const reportUsage = `suvok report JOB --pdf FILE [--paper A4|LETTER] [--units METRIC|US|UK] [--standard ID] [--server ADDRESS]
    The report of a job as its draft stands, as a PDF, made by the Suvok that runs here (http://127.0.0.1:5180, or
    --server). JOB is its number. Units are the draft's own where it has some. Where people sign in it is made on the
    page instead.`;

const options = ['pdf', 'paper', 'units', 'standard', 'server'];
const usualServer = 'http://127.0.0.1:5180';

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
  if (job === undefined || more.length > 0 || !/^[1-9]\d*$/.test(job)) throw new Refusal(`Say the number of one job. ${reportUsage}`); // prettier-ignore
  const file = wordOf(sorted, 'pdf');
  if (file === undefined) throw new Refusal('Say where the PDF goes: --pdf FILE.');
  const paper = papers.find((name) => name === (wordOf(sorted, 'paper') ?? 'A4').toUpperCase());
  if (!paper) throw new Refusal(`There is no paper "${wordOf(sorted, 'paper')}": ${papers.join(', ')} are.`);
  const wished = wordOf(sorted, 'units') ?? 'METRIC';
  const set = unitSets.find(({ name }) => name.toUpperCase() === wished.toUpperCase());
  if (!set) throw new Refusal(`There are no units "${wished}": ${unitSets.map(({ name }) => name.toUpperCase()).join(', ')} are.`); // prettier-ignore
  const standard = standardNamed(wordOf(sorted, 'standard'));
  const { pages, base64 } = await askedOf(wordOf(sorted, 'server') ?? usualServer, job, { paper, units: set.units, standard }); // prettier-ignore
  try {
    writeFileSync(file, Buffer.from(base64, 'base64'));
  } catch (error) {
    throw new Refusal(`${file} could not be written (${(error as NodeJS.ErrnoException).code}).`);
  }
  return { file, pages };
}

async function askedOf(server: string, job: string, wishes: object) {
  const response = await fetch(`${server}/api/jobs/${job}/report/pdf`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', accept: 'application/x-ndjson' },
    body: JSON.stringify(wishes),
  }).catch(() => {
    throw new Refusal(`No Suvok answers at ${server}. Start it with npm start, or say where it is with --server.`);
  });
  const lines = (await response.text()).trim().split('\n').map(jsonIn);
  const last = workLine.safeParse(lines.at(-1));
  const said = lines.at(-1) as { error?: string } | undefined;
  if (said?.error !== undefined) throw new Refusal(said.error);
  const made = last.success && 'answer' in last.data ? reportPdf.safeParse(last.data.answer) : undefined;
  if (!made?.success) throw new Refusal(`What answers at ${server} is no Suvok of this kind.`);
  return made.data;
}
