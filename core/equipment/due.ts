/** What is known of when something is due, days of the calendar as `2026-05-14`. */
export interface Dated {
  lastOn: string | null;
  everyDays: number | null;
  dueOn: string | null;
}

export type DueStanding = 'overdue' | 'due soon' | 'in date' | 'no date';

const dayMs = 86_400_000;
/** So many days ahead it is told of. */
const soonDays = 14;

/** The day on which something is due: the one that was given, or so long after the last one; null where nothing tells. */
export function dueDay({ lastOn, everyDays, dueOn }: Dated): string | null {
  if (dueOn !== null) return dueOn;
  if (lastOn === null || everyDays === null) return null;
  return new Date(Date.parse(lastOn) + everyDays * dayMs).toISOString().slice(0, 10);
}

/** Days until something is due, below 0 after it; null where nothing tells. @param today `2026-05-14` */
export function daysLeft(item: Dated, today: string): number | null {
  const due = dueDay(item);
  return due === null ? null : Math.round((Date.parse(due) - Date.parse(today)) / dayMs);
}

export function dueStanding(item: Dated, today: string): DueStanding {
  const left = daysLeft(item, today);
  if (left === null) return 'no date';
  if (left < 0) return 'overdue';
  return left <= soonDays ? 'due soon' : 'in date';
}

/** `tomorrow`, `in 9 days`, `3 days ago`. */
export function dueWords(item: Dated, today: string): string {
  const left = daysLeft(item, today);
  if (left === null) return 'no date';
  if (left === 0) return 'today';
  if (left === 1) return 'tomorrow';
  if (left === -1) return 'yesterday';
  return left > 0 ? `in ${left} days` : `${-left} days ago`;
}

/** What is overdue or due soon, the most urgent first. */
export function dueNext<Item extends Dated>(items: readonly Item[], today: string): Item[] {
  const left = (item: Item) => daysLeft(item, today) ?? Infinity;
  return items.filter((item) => left(item) <= soonDays).sort((one, other) => left(one) - left(other));
}
