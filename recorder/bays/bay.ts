import { EventEmitter } from 'node:events';
import type { BayState } from '../../contract/bays/live.ts';
import type { Log } from '../../contract/values/service-log.ts';
import { usualPlan, type RunPlan, type SetPoint } from '../../contract/instruments/recording.ts';
import type { Run } from '../../contract/job/records.ts';
import { Refusal } from '../../core/refusal.ts';
import { BayAir } from './bay-air.ts';
import type { Conditions } from '../run/beginning.ts';
import type { Device } from '../devices/device.ts';
import type { Drainer } from '../database/drainer.ts';
import { LiveRows } from './live-rows.ts';
import { LoggerTap } from '../run/logger-tap.ts';
import { MountedCar } from './mounted-car.ts';
import { Recorder } from '../run/recorder.ts';
import { firstBay, type RecorderMemory, type RememberedBay } from '../memory/recorder-memory.ts';
import type { BayStore } from '../database/recorder-store.ts';
import type { RoomOnDisk } from '../memory/room-on-disk.ts';
import type { Journal } from '../spool/journal.ts';

interface BayEvents {
  changed: [];
  /** A sample row of its dyno. */
  row: [Float64Array];
  /** The columns of its live rows have changed: another dyno, or other loggers. */
  columns: [];
}

/** What a bay stands on. */
export interface BayParts {
  store: BayStore;
  memory: RecorderMemory;
  journal: Journal;
  drainer: Drainer;
  room: RoomOnDisk;
  log: Log;
}

/** One bay: its own dyno and recorder, its loggers and air, and the car on it. */
export class Bay extends EventEmitter<BayEvents> {
  readonly car: MountedCar;
  /** Of the dyno that stands here, or stood here last. */
  private recorder: Recorder | undefined;
  private loggers: LoggerTap[] = [];
  /** Every instrument that stands here. */
  readonly devices = new Set<Device>();
  /** What pages see of the dyno's and the loggers' rows as they come. */
  private readonly liveRows = new LiveRows();
  private readonly air = new BayAir();
  private lastRun: Run | undefined;
  /** The ends of runs of dynos that stood here before. */
  private past: Promise<unknown> = Promise.resolve();

  constructor(
    readonly number: number,
    private readonly parts: BayParts,
  ) {
    super();
    const { store, memory, log } = parts;
    const kept = () => this.remembered.mounted;
    this.car = new MountedCar(
      store,
      {
        get now() {
          return kept();
        },
        keep: (mounted) => memory.keepBay(number, { mounted }),
      },
      () => this.devices,
      () => this.emit('changed'),
      log,
    );
  }

  get remembered(): RememberedBay {
    return this.parts.memory.now.bays.find(({ bay }) => bay === this.number) ?? { ...firstBay, bay: this.number };
  }

  get plan(): RunPlan {
    return this.remembered.plan ?? usualPlan;
  }

  /** The dyno that is here, or may be back in a moment. */
  get dyno(): Device | undefined {
    return this.recorder && !this.recorder.device.gone ? this.recorder.device : undefined;
  }

  /** What stands in its live rows, and of which dyno. */
  get columns(): { device: string; columns: string[] } | undefined {
    return this.recorder && { device: this.recorder.device.hello.device, columns: this.liveRows.columns };
  }

  /** @returns the recorder of a dyno that stands here */
  recorderOf(device: Device): Recorder | undefined {
    return this.recorder?.device === device ? this.recorder : undefined;
  }

  get taps(): readonly LoggerTap[] {
    return this.loggers;
  }

  /** @throws Refusal while a run is being recorded here */
  refuseWhileRecording(then: string): void {
    if (this.recorder?.state().state === 'recording') throw new Refusal(`A run is being recorded. ${then}`);
  }

  /** Settles what is recorded next. @throws Refusal while something is being recorded */
  async planNext(plan: RunPlan): Promise<void> {
    this.refuseWhileRecording('Change what is recorded next after it.');
    await this.parts.memory.keepBay(this.number, { plan });
    this.recorder?.replan();
    this.emit('changed');
  }

  /** @param by who announces a run; empty where nobody had signed in */
  arm(afterS?: number, by = ''): void {
    if (!this.recorder?.device.heard) {
      throw new Refusal(
        'No dyno is heard on the bench link. Check that it is switched on and connected, then try again.',
      );
    }
    const refusal = this.parts.room.refusal();
    if (refusal) throw new Refusal(refusal);
    this.recorder.arm(afterS, by);
  }

  end(): void {
    this.recorder?.end();
  }

  /** Tells a stand-in what to hold. @throws Refusal where the dyno is a real one: its operator sets it */
  hold(point: SetPoint): void {
    const hello = this.dyno?.hello;
    if (!hello?.commands.includes('hold') || hello.faults.length === 0)
      throw new Refusal('Suvok sets no load on this dyno: set speed and pedal by its own controls.');
    this.dyno?.send({ type: 'hold', ...point });
  }

  /** Ends what is being recorded for a reason of the machine's. */
  endNow(why: string): void {
    this.recorder?.endNow(why);
  }

  /** The database has a run whole that was made here. */
  stored(key: string, run: Run): void {
    this.lastRun = run;
    this.recorder?.stored(key);
  }

  /** Takes a weather station's row for the bay's air. @returns false where it holds no whole reading */
  takeAir(device: Device, row: Float64Array): boolean {
    return this.air.take(device, row);
  }

  /** An instrument stands here from now on. */
  welcome(device: Device): void {
    this.devices.add(device);
    if (device.hello.dyno) this.takeDyno(device);
    else if (device.hello.kind !== 'weather') this.takeLogger(device);
    this.car.tell([device]);
    this.emit('changed');
  }

  /** It is not missed any more. */
  forget(device: Device): void {
    this.devices.delete(device);
  }

  /** @param shared weather stations that serve this bay too, and what concerns all bays */
  state(shared: readonly Device[], problem: string | null): BayState {
    const mounted = this.car.now;
    const { name } = this.remembered;
    return {
      bay: this.number,
      name,
      devices: [
        ...[...this.devices].map((device) => device.state(this.number)),
        ...shared.map((device) => device.state(null)),
      ],
      air: this.air.state(),
      mounted: mounted && { jobId: mounted.jobId, setupId: mounted.setupId },
      plan: this.plan,
      recorder: this.recorderState(problem),
    };
  }

  private recorderState(problem: string | null): BayState['recorder'] {
    const { drainer, room } = this.parts;
    const own = this.recorder?.state() ?? { state: 'idle' as const, startedS: null, problem: null };
    const key = this.recorder?.runKey;
    // A full disk often comes with a database that is away: both are said.
    const disk = [room.warning(), drainer.problem].filter(Boolean).join(' ');
    const run = key === undefined ? undefined : drainer.entered(key);
    return {
      // Runs that wait for the database do not stop the next one.
      state: own.state === 'sealing' && drainer.problem ? 'idle' : own.state,
      startedS: own.startedS,
      runId: run?.id ?? null,
      label: run?.label ?? null,
      lastRunId: this.lastRun?.id ?? null,
      problem: own.problem ?? (disk || (this.car.problem ?? problem)),
    };
  }

  /** Ends runs that are only waiting for a logger. One that is being recorded goes on after the next start. */
  async settled(): Promise<void> {
    this.car.stop();
    await Promise.all([this.past, this.recorder?.settled()]);
  }

  private takeDyno(device: Device): void {
    this.dyno?.lose();
    this.past = Promise.all([this.past, this.recorder?.settled()]);
    this.recorder = new Recorder(this.parts.journal, device, () => this.conditions(device), this.parts.log);
    this.recorder.on('changed', () => this.emit('changed'));
    device.on('row', (row) => {
      if (device === this.recorder?.device) this.emit('row', this.liveRows.of(row));
    });
    this.showDyno();
  }

  private takeLogger(device: Device): void {
    const tap = new LoggerTap(device);
    this.loggers = [...this.loggers.filter((other) => other.device.hello.device !== device.hello.device), tap];
    device.on('lost', () => {
      this.loggers = this.loggers.filter((other) => other !== tap);
      this.showDyno();
    });
    this.showDyno();
  }

  private showDyno(): void {
    if (!this.recorder) return;
    this.liveRows.show(this.recorder.device, this.loggers);
    this.emit('columns');
  }

  /** What a run of its dyno takes along. */
  private conditions(dyno: Device): Conditions {
    const mounted = this.car.now;
    const { ratio } = dyno.settings;
    const own = ratio && ratio.vehicleId === mounted?.vehicleId && ratio.gear === mounted.gear ? ratio : null;
    return {
      bay: this.number,
      setup: mounted && { id: mounted.setupId, jobId: mounted.jobId },
      database: this.parts.memory.now.database,
      gear: mounted?.gear ?? null,
      plan: this.plan,
      loggers: this.loggers,
      mayBegin: () => this.parts.room.refusal(),
      engineToDrumRatio: own?.value ?? null,
      axleRatios: own?.axles ?? null,
      ...this.air.ofRun(),
    };
  }
}
