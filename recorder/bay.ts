import { EventEmitter } from 'node:events';
import type { Mounting } from '../contract/http.ts';
import type { BayState } from '../contract/live.ts';
import type { Log } from '../contract/log.ts';
import { usualPlan, type RunPlan } from '../contract/recording.ts';
import type { Run } from '../contract/records.ts';
import { Refusal } from '../core/refusal.ts';
import { BayAir } from './bay-air.ts';
import type { BayMemory } from './bay-memory.ts';
import type { Conditions } from './beginning.ts';
import type { BenchLink } from './devices/bench-link.ts';
import type { Device } from './devices/device.ts';
import type { Drainer } from './drainer.ts';
import { Instruments } from './instruments.ts';
import { LiveRows } from './live-rows.ts';
import { LoggerTap } from './logger-tap.ts';
import { MountedCar } from './mounted-car.ts';
import type { BayStore } from './recorder-store.ts';
import { Recorder } from './recorder.ts';
import { restoreDevices } from './restore.ts';
import type { RoomOnDisk } from './room-on-disk.ts';
import type { Journal } from './spool/journal.ts';

/** An instrument that has been gone for this long is no longer missed, ms. */
const missedMs = 10 * 60_000;

interface BayEvents {
  changed: [];
  /** A sample row of the dyno. */
  row: [Float64Array];
  /** Another dyno, or the same one come back. */
  dyno: [Device];
}

/** What a bay stands on. */
export interface BayParts {
  store: BayStore;
  memory: BayMemory;
  journal: Journal;
  drainer: Drainer;
  link: BenchLink;
  room: RoomOnDisk;
  log: Log;
}

/** The bay: its instruments, the job and setup on the dyno, and the recorder. */
export class Bay extends EventEmitter<BayEvents> {
  /** Every instrument of the bay, and what the shop has set of each. */
  readonly instruments: Instruments;
  private readonly car: MountedCar;
  /** One for every dyno that is connected; the one that came last is shown and armed. */
  private recorders: Recorder[] = [];
  private loggers: LoggerTap[] = [];
  /** What pages see of the dyno's and the loggers' rows as they come. */
  readonly liveRows = new LiveRows();
  private readonly air = new BayAir();
  private stranger: string | null = null;
  private spoolProblem: string | null = null;
  private lastRun: Run | undefined;

  constructor(private readonly parts: BayParts) {
    super();
    const { store, memory, link, journal, drainer, log } = parts;
    const changed = () => this.emit('changed');
    this.instruments = new Instruments(store, memory, link, {
      car: () => this.car.now,
      refuseWhileRecording: (then) => this.refuseWhileRecording(then),
      changed,
    });
    this.car = new MountedCar(store, memory, () => this.instruments.devices.values(), changed, log);
    link.on('device', (device) => this.welcome(device));
    link.on('stranger', (text) => {
      this.stranger = text;
      this.emit('changed');
    });
    journal.on('problem', (problem) => {
      this.spoolProblem = problem;
      this.emit('changed');
    });
    drainer.on('changed', changed);
    drainer.on('stored', (key, run) => {
      this.lastRun = run;
      for (const recorder of this.recorders) recorder.stored(key);
      log.info({ runId: run.id, key }, 'run stored');
    });
  }

  /** Takes up what was going on before the recorder stopped: its instruments, and runs that were being recorded. */
  async restore(): Promise<void> {
    this.instruments.restore();
    await restoreDevices(this.parts.journal, {
      welcome: (device) => {
        this.parts.link.restore(device);
        this.welcome(device);
        return this.recorders.find((recorder) => recorder.device === device);
      },
      loggers: () => this.loggers,
      settings: (name) => this.parts.memory.now.settings[name],
    });
    await this.adopt();
  }

  /** Asks the database once what it knows of the bay; while it is away it is asked again. Never rejects. */
  private async adopt(told = false): Promise<void> {
    const { store, memory, log } = this.parts;
    if (memory.now.asked) return this.car.refresh();
    try {
      const mounting = await store.mounted();
      const car = mounting && (await store.carOnDyno(mounting));
      const settings = Object.fromEntries(await store.deviceSettings());
      const plan = await store.plan();
      await memory.keep({
        asked: true,
        mounted: memory.now.mounted ?? (mounting && car ? { ...mounting, ...car } : null),
        plan: memory.now.plan ?? plan,
        settings: { ...settings, ...memory.now.settings },
      });
      this.instruments.restore();
      this.car.tell(this.instruments.devices.values());
      this.emit('changed');
    } catch (error) {
      if (!told) log.warn({ err: error }, 'the database does not say yet what is in the bay; it is asked again');
      setTimeout(() => void this.adopt(true), 500).unref();
    }
  }

  /** Puts a job's setup on the dyno: its runs are recorded there. */
  async mount(mounting: Mounting): Promise<void> {
    this.refuseWhileRecording('End it before you change what is on the dyno.');
    await this.car.mount(mounting);
  }

  /** Settles what is recorded next. @throws Refusal while something is being recorded */
  async planNext(plan: RunPlan): Promise<void> {
    this.refuseWhileRecording('Change what is recorded next after it.');
    await this.parts.memory.keep({ plan });
    for (const recorder of this.recorders) recorder.replan();
    this.emit('changed');
    // The recorder's own word counts; the database has a copy for whoever begins anew.
    await this.parts.store.setPlan(plan).catch((error: Error) => this.parts.log.warn({ err: error }, 'the plan is not in the database')); // prettier-ignore
  }

  private refuseWhileRecording(then: string): void {
    if (this.recorders.some((recorder) => recorder.state().state === 'recording'))
      throw new Refusal(`A run is being recorded. ${then}`);
  }

  /** Takes a job off the dyno: what is recorded from now on belongs to no job until it is claimed. */
  async unmount(jobId: number): Promise<void> {
    if (this.car.now?.jobId === jobId) await this.car.unmount();
  }

  /** The job on the dyno was changed: its gear and items may be other ones now. */
  async refresh(jobId: number): Promise<void> {
    if (this.car.now?.jobId === jobId) await this.car.refresh();
  }

  arm(afterS?: number): void {
    if (!this.recorder?.device.heard) {
      throw new Refusal(
        'No dyno is heard on the bench link. Check that it is switched on and connected, then try again.',
      );
    }
    const refusal = this.parts.room.refusal();
    if (refusal) throw new Refusal(refusal);
    this.recorder.arm(afterS);
  }

  end(): void {
    this.recorder?.end();
  }

  state(): BayState {
    const mounted = this.car.now;
    return {
      type: 'bay',
      devices: [...this.instruments.devices.values()].map((device) => device.state()),
      air: this.air.state(),
      mounted: mounted && { jobId: mounted.jobId, setupId: mounted.setupId },
      plan: this.plan,
      recorder: this.recorderState(),
    };
  }

  private get plan(): RunPlan {
    return this.parts.memory.now.plan ?? usualPlan;
  }

  private recorderState(): BayState['recorder'] {
    const { drainer, room } = this.parts;
    const own = this.recorder?.state() ?? { state: 'idle' as const, startedS: null, problem: null };
    const key = this.recorder?.runKey;
    const run = key === undefined ? undefined : drainer.entered(key);
    const stranger = this.recorder ? null : this.stranger && `A peer on the bench link was not understood: ${this.stranger}.`; // prettier-ignore
    return {
      // What waits for the database keeps nobody from the next run.
      state: own.state === 'sealing' && drainer.problem ? 'idle' : own.state,
      startedS: own.startedS,
      runId: run?.id ?? null,
      label: run?.label ?? null,
      lastRunId: this.lastRun?.id ?? null,
      problem: own.problem ?? this.spoolProblem ?? room.warning() ?? drainer.problem ?? this.car.problem ?? stranger,
    };
  }

  get dyno(): Device | undefined {
    return this.recorder?.device;
  }

  private get recorder(): Recorder | undefined {
    return this.recorders.at(-1);
  }

  /** The disk is nearly full: what is being recorded ends while that can still be written down. */
  endForWantOfRoom(): void {
    for (const recorder of this.recorders) recorder.endNow('The recorder’s disk was full.');
  }

  /** Writes down what is only waiting for a logger. Runs that go on are gone on with by the next life. */
  async settled(): Promise<void> {
    this.car.stop();
    await Promise.all(this.recorders.map((recorder) => recorder.settled()));
  }

  private welcome(device: Device): void {
    this.instruments.devices.set(device.hello.device, device);
    device.on('changed', () => this.emit('changed'));
    this.parts.log.info({ device: device.hello.device, kind: device.hello.kind }, 'instrument came');
    device.on('lost', () => this.miss(device));
    if (device.hello.kind === 'weather') device.on('row', (row) => this.air.take(device, row) && this.emit('changed'));
    else if (device.hello.dyno) this.takeDyno(device);
    else this.takeLogger(device);
    this.car.tell([device]);
    this.emit('changed');
  }

  private miss(device: Device): void {
    this.parts.log.info({ device: device.hello.device, missing: device.state().missing }, 'instrument went');
    const { devices } = this.instruments;
    const forget = () => devices.get(device.hello.device) === device && devices.delete(device.hello.device);
    // What played a day back is not missed once it has gone.
    setTimeout(forget, device.hello.startedAt ? 0 : missedMs).unref();
  }

  private takeDyno(device: Device): void {
    const recorder = new Recorder(this.parts.journal, device, () => this.conditions(device), this.parts.log);
    this.recorders.push(recorder);
    recorder.on('changed', () => this.emit('changed'));
    device.on('row', (row) => {
      if (device === this.dyno) this.emit('row', this.liveRows.of(row));
    });
    device.on('lost', () => {
      this.recorders = this.recorders.filter((other) => other !== recorder || this.recorders.length === 1);
      if (this.dyno && this.dyno !== device) this.showDyno(this.dyno);
    });
    this.showDyno(device);
  }

  private takeLogger(device: Device): void {
    const tap = new LoggerTap(device);
    this.loggers = [...this.loggers.filter((other) => other.device.hello.device !== device.hello.device), tap];
    device.on('lost', () => {
      this.loggers = this.loggers.filter((other) => other !== tap);
      if (this.dyno) this.showDyno(this.dyno);
    });
    if (this.dyno) this.showDyno(this.dyno);
  }

  private showDyno(dyno: Device): void {
    this.liveRows.show(dyno, this.loggers);
    this.emit('dyno', dyno);
  }

  /** What a run of a dyno takes along: the ratio is its own, whichever dyno came last. */
  private conditions(dyno: Device): Conditions {
    const mounted = this.car.now;
    const { ratio } = dyno.settings;
    return {
      setup: mounted && { id: mounted.setupId, jobId: mounted.jobId },
      gear: mounted?.gear ?? null,
      plan: this.plan,
      loggers: this.loggers,
      mayBegin: () => this.parts.room.refusal(),
      engineToDrumRatio:
        ratio && ratio.vehicleId === mounted?.vehicleId && ratio.gear === mounted.gear ? ratio.value : null,
      ...this.air.ofRun(),
    };
  }
}
