import type { Severity } from '../checks/check.ts';
import type { Sentence } from '../sentence/sentence.ts';

/** A power that stands large: arrived, delivered, best seen. */
export interface LargeFigure {
  /** What a draft chooses it by: `arrived`, `delivered`, `best`, `setup B`, `run B3`; the same in another Suvok. */
  id: string;
  name: string;
  kw: number;
  /** Half of the 95 % interval of its mean; absent for one run. */
  halfWidthKw?: number;
  /** An estimate for the crank, or a bound. */
  sign?: '≈' | '≥';
  /** On what, how often, in which state. */
  note: Sentence;
}

/** A cell of a table. */
export interface Cell {
  text: Sentence;
  tone?: 'gain' | 'loss' | 'warning';
  /** Figures stand to the right. */
  right?: true;
}

/** A cell of a figure. */
export const right = (text: Sentence, tone?: Cell['tone']): Cell => ({ text, right: true, ...(tone && { tone }) });

/** What stands under a block's title. */
export type Content =
  | { is: 'answer'; headline: Sentence; lead: readonly Sentence[] }
  /** Those that stand, and what else can be chosen. */
  | { is: 'figures'; figures: readonly LargeFigure[]; others: readonly LargeFigure[] }
  | { is: 'lanes' }
  | { is: 'table'; head: readonly Cell[]; rows: readonly (readonly Cell[])[]; note?: Sentence }
  | { is: 'list'; items: readonly { severity?: Severity; text: Sentence }[] }
  | { is: 'text'; paragraphs: readonly Sentence[] }
  /** By their numbers in the store; what they show never changes. */
  | { is: 'photos'; photos: readonly { id: number; caption: string }[] };

/** The blocks of a report in their usual order, with their titles. */
export const blockTitles = {
  answer: '',
  figures: '',
  lanes: '',
  bands: 'Where it matters',
  targets: 'Target figures',
  ladder: 'What each change gave',
  tests: 'Other tests',
  road: 'On the road',
  expectation: 'Against rating and claim',
  limits: 'Limits now',
  care: 'Read with care',
  untested: 'Not tested',
  putBack: 'Put back',
  photos: 'Photos',
  conditions: 'Conditions',
  made: 'How the figures were made',
  file: 'Delivered file',
  costs: 'Time and costs',
} as const;
export type BlockId = keyof typeof blockTitles;
export const blockIds = Object.keys(blockTitles) as BlockId[];

/** What a short report, one page, is made of. */
export const shortBlocks: readonly BlockId[] = ['answer', 'figures', 'lanes', 'ladder', 'care', 'made', 'file'];

export interface Block {
  id: BlockId;
  title: string;
  /** Somebody's own words, under the title. */
  note?: string;
  content: Content;
}

/** A report as it is composed by itself. */
export interface Report {
  /** At its head: the car, for whom, and when. */
  head: { car: string; plate: string; owner: string; date: string; job: number };
  blocks: readonly Block[];
  /** What is not known or not done yet: told in the draft, never in the owner's copy. */
  missing: readonly Sentence[];
}
