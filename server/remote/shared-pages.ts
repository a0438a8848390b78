import type { Job } from '../../contract/job/records.ts';
import type { ReportView } from '../../contract/report/report.ts';
import type { WorkLine } from '../../contract/values/answers.ts';
import type { BlockId } from '../../core/report/report.ts';
import type { Database } from '../../store/database/database.ts';
import type { DynoHistory } from '../dyno-history.ts';
import { jobReport } from '../reports/job-report.ts';
import type { ReportThread } from '../reports/report-thread.ts';
import { curvesView, remotePage } from './remote-page.ts';

/** What a shared comparison says beside its lanes; nothing of what is done with the car or of its files. */
const shownBlocks: readonly BlockId[] = [
  'answer',
  'figures',
  'bands',
  'targets',
  'ladder',
  'limits',
  'care',
  'conditions',
  'made',
];

/** A page that was made is shown again for so long: opening a link again and again costs nobody anything, ms. */
const keptForMs = 30_000;

/** The pages of shared comparisons, each made anew from the job as it is. */
export class SharedPages {
  private readonly kept = new Map<number, { html: string; atMs: number }>();

  constructor(private readonly from: { database: Database; dynos: DynoHistory }) {}

  /** The page of a link that was made a moment ago. */
  recent(linkId: number): string | undefined {
    const now = Date.now();
    for (const [id, { atMs }] of this.kept) if (now - atMs > keptForMs) this.kept.delete(id);
    return this.kept.get(linkId)?.html;
  }

  /** @throws Refusal where there is nothing to show, or it was cancelled */
  async make(
    linkId: number,
    job: Job,
    view: ReportView,
    thread: ReportThread,
    told: { tell(line: WorkLine): void },
  ): Promise<string> {
    const now = Date.now();
    // The draft's own words may speak to the owner.
    const nobody: Job = { ...job, owner: '', plate: '', report: null };
    const { written, columns } = await jobReport(nobody, view, this.from, thread, told);
    const blocks = written.blocks.filter(({ id }) => shownBlocks.includes(id));
    const html = remotePage({ ...written, blocks }, columns.length > 0 ? [curvesView(columns)] : [], columns);
    this.kept.set(linkId, { html, atMs: now });
    return html;
  }
}
