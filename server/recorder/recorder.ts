import { EventEmitter } from 'node:events';
import type { BayState } from '../../contract/live.ts';
import type { Run } from '../../contract/records.ts';
import { speedChannels } from '../../core/channels/channels.ts';
import { PullTrigger } from '../../core/recording/pull-trigger.ts';
import type { Device } from '../devices/device.ts';
import type { Database } from '../store/database.ts';
import type { NewRun } from '../store/runs.ts';
import { PreBuffer } from './pre-buffer.ts';
import { RunWriter } from './run-writer.ts';

/** Kept of what came before a pull was noticed, s; of it a run takes this much, and this much after the lift. */
const bufferS = 30;
const leadS = 2.5;
const tailS = 1.5;
/** How long the drum must gain speed before it is a pull: with nobody at the controls, and when one was announced, s. */
const unarmedSustainS = 0.7;
const armedSustainS = 0.2;
/** A run longer than this is ended, s. */
const longestRunS = 180;
/** A dyno that says nothing for this long during a run has stopped, ms. */
const silenceMs = 4000;

interface RecorderEvents {
  changed: [];
  /** A run is stored and its figures can be made. */
  sealed: [Run];
}

/** What a run takes along from the bay as it begins. */
export type Conditions = Pick<NewRun, 'setup' | 'gear' | 'air' | 'airTakenAt' | 'recorderId'>;

interface Recording {
  writer: RunWriter;
  startedS: number;
  latestS: number;
  /** Once the lift has been seen: when to stop. */
  endS: number | undefined;
  remarks: string[];
}

/**
 * Records the pulls of one dyno: announced ones and those that nobody
 * announced. Works on the instrument's clock alone.
 */
export class Recorder extends EventEmitter<RecorderEvents> {
  private armed = false;
  private current: Recording | undefined;
  private sealing: RunWriter | undefined;
  private problem: string | null = null;
  private trigger = new PullTrigger(unarmedSustainS);
  private buffer = new PreBuffer(bufferS);
  private silence: NodeJS.Timeout | undefined;
  private readonly speedAt: number;
  private readonly throttleAt: number;

  constructor(
    private readonly database: Database,
    readonly device: Device,
    private readonly conditions: () => Conditions,
  ) {
    super();
    const names = device.intake.channels.map((channel) => channel.name);
    this.speedAt = 1 + names.findIndex((name) => (speedChannels as readonly string[]).includes(name));
    this.throttleAt = 1 + names.indexOf('throttle');
    device.on('row', (row) => this.take(row));
    device.on('lost', () => this.interrupt('The instrument was lost during this run.'));
    device.on('discontinuity', (text) =>
      this.current?.remarks.push(`${text.charAt(0).toUpperCase()}${text.slice(1)}.`),
    );
  }

  /** Announces a pull: it is taken for one sooner, and an instrument that can make it is told to. */
  arm(afterS?: number): void {
    if (this.current || this.armed) return;
    this.armed = true;
    this.problem = null;
    this.trigger = new PullTrigger(armedSustainS);
    this.device.send({ type: 'arm' });
    this.device.send({ type: 'sweep', ...(afterS === undefined ? {} : { afterS }) });
    this.emit('changed');
  }

  /** Ends the run being recorded, or takes an announcement back. Does not stop the car. */
  end(): void {
    if (this.current) this.finish(this.current, 'sealed', this.current.endS === undefined);
    else if (this.armed) {
      this.armed = false;
      this.trigger = new PullTrigger(unarmedSustainS);
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
    const throttle = this.throttleAt > 0 ? row[this.throttleAt] : undefined;
    const speed = row[this.speedAt]!;
    const noticed = Number.isNaN(speed)
      ? undefined
      : this.trigger.push(time, speed, throttle === undefined || Number.isNaN(throttle) ? undefined : throttle);
    const { current } = this;
    if (current) {
      current.writer.push([row]);
      current.latestS = time;
      this.watchForSilence();
      if (noticed?.event === 'ends') current.endS = noticed.time + tailS;
      if (current.endS !== undefined && time >= current.endS) this.finish(current, 'sealed', false);
      else if (time - current.startedS > longestRunS) {
        current.remarks.push(`The run was ended after ${longestRunS} s without a lift.`);
        this.finish(current, 'sealed', true);
      }
    } else if (noticed?.event === 'begins') {
      this.begin(noticed.time);
    }
  }

  private begin(pullS: number): void {
    const rows = this.buffer.since(pullS - leadS);
    const startedS = rows[0]![0]!;
    const latestS = rows.at(-1)![0]!;
    const { hello, intake } = this.device;
    const writer = new RunWriter(
      this.database,
      {
        ...this.conditions(),
        startedAt: hello.startedAt
          ? new Date(new Date(hello.startedAt).getTime() + startedS * 1000)
          : new Date(Date.now() - (latestS - startedS) * 1000),
        dyno: hello.dyno!,
        engineToDrumRatio: hello.engineToDrumRatio ?? null,
        startTemperatures: this.temperatures(rows[0]!),
        channels: intake.channels,
        source: hello.name ?? hello.device,
      },
      (problem) => {
        this.problem = problem;
        this.emit('changed');
      },
    );
    writer.push(rows);
    this.current = { writer, startedS, latestS, endS: undefined, remarks: [] };
    this.armed = false;
    this.watchForSilence();
    this.emit('changed');
  }

  private temperatures(row: Float64Array): Record<string, number> {
    const found: Record<string, number> = {};
    this.device.intake.channels.forEach(({ name, unit }, index) => {
      const value = row[index + 1]!;
      if (unit === '°C' && !Number.isNaN(value)) found[name] = Math.round(value * 10) / 10;
    });
    return found;
  }

  private finish(recording: Recording, as: 'sealed' | 'interrupted', stillPulling: boolean): void {
    clearTimeout(this.silence);
    this.current = undefined;
    this.sealing = recording.writer;
    this.trigger = new PullTrigger(unarmedSustainS, stillPulling);
    recording.writer.end(as, recording.remarks);
    void recording.writer.sealed.then((run) => {
      if (this.sealing === recording.writer) this.sealing = undefined;
      this.emit('sealed', run);
      this.emit('changed');
    });
    this.emit('changed');
  }

  private interrupt(why: string): void {
    this.armed = false;
    this.trigger = new PullTrigger(unarmedSustainS);
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
