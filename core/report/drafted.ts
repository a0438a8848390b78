import { blockIds, shortBlocks, type Block, type BlockId, type Report } from './report.ts';

/** What a person changed of a report; the units apart, which are a matter of writing it. */
export interface Draft {
  form: 'long' | 'short';
  order: readonly string[];
  hidden: readonly string[];
  /** In the place of the composed answer; empty for that one. */
  headline: string;
  /** After the answer. */
  words: string;
}

export const untouched: Draft = { form: 'long', order: [], hidden: [], headline: '', words: '' };

/** Whether a block stands in the report. */
export const stands = ({ form, hidden }: Draft, id: BlockId): boolean =>
  !hidden.includes(id) && (form === 'long' || shortBlocks.includes(id));

/** All blocks in the draft's order, those left out included. */
export function ordered({ blocks }: Pick<Report, 'blocks'>, { order }: Draft): Block[] {
  const place = ({ id }: Block) => {
    const at = order.indexOf(id);
    return at < 0 ? order.length + blockIds.indexOf(id) : at;
  };
  return [...blocks].sort((a, b) => place(a) - place(b));
}

/** The blocks as they stand: in the draft's order and words. */
export function drafted(report: Report, draft: Draft): Block[] {
  return ordered(report, draft)
    .filter(({ id }) => stands(draft, id))
    .map((block) => {
      if (block.content.is !== 'answer') return block;
      const { headline, lead } = block.content;
      return { ...block, content: { is: 'answer', headline: draft.headline || headline, lead: [...lead, ...(draft.words ? draft.words.split(/\n+/) : [])] } }; // prettier-ignore
    });
}

/** The draft with one block moved up or down by one among those that stand. */
export function movedBlock(report: Pick<Report, 'blocks'>, draft: Draft, id: BlockId, by: -1 | 1): Draft {
  const list = ordered(report, draft).map((block) => block.id);
  const standing = list.filter((other) => stands(draft, other));
  const beside = standing[standing.indexOf(id) + by];
  if (beside === undefined) return draft;
  const [from, to] = [list.indexOf(id), list.indexOf(beside)];
  list.splice(from, 1);
  list.splice(to, 0, id);
  return { ...draft, order: list };
}
