import type { FittedCell } from './corner-fit.ts';

/** How well a cell is known. */
export type CellKnowledge = 'empty' | 'thin' | 'known';

/** Where a cell stands, with 95 % confidence: within a bound, beyond one, or neither can be said. */
export type CellStanding = 'within 1 %' | 'within 3 %' | 'beyond 3 %' | 'beyond 1 %' | 'open' | 'not known';

/** The bounds that work goes by (domain §3.5): first 3 %, then 1 %. */
const first = 0.03;
const last = 0.01;
/** Less time than this, s, or a wider interval, is too little to act on. Time and not the count: that is itself an estimate, and to wait until it is high would pick the cells that look surer than they are. */
const enoughS = 2;
const widest = 0.025;
/** Less time than this by its share in a cell leaves it empty, s. */
const leastS = 0.3;

export function knowledgeOf({ seconds, halfWidth, error }: FittedCell): CellKnowledge {
  if (!(seconds >= leastS) || Number.isNaN(error)) return 'empty';
  return seconds < enoughS || halfWidth > widest ? 'thin' : 'known';
}

export function standingOf(cell: FittedCell): CellStanding {
  if (knowledgeOf(cell) !== 'known') return 'not known';
  const [low, high] = [cell.error - cell.halfWidth, cell.error + cell.halfWidth];
  const within = (bound: number) => low >= -bound && high <= bound;
  const beyond = (bound: number) => low > bound || high < -bound;
  if (within(last)) return 'within 1 %';
  if (beyond(first)) return 'beyond 3 %';
  if (beyond(last)) return 'beyond 1 %';
  return within(first) ? 'within 3 %' : 'open';
}

/** How a proposal is made of an error. */
export interface ProposalSettings {
  /** Share of the error that is taken out at once. */
  damping: number;
  /** No step is larger, as a share. */
  cap: number;
}
export const usualProposal: ProposalSettings = { damping: 0.8, cap: 0.1 };

/**
 * What a cell's fuel is to be multiplied by: 1 plus the damped error, no step
 * beyond the cap. 1 where the cell is thin or empty, already within 1 %, or its
 * error cannot be told from none: nothing is guessed.
 */
export function proposedMultiplier(cell: FittedCell, { damping, cap }: ProposalSettings = usualProposal): number {
  const standing = standingOf(cell);
  if (standing === 'not known' || standing === 'within 1 %') return 1;
  if (Math.abs(cell.error) <= cell.halfWidth) return 1;
  return 1 + Math.max(-cap, Math.min(cap, damping * cell.error));
}

/** How far a table has come: cells by their standing, among those that are known. */
export interface FuellingProgress {
  known: number;
  thin: number;
  empty: number;
  within1: number;
  within3: number;
  beyond1: number;
  beyond3: number;
}

export function progressOf(cells: readonly FittedCell[]): FuellingProgress {
  const progress = { known: 0, thin: 0, empty: 0, within1: 0, within3: 0, beyond1: 0, beyond3: 0 };
  for (const cell of cells) {
    progress[knowledgeOf(cell)]++;
    const standing = standingOf(cell);
    if (standing === 'within 1 %') progress.within1++;
    if (standing === 'within 1 %' || standing === 'within 3 %') progress.within3++;
    if (standing === 'beyond 3 %') progress.beyond3++;
    if (standing === 'beyond 3 %' || standing === 'beyond 1 %') progress.beyond1++;
  }
  return progress;
}
