import { dynoSource } from '../../store/runs/samples.ts';
import type { KeptRun } from '../spool/journal-index.ts';
import type { EndRecord } from '../spool/records.ts';

/**
 * How a run ends of which not every row could be stored: what the disk did not give back of the dyno makes it no whole
 * run; what it did not give back of a logger is a remark.
 * @param stored rows of each source that the database has
 */
export function endWithMissing(
  { run, sources }: KeptRun,
  end: EndRecord,
  stored: readonly number[],
): Pick<EndRecord, 'as' | 'remarks'> {
  let { as } = end;
  const remarks = [...end.remarks];
  for (const [at, { source, from }] of sources.entries()) {
    const missing = Math.max(0, end.to[at]! - from) - stored[at]!;
    if (missing <= 0) continue;
    const ofDyno = source === dynoSource;
    if (ofDyno) as = 'interrupted';
    const whose = ofDyno ? 'the dyno' : (run.logs.find((log) => log.source === source)?.name ?? 'a logger');
    remarks.push(
      `${missing} sample${missing === 1 ? '' : 's'} of ${whose} could not be read back from the recorder’s disk${ofDyno ? ', so it is no whole run' : ''}.`,
    );
  }
  return { as, remarks };
}
