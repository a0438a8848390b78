import { usualStandard } from '../../core/air/usual-standard.ts';
import type { Log } from '../../contract/values/service-log.ts';
import type { JobHeadline } from '../../core/figures/job-headline.ts';
import { learnedFrom } from '../../core/figures/request/learned.ts';
import { neededRuns } from '../../core/figures/make-job-figures.ts';
import { lastOnDyno } from '../../core/job/last-on-dyno.ts';
import { reportRequest } from '../../core/report/report-request.ts';
import { Refusal } from '../../core/refusal.ts';
import type { Database } from '../../store/database/database.ts';
import { headlineRestsOnNow, keepHeadline, nextWithoutHeadline } from '../../store/jobs/job-headlines.ts';
import { jobWithAll } from '../../store/jobs/jobs.ts';
import type { DynoHistory } from '../dyno-history.ts';
import { QuietWork } from '../quiet-work.ts';
import { readRuns } from './read-runs.ts';
import { ReportThread } from './report-thread.ts';

/** It is looked so often whether a headline is wanting, ms. */
const lookMs = 20_000;
/** Pages come first: a pause after every job, ms. */
const pauseMs = 200;

/** Makes the headlines of jobs for lists, one at a time. */
export class HeadlineMaker extends QuietWork {
  /** @param busy whether a run is being recorded: nothing is made then */
  constructor(
    private readonly database: Database,
    private readonly dynos: DynoHistory,
    busy: () => boolean,
    private readonly log: Log,
  ) {
    super(
      {
        queue: 'job-headlines',
        everyMs: lookMs,
        pauseMs,
        wanting: () => nextWithoutHeadline(database),
        makeOne: (signal) => this.makeOne(signal),
      },
      busy,
    );
  }

  /** @returns false where there is none left, or the server stops */
  private async makeOne(signal: AbortSignal): Promise<boolean> {
    try {
      const id = await nextWithoutHeadline(this.database);
      if (id === undefined) return false;
      const restsOn = await headlineRestsOnNow(this.database, id);
      const headline = await this.headlineOrNone(id, signal);
      if (signal.aborted) return false;
      await keepHeadline(this.database, id, restsOn, headline);
      return true;
    } catch (error) {
      // What the end of the server broke is made by the next one.
      if (signal.aborted) return false;
      throw error;
    }
  }

  /** Of a job that cannot be told of there is no headline; what else goes wrong is tried again. */
  private async headlineOrNone(id: number, signal: AbortSignal): Promise<JobHeadline | null> {
    try {
      return await this.headlineOf(id, signal);
    } catch (error) {
      if (!(error instanceof Refusal)) throw error;
      this.log.info({ jobId: id, why: error.message }, 'a job has no headline');
      return null;
    }
  }

  private async headlineOf(id: number, signal: AbortSignal): Promise<JobHeadline | null> {
    const job = await jobWithAll(this.database, id);
    if (!job) return null;
    const device = lastOnDyno(job.runs)?.device;
    const learned = device ? learnedFrom(await this.dynos.of(device, job.id)) : undefined;
    const request = reportRequest(job, learned, {
      standard: usualStandard('sae-j1349', job.car.ignition),
      powerUnit: 'kW',
    });
    const thread = new ReportThread(signal);
    try {
      await readRuns(thread, this.database, neededRuns(request));
      return (await thread.ask('headline', { headlined: request, forecasts: job.forecasts })).headline;
    } finally {
      await thread.end();
    }
  }
}
