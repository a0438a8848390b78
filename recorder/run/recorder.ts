import { randomUUID } from 'node:crypto';
import { EventEmitter } from 'node:events';
import type { BayState } from '../../contract/bays/live.ts';
import type { Log } from '../../contract/values/service-log.ts';
import { runThatBegins, type Conditions } from './beginning.ts';
import { commandTo } from './command.ts';
import type { Device } from '../devices/device.ts';
import { FollowedLoggers } from './followed-loggers.ts';
import type { LoggerTap } from './logger-tap.ts';
import { PreBuffer } from './pre-buffer.ts';
import { PullWatch } from './pull-watch.ts';
import { SilenceWatch } from './silence-watch.ts';
import { broken, endOf, longestRunS, nothingYet, type RunInProgress } from './run-in-progress.ts';
import type { Journal } from '../spool/journal.ts';
import type { KeptRun, KeptSession } from '../spool/journal-index.ts';
import type { RowStretch } from '../spool/kept-rows.ts';

/** Kept of what came before a pull was noticed, s; of it a run takes this much, and this much after the lift. */
const bufferS = 30;
const leadS = 2.5;
const tailS = 0.4;
/** A pull with less than this before it was under way when the instrument was heard, s. */
const leastLeadS = 0.15;
/** The trigger knows of the drum's speed so far back, s. */
const recentS = 0.3;
interface RecorderEvents {
  changed: [];
}

/**
 * Records the pulls of one dyno: announced ones and those that nobody
 * announced. Works on the instrument's clock alone.
 */
export class Recorder extends EventEmitter<RecorderEvents> {
  private armed = false;
  private armedMs = 0;
  private armedBy = '';
  private current: RunInProgress | undefined;
  /** Ended, and not yet in the database. */
  private ended: string | undefined;
  private problem: string | null = null;
  private buffer = new PreBuffer(bufferS);
  private endings: Promise<unknown> = Promise.resolve();
  private readonly watch: PullWatch;
  private readonly silence: SilenceWatch;

  constructor(
    private readonly journal: Pick<Journal, 'begin' | 'ending' | 'end' | 'rowsOf' | 'oldestRow'>,
    readonly device: Device,
    private readonly conditions: () => Conditions,
    private readonly log: Log,
  ) {
    super();
    this.watch = new PullWatch(device.intake.channels.map(({ name }) => name));
    this.lookOut();
    this.silence = new SilenceWatch(device, () => {
      if (this.current) this.interrupt('The instrument fell silent during this run.');
    });
    device.on('row', (row) => this.take(row));
    device.on('lost', () => this.interrupt('The instrument was lost during this run.'));
    device.on('discontinuity', (found) => this.current && broken(this.current, found));
  }

  /** Looks for the next run from now on. */
  private lookOut(otherwise: { waiting?: boolean; afterS?: number | undefined } = {}): void {
    this.watch.lookFor({ plan: this.conditions().plan, armed: this.armed, ...otherwise });
  }

  /**
   * Goes on with what an earlier life of the recorder was doing.
   * @param stretches of the device's session, with gaps where the disk did not give rows back
   * @param open the run that it was recording
   * @param breaks of the session, by its rows
   */
  restore(
    stretches: readonly RowStretch[],
    open: KeptRun | undefined,
    loggers: readonly LoggerTap[],
    breaks: KeptSession['breaks'],
  ): void {
    const [dyno] = open?.sources ?? [];
    let waiting = open;
    let pullS: number | undefined;
    const rows = stretches.flatMap(({ first, rows }) => rows.map((row, index) => ({ at: first + index, row })));
    for (const { at, row } of rows) {
      const time = row[0]!;
      if (this.latest && time <= this.latest[0]!) {
        this.buffer = new PreBuffer(bufferS);
        this.lookOut();
        pullS = undefined;
      }
      if (waiting && at >= (dyno?.from ?? 0)) {
        this.current = this.again(waiting, time, loggers);
        waiting = undefined;
      }
      if (this.current) for (const { row: of, found } of breaks) if (of === at) broken(this.current, found);
      this.buffer.push(row);
      const noticed = this.watch.noticeIn(row);
      if (noticed?.event === 'begins') pullS = noticed.time;
      const { current } = this;
      if (!current) continue;
      pullS = undefined;
      current.latestS = time;
      if (noticed?.event === 'ends') current.endS = noticed.time + tailS;
      if (current.endS !== undefined && time >= current.endS) this.finish(current, 'sealed', false, at + 1);
    }
    if (waiting) this.current = this.again(waiting, this.latest?.[0] ?? 0, loggers);
    if (this.current) this.silence.heard();
    // It was noticed, but its beginning did not reach the disk.
    else if (pullS !== undefined) this.begin(pullS);
  }

  private again({ run, sources }: KeptRun, startedS: number, loggers: readonly LoggerTap[]): RunInProgress {
    const [dyno, ...others] = sources;
    this.watch.lookForEnd(run.kind, (run.plan?.steps?.loadsKpa.length ?? 0) > 0);
    return {
      key: run.key,
      from: dyno?.from ?? 0,
      startedS,
      noticedS: startedS,
      latestS: startedS,
      askedMs: performance.now(),
      latestMs: performance.now(),
      ...nothingYet(),
      headless: false,
      kind: run.kind,
      loggers: FollowedLoggers.again(loggers, others, (session) => this.journal.rowsOf(session)),
    };
  }

  /** What is to be recorded next has changed. */
  replan(): void {
    if (this.current) return;
    this.lookOut();
  }

  /**
   * Announces a run: it is taken for one sooner, and an instrument that can make it is told to.
   * @throws Refusal when the instrument can be told to, but not this
   */
  arm(afterS?: number, by = ''): void {
    if (this.current || this.armed) return;
    const command = commandTo(this.device, this.conditions().plan, afterS);
    this.armed = true;
    this.armedMs = performance.now();
    this.armedBy = by;
    this.problem = null;
    this.lookOut({ afterS });
    this.device.send({ type: 'arm' });
    if (command) this.device.send(command);
    this.emit('changed');
  }

  /** Ends the run being recorded, or takes an announcement back. Does not stop the car. */
  end(): void {
    if (this.current) this.finish(this.current, 'sealed', this.current.endS === undefined);
    else if (this.armed) {
      this.armed = false;
      this.lookOut();
      this.device.send({ type: 'stop' });
      this.emit('changed');
    }
  }

  /** The run that is being recorded, or that has ended and is not in the database yet, by its key. */
  get runKey(): string | undefined {
    return this.current?.key ?? this.ended;
  }

  /** The database has a run whole. */
  stored(key: string): void {
    if (this.ended === key) this.ended = undefined;
  }

  state(): Pick<BayState['recorder'], 'state' | 'startedS' | 'problem'> {
    return {
      state: this.current ? 'recording' : this.armed ? 'armed' : this.ended ? 'sealing' : 'idle',
      startedS: this.current?.startedS ?? null,
      problem: this.problem,
    };
  }

  /** The latest row of the instrument, time first. */
  get latest(): Float64Array | undefined {
    return this.buffer.latest;
  }

  private take(row: Float64Array): void {
    const time = row[0]!;
    if (this.latest && time <= this.latest[0]!)
      this.interrupt('The clock of the instrument began anew during this run.', this.device.rows - 1);
    this.buffer.push(row);
    const noticed = this.watch.noticeIn(row);
    const { current } = this;
    if (current) {
      current.latestS = time;
      current.latestMs = performance.now();
      this.silence.heard();
      if (noticed?.event === 'ends') current.endS = noticed.time + tailS;
      if (current.endS !== undefined && time >= current.endS) this.finish(current, 'sealed', false);
      else if (time - current.startedS > longestRunS[current.kind]) {
        current.remarks.push(`The run was ended after ${longestRunS[current.kind]} s without a lift.`);
        this.finish(current, 'sealed', true);
      }
    } else if (noticed?.event === 'begins') {
      this.begin(noticed.time);
    }
  }

  private begin(pullS: number): void {
    const rows = this.rowsSince(pullS - leadS);
    const startedS = rows[0]![0]!;
    const latestS = rows[rows.length - 1]![0]!;
    const { hello, dyno } = this.device;
    const conditions = this.conditions();
    const { plan } = conditions;
    if (!dyno) {
      this.problem = `${hello.name ?? hello.device} does not say what kind of dyno it is: nothing is recorded from it.`;
      this.emit('changed');
      return;
    }
    // Whoever refuses also shows why.
    if (conditions.mayBegin() !== null) return;
    const followed = FollowedLoggers.from(conditions.loggers, latestS - startedS, (of) => this.journal.oldestRow(of));
    const key = randomUUID();
    const from = this.device.rows - rows.length;
    this.journal.begin(
      runThatBegins(
        key,
        this.device,
        dyno,
        rows,
        { ...conditions, recordedBy: this.armed ? this.armedBy : '' },
        followed,
      ),
      [{ source: 0, session: this.device.session, from }, ...followed.sources()],
    );
    this.current = {
      key,
      from,
      startedS,
      noticedS: latestS,
      latestS,
      askedMs: this.armed ? this.armedMs : performance.now(),
      latestMs: performance.now(),
      ...nothingYet(),
      headless: pullS - (this.buffer.oldest?.[0] ?? pullS) < leastLeadS,
      kind: plan.kind,
      loggers: followed,
    };
    this.problem = null;
    this.log.info({ key, device: hello.device, kind: plan.kind }, 'run begins');
    this.armed = false;
    this.silence.heard();
    this.emit('changed');
  }

  /** The dyno's rows from a time on, as far as they are on the disk or on their way to it: the newest at the least. */
  private rowsSince(time: number): Float64Array[] {
    const rows = this.buffer.since(time);
    const given = this.journal.oldestRow(this.device.session) - (this.device.rows - rows.length);
    return given > 0 ? rows.slice(Math.min(given, rows.length - 1)) : rows;
  }

  /** @param to the row of the dyno's session after the run's last */
  private finish(
    recording: RunInProgress,
    as: 'sealed' | 'interrupted',
    stillPulling: boolean,
    to = this.device.rows,
  ): void {
    this.silence.stop();
    this.current = undefined;
    this.ended = recording.key;
    const { key, loggers, noticedS, latestS, latestMs, askedMs } = recording;
    const end = endOf(recording, as);
    this.log.info({ key, device: this.device.hello.device, as: end.as, rows: to - recording.from }, 'run ended');
    // At once, before any row that follows: only loggers are waited for.
    if (loggers.none) this.journal.end({ ...end, to: [to] });
    else {
      this.journal.ending({ ...end, to });
      const ending = loggers
        .arrived(latestS - noticedS, askedMs, latestMs)
        .catch((error: Error) => {
          this.log.error(
            { err: error, key },
            'the loggers of a run could not be waited for; it ends with what has come',
          );
          return loggers.rowsNow();
        })
        .then((ofLoggers) => this.journal.end({ ...end, to: [to, ...ofLoggers] }));
      this.endings = Promise.all([this.endings, ending]);
    }
    this.lookOut({ waiting: stillPulling });
    // The lift that is waited for may be in the very next row: it is seen by the speed before it.
    if (stillPulling) for (const row of this.buffer.since(recording.latestS - recentS)) this.watch.noticeIn(row);
    this.emit('changed');
  }

  /** Ends the run being recorded as interrupted, for a reason of the machine's. */
  endNow(why: string): void {
    if (this.current) this.interrupt(why);
  }

  private interrupt(why: string, to?: number): void {
    this.armed = false;
    this.lookOut();
    this.buffer = new PreBuffer(bufferS);
    if (!this.current) return;
    this.current.remarks.push(`${why} Everything that had arrived was kept.`);
    this.finish(this.current, 'interrupted', false, to);
  }

  /** Settles when the ends of runs have been written down that were only waiting for a logger. */
  async settled(): Promise<void> {
    this.silence.stop();
    await this.endings;
  }
}
