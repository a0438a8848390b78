import { blockIds, shortBlocks, type Block, type BlockId, type LargeFigure, type Report } from './report.ts';

/** What a person changed of a report; the units apart, which are a matter of writing it. */
export interface Draft {
  form: 'long' | 'short';
  order: readonly string[];
  hidden: readonly string[];
  /** In the place of the composed answer; empty for that one. */
  headline: string;
  /** After the answer. */
  words: string;
  /** Of core/language; what is no language is English. */
  language: string;
  /** Large figures that stand, in their order; null for the usual three. */
  figures: readonly string[] | null;
  /** By block: a title in the place of its own, and words under it. */
  titles: Readonly<Record<string, string>>;
  notes: Readonly<Record<string, string>>;
}

export const untouched: Draft = {
  form: 'long',
  order: [],
  hidden: [],
  headline: '',
  words: '',
  language: 'en',
  figures: null,
  titles: {},
  notes: {},
};

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

/** The blocks as they stand: in the draft's order, words and choice of figures. What was found out is never reworded, only added to. */
export function drafted(report: Report, draft: Draft): Block[] {
  return ordered(report, draft)
    .filter(({ id }) => stands(draft, id))
    .map(({ id, title, content }) => {
      const note = draft.notes[id];
      return { id, title: draft.titles[id] || title, ...(note && { note }), content: draftedContent(content, draft) };
    });
}

function draftedContent(content: Block['content'], { headline, words, figures }: Draft): Block['content'] {
  switch (content.is) {
    case 'answer':
      return {
        is: 'answer',
        headline: headline || content.headline,
        lead: [...content.lead, ...(words ? words.split(/\n+/) : [])],
      };
    case 'figures':
      return figures === null ? content : { ...content, figures: chosenFigures(content, figures) };
    default:
      return content;
  }
}

/** The figures of a choice, in its order; one that is no longer there is left out. */
export function chosenFigures(
  { figures, others }: Extract<Block['content'], { is: 'figures' }>,
  chosen: readonly string[],
): LargeFigure[] {
  const all = [...figures, ...others];
  return chosen.flatMap((id) => all.find((figure) => figure.id === id) ?? []);
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
