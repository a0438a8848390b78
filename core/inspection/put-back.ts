import { inspectionItems } from './inspection-items.ts';

type PutBackJob = Parameters<typeof inspectionItems>[0] & {
  inspections: readonly { key: string; outcome: string }[];
};

/** What must be put back before the car leaves, and whether somebody ticked that it was. */
export function putBackItems(job: PutBackJob): { key: string; text: string; done: boolean }[] {
  const isTicked = (key: string) => job.inspections.some((entry) => entry.key === key && entry.outcome === 'ok');
  return inspectionItems(job)
    .filter(({ part }) => part === 'put back')
    .map(({ key, text }) => ({ key, text, done: isTicked(key) }));
}
