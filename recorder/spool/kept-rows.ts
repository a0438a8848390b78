import type { Log } from '../../contract/values/service-log.ts';
import type { Journal } from './journal.ts';
import type { KeptSession } from './journal-index.ts';

/** Rows of a session that follow each other; `first` is the place of the first of them in it. */
export interface RowStretch {
  first: number;
  rows: Float64Array[];
}

/**
 * Rows of a session up to its last, the newest of them not older than so long. What the disk does not give back is left
 * out: it is counted when the run is stored.
 */
export async function rowsFrom(
  journal: Journal,
  kept: KeptSession,
  from: number,
  backS: number,
  log: Log,
): Promise<RowStretch[]> {
  const stretches: RowStretch[] = [];
  let next = kept.rows;
  let newest: number | undefined;
  for (const extent of [...kept.extents].reverse()) {
    const first = Math.max(extent.first, from);
    if (first >= next) break;
    const rows = await journal.rows(kept.session, first, next).catch((error: Error) => {
      log.error({ err: error, session: kept.session }, 'rows cannot be read back from the spool');
      return [];
    });
    next = first;
    const [oldest] = rows ?? [];
    if (!rows || !oldest) continue;
    stretches.unshift({ first, rows });
    newest ??= rows.at(-1)?.[0] ?? 0;
    if (newest - (oldest[0] ?? 0) > backS || first === from) break;
  }
  return stretches;
}
