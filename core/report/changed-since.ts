import type { RestsOn } from './make-report.ts';
import type { WrittenReport } from './written-report.ts';

/** How a kept report differs from what would be written now. */
export interface ChangedSince {
  /** Titles of blocks that say something else now, that have come, or that are gone. */
  blocks: string[];
  /** Sides whose runs are others now. */
  runs: { side: 'arrived' | 'delivered'; then: string[]; now: string[] }[];
  /** The shop has learned another spread of repeats: intervals are others for it. */
  spread: boolean;
}

/** What blocks without a title are called. */
const untitled: Readonly<Record<string, string>> = {
  answer: 'the answer',
  figures: 'the large figures',
  lanes: 'the curves',
};

type Rests = Pick<RestsOn, 'arrived' | 'delivered' | 'spread'>;

/**
 * What of a kept report would be written otherwise now: with the same draft, units and standard.
 * @param then as it was kept @param now as it is composed of the job today
 */
export function changedSince(
  then: { written: WrittenReport; restsOn: Rests },
  now: { written: WrittenReport; restsOn: Rests },
): ChangedSince {
  const byId = ({ written }: { written: WrittenReport }) =>
    new Map(written.blocks.map((block) => [block.id as string, block]));
  const [before, after] = [byId(then), byId(now)];
  const differs = (id: string) => asKept(before.get(id)?.content) !== asKept(after.get(id)?.content);
  const ids = [...new Set([...before.keys(), ...after.keys()])].filter(differs);
  return {
    blocks: ids.map((id) => untitled[id] ?? (before.get(id) ?? after.get(id))?.title ?? id),
    runs: (['arrived', 'delivered'] as const).flatMap((side) => {
      const labels = [then, now].map(({ restsOn }) => restsOn[side].runs.map(({ label }) => label));
      const [were = [], are = []] = labels;
      return were.join() === are.join() ? [] : [{ side, then: were, now: are }];
    }),
    spread: asKept(then.restsOn.spread) !== asKept(now.restsOn.spread),
  };
}

/** The same text for the same content: a store keeps fields in an order of its own. */
function asKept(content: unknown): string {
  const inOrder = (_: string, value: unknown): unknown =>
    value !== null && typeof value === 'object' && !Array.isArray(value)
      ? Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)))
      : value;
  return JSON.stringify(content, inOrder) ?? '';
}
