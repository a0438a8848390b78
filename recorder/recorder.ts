import { discontinuityRemarks, type Discontinuity } from './devices/discontinuity.ts';
import { EventEmitter } from 'node:events';
import type { BayState } from '../contract/live.ts';
import type { Run } from '../contract/records.ts';
import type { RunPlan } from '../contract/recording.ts';
import { speedChannels } from '../core/recording/channels.ts';
import { runTrigger, type RunTrigger } from '../core/recording/run-trigger.ts';
import { Refusal } from '../core/refusal.ts';
import type { Device } from './devices/device.ts';
import { commandFor } from './command.ts';
import { FollowedLoggers } from './followed-loggers.ts';
import type { Log } from './log.ts';
import type { LoggerTap } from './logger-tap.ts';
import { PreBuffer } from './pre-buffer.ts';
import type { NewRun, RecorderStore } from './recorder-store.ts';
import { RunWriter } from './run-writer.ts';
import { startTemperatures } from './start-temperatures.ts';

/** Kept of what came before a pull was noticed, s; of it a run takes this much, and this much after the lift. */
const bufferS = 30;
const leadS = 2.5;
const tailS = 0.4;
/** How long the drum must gain speed before it is a pull: with nobody at the controls, and when one was announced, s. */
const unarmedSustainS = 0.7;
const armedSustainS = 0.2;
/** The trigger knows of the drum's speed so far back, s. */
const recentS = 0.3;
/** A run longer than this is ended, s; a row of holds may take longer. */
const longestRunS = { power: 180, conditioning: 180, check: 180, 'coast-down': 300, step: 1800 } as const;
/** A dyno that says nothing for this long during a run has stopped, ms. */
const silenceMs = 4000;

interface RecorderEvents {
  changed: [];
  /** A run is stored and its figures can be made. */
  sealed: [Run];
}

/** What a run takes along from the bay as it begins. */
export type Conditions = Pick<NewRun, 'setup' | 'gear' | 'air' | 'airTakenAt' | 'recorderId'> & {
  plan: RunPlan;
  loggers: readonly LoggerTap[];
  /** As calibrated for this car; the instrument's own word otherwise. */
  engineToDrumRatio: number | null;
};

interface Recording {
  writer: RunWriter;
  startedS: number;
  /** The newest row when it was noticed, and the newest now. */
  noticedS: number;
  latestS: number;
  /** When it was announced, or noticed, of the process's clock. */
  askedMs: number;
  /** Once the lift has been seen: when to stop. */
  endS: number | undefined;
  remarks: string[];
  /** Told together at its end: a lossy instrument has thousands. */
  discontinuities: Discontinuity[];
  kind: RunPlan['kind'];
  loggers: FollowedLoggers;
}

/**
 * Records the pulls of one dyno: announced ones and those that nobody
 * announced. Works on the instrument's clock alone.
 */
export class Recorder extends EventEmitter<RecorderEvents> {
  private armed = false;
  private armedMs = 0;
  private current: Recording | undefined;
  private sealing: RunWriter | undefined;
  private problem: string | null = null;
  private trigger: RunTrigger;
  private buffer = new PreBuffer(bufferS);
  private silence: NodeJS.Timeout | undefined;
  private readonly speedAt: number;
  private readonly throttleAt: number;

  constructor(
    private readonly store: RecorderStore,
    readonly device: Device,
    private readonly conditions: () => Conditions,
    private readonly log: Log,
  ) {
    super();
    this.trigger = this.watch(unarmedSustainS);
    const names = device.intake.channels.map((channel) => channel.name);
    this.speedAt = 1 + names.findIndex((name) => (speedChannels as readonly string[]).includes(name));
    this.throttleAt = 1 + names.indexOf('throttle');
    device.on('row', (row) => this.take(row));
    device.on('lost', () => this.interrupt('The instrument was lost during this run.'));
    device.on('discontinuity', (found) => this.current?.discontinuities.push(found));
  }

  private watch(sustainS: number, waiting = false): RunTrigger {
    const { kind } = this.conditions().plan;
    return runTrigger(kind, sustainS, waiting);
  }

  /** What is to be recorded next has changed. */
  replan(): void {
    if (this.current) return;
    this.trigger = this.watch(this.armed ? armedSustainS : unarmedSustainS);
  }

  /**
   * Announces a run: it is taken for one sooner, and an instrument that can make it is told to.
   * @throws Refusal when the instrument can be told to, but not this
   */
  arm(afterS?: number): void {
    if (this.current || this.armed) return;
    const { plan } = this.conditions();
    const command = commandFor(plan, afterS);
    const { commands } = this.device.hello;
    if (commands.includes('sweep') && !commands.includes(command.type)) {
      throw new Refusal(
        plan.kind === 'step'
          ? `${this.device.hello.name ?? this.device.hello.device} has no load that could hold a speed. Choose another kind of run.`
          : `${this.device.hello.name ?? this.device.hello.device} cannot make a run of this kind by itself.`,
      );
    }
    this.armed = true;
    this.armedMs = performance.now();
    this.problem = null;
    this.trigger = this.watch(armedSustainS);
    this.device.send({ type: 'arm' });
    this.device.send(command);
    this.emit('changed');
  }

  /** Ends the run being recorded, or takes an announcement back. Does not stop the car. */
  end(): void {
    if (this.current) this.finish(this.current, 'sealed', this.current.endS === undefined);
    else if (this.armed) {
      this.armed = false;
      this.trigger = this.watch(unarmedSustainS);
      this.device.send({ type: 'stop' });
      this.emit('changed');
    }
  }

  state(): Omit<BayState['recorder'], 'lastRunId'> {
    const run = this.current?.writer.run ?? this.sealing?.run;
    return {
      state: this.current ? 'recording' : this.sealing ? 'sealing' : this.armed ? 'armed' : 'idle',
      runId: run?.id ?? null,
      label: run?.label ?? null,
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
      this.interrupt('The clock of the instrument began anew during this run.');
    this.buffer.push(row);
    const noticed = this.noticeIn(row);
    const { current } = this;
    if (current) {
      current.writer.push([row]);
      current.latestS = time;
      this.watchForSilence();
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

  /** What a row tells of the beginning or end of a pull. */
  private noticeIn(row: Float64Array): ReturnType<RunTrigger['push']> {
    const throttle = this.throttleAt > 0 ? row[this.throttleAt] : undefined;
    const speed = row[this.speedAt]!;
    if (Number.isNaN(speed)) return undefined;
    return this.trigger.push(row[0]!, speed, throttle === undefined || Number.isNaN(throttle) ? undefined : throttle);
  }

  private begin(pullS: number): void {
    const rows = this.buffer.since(pullS - leadS);
    const startedS = rows[0]![0]!;
    const latestS = rows[rows.length - 1]![0]!;
    const { hello, intake, dyno } = this.device;
    const { plan, loggers, ...conditions } = this.conditions();
    if (!dyno) {
      this.problem = `${hello.name ?? hello.device} does not say what kind of dyno it is: nothing is recorded from it.`;
      this.emit('changed');
      return;
    }
    const followed = new FollowedLoggers(loggers, latestS - startedS, (rows, source) => writer.push(rows, source));
    const writer = new RunWriter(
      this.store,
      {
        ...conditions,
        kind: plan.kind,
        device: hello.device,
        plan: {
          fromRpm: plan.fromRpm,
          toRpm: plan.toRpm,
          rampRpmPerS: plan.rampRpmPerS,
          steps: plan.kind === 'step' ? plan.steps : null,
        },
        logs: followed.records(),
        startedAt: hello.startedAt
          ? new Date(new Date(hello.startedAt).getTime() + startedS * 1000)
          : new Date(Date.now() - (latestS - startedS) * 1000),
        dyno,
        engineToDrumRatio: conditions.engineToDrumRatio ?? hello.engineToDrumRatio ?? null,
        startTemperatures: startTemperatures(this.device, rows[0]!, followed.taps, latestS - startedS),
        channels: intake.channels,
        source: hello.name ?? hello.device,
      },
      (problem) => {
        if (problem && !this.problem)
          this.log.warn({ device: hello.device, runId: writer.run?.id }, 'storing a run failed; it is tried again');
        this.problem = problem;
        this.emit('changed');
      },
      this.sealing,
    );
    writer.push(rows);
    followed.handOverEarlier();
    this.current = {
      writer,
      startedS,
      noticedS: latestS,
      latestS,
      askedMs: this.armed ? this.armedMs : performance.now(),
      endS: undefined,
      remarks: [],
      discontinuities: [],
      kind: plan.kind,
      loggers: followed,
    };
    this.log.info({ device: hello.device, kind: plan.kind }, 'run begins');
    this.armed = false;
    this.watchForSilence();
    this.emit('changed');
  }

  private finish(recording: Recording, as: 'sealed' | 'interrupted', stillPulling: boolean): void {
    clearTimeout(this.silence);
    this.current = undefined;
    this.sealing = recording.writer;
    this.trigger = this.watch(unarmedSustainS, stillPulling);
    // The lift that is waited for may be in the very next row: it is seen by the speed before it.
    if (stillPulling) for (const row of this.buffer.since(recording.latestS - recentS)) this.noticeIn(row);
    const { loggers, noticedS, latestS, askedMs } = recording;
    void loggers
      .arrived(latestS - noticedS, askedMs)
      .then(() => recording.writer.end(as, [...discontinuityRemarks(recording.discontinuities), ...recording.remarks]));
    void recording.writer.sealed.then((run) => {
      this.log.info({ runId: run.id, device: this.device.hello.device, as, rows: recording.writer.rows }, 'run ended');
      if (this.sealing === recording.writer) this.sealing = undefined;
      this.emit('sealed', run);
      this.emit('changed');
    });
    this.emit('changed');
  }

  private interrupt(why: string): void {
    this.armed = false;
    this.trigger = this.watch(unarmedSustainS);
    this.buffer = new PreBuffer(bufferS);
    if (!this.current) return;
    this.current.remarks.push(`${why} Everything that had arrived was kept.`);
    this.finish(this.current, 'interrupted', false);
  }

  private watchForSilence(): void {
    clearTimeout(this.silence);
    this.silence = setTimeout(() => this.interrupt('The instrument fell silent during this run.'), silenceMs);
  }

  /** Waits until nothing is left to store. */
  async drained(): Promise<void> {
    if (this.current) this.interrupt('The server was stopped during this run.');
    clearTimeout(this.silence);
    await this.sealing?.sealed;
  }
}
