/** How many daily backups are kept: of the last days, weeks and months, the newest of each. */
const kept = { days: 7, weeks: 5, months: 12 };

const dayMs = 24 * 3600e3;

/**
 * Which of a row of daily backups are not needed any more: neither among the
 * newest of the last seven days, nor of the last five weeks or twelve months
 * that have any.
 * @param madeAt moments, in any order
 */
export function superfluous(madeAt: readonly Date[]): Date[] {
  const newestFirst = [...madeAt].sort((a, b) => b.getTime() - a.getTime());
  const keep = new Set<Date>();
  const keepNewest = (periodOf: (moment: Date) => string | number, count: number) => {
    const seen = new Set<string | number>();
    for (const moment of newestFirst) {
      const period = periodOf(moment);
      if (seen.has(period)) continue;
      if (seen.size === count) return;
      seen.add(period);
      keep.add(moment);
    }
  };
  keepNewest((moment) => Math.floor(moment.getTime() / dayMs), kept.days);
  // Weeks begin on Monday: day 0 of the clock was a Thursday.
  keepNewest((moment) => Math.floor((moment.getTime() / dayMs + 3) / 7), kept.weeks);
  keepNewest((moment) => moment.toISOString().slice(0, 7), kept.months);
  return newestFirst.filter((moment) => !keep.has(moment));
}
