import { EventEmitter } from 'node:events';
import type { ConfigureMessage } from '../contract/bench-link.ts';
import type { Mounting } from '../contract/http.ts';
import type { BayState } from '../contract/live.ts';
import { usualPlan, type RunPlan } from '../contract/recording.ts';
import { Refusal } from '../core/refusal.ts';
import { BayAir } from './bay-air.ts';
import type { BenchLink } from './devices/bench-link.ts';
import type { Device } from './devices/device.ts';
import type { Log } from './log.ts';
import { Instruments } from './instruments.ts';
import type { CarOnDyno, RecorderStore } from './recorder-store.ts';
import { LiveRows } from './live-rows.ts';
import { LoggerTap } from './logger-tap.ts';
import { Recorder, type Conditions } from './recorder.ts';

/** After a failure instruments are told again what is on the dyno after this long, ms. */
const retryMs = 500;
/** An instrument that has been gone for this long is no longer missed, ms. */
const missedMs = 10 * 60_000;

interface BayEvents {
  changed: [];
  /** A sample row of the dyno. */
  row: [Float64Array];
  /** Another dyno, or the same one come back. */
  dyno: [Device];
}

/** The bay: its instruments, the job and setup on the dyno, and the recorder. */
export class Bay extends EventEmitter<BayEvents> {
  /** Every instrument of the bay, and what the shop has set of each. */
  readonly instruments: Instruments;
  /** One for every dyno that is connected; the one that came last is shown and armed. */
  private recorders: Recorder[] = [];
  private loggers: LoggerTap[] = [];
  private mounted: (Mounting & CarOnDyno) | null = null;
  private plan: RunPlan = usualPlan;
  /** What pages see of the dyno's and the loggers' rows as they come. */
  readonly liveRows = new LiveRows();
  private readonly air = new BayAir();
  private stranger: string | null = null;
  /** Why instruments do not know yet what is on the dyno; tried again until they do. */
  private untold: string | null = null;
  private lastRunId: number | null = null;

  constructor(
    private readonly store: RecorderStore,
    private readonly recorderId: number,
    link: BenchLink,
    private readonly log: Log,
  ) {
    super();
    this.instruments = new Instruments(store, link, {
      car: () => this.mounted,
      refuseWhileRecording: (then) => this.refuseWhileRecording(then),
      changed: () => this.emit('changed'),
    });
    link.on('device', (device) => this.welcome(device));
    link.on('stranger', (text) => {
      this.stranger = text;
      this.emit('changed');
    });
  }

  /** Takes up what was on the dyno before the server stopped. */
  async restore(): Promise<void> {
    await this.instruments.restore();
    this.plan = (await this.store.plan()) ?? usualPlan;
    const mounting = await this.store.mounted();
    if (!mounting) return;
    try {
      await this.mount(mounting);
    } catch (error) {
      // What stood on the dyno can be put on again by hand; a server that does not start helps nobody.
      if (!(error instanceof Refusal)) throw error;
      this.log.warn({ err: error, ...mounting }, 'what was on the dyno could not be put on again');
    }
  }

  /** Puts a job's setup on the dyno: its runs are recorded there. */
  async mount(mounting: Mounting): Promise<void> {
    const car = await this.store.carOnDyno(mounting);
    if (!car) throw new Refusal('That setup is not one of the job; open the job anew and try again.');
    this.refuseWhileRecording('End it before you change what is on the dyno.');
    await this.store.mount(mounting);
    this.mounted = { ...mounting, ...car };
    await this.tellInstruments([...this.instruments.devices.values()]);
    this.emit('changed');
  }

  /** Settles what is recorded next. @throws Refusal while something is being recorded */
  async planNext(plan: RunPlan): Promise<void> {
    this.refuseWhileRecording('Change what is recorded next after it.');
    await this.store.setPlan(plan);
    this.plan = plan;
    for (const recorder of this.recorders) recorder.replan();
    this.emit('changed');
  }

  private refuseWhileRecording(then: string): void {
    if (this.recorders.some((recorder) => recorder.state().state === 'recording'))
      throw new Refusal(`A run is being recorded. ${then}`);
  }

  /** Takes a job off the dyno: what is recorded from now on belongs to no job until it is claimed. */
  async unmount(jobId: number): Promise<void> {
    if (this.mounted?.jobId !== jobId) return;
    await this.store.mount(null);
    this.mounted = null;
    this.emit('changed');
  }

  /** The job on the dyno was changed: its gear and items may be other ones now. */
  async refresh(jobId: number): Promise<void> {
    if (this.mounted?.jobId !== jobId) return;
    await this.readCar();
    await this.tellInstruments([...this.instruments.devices.values()]);
  }

  arm(afterS?: number): void {
    if (!this.recorder?.device.heard) {
      throw new Refusal(
        'No dyno is heard on the bench link. Check that it is switched on and connected, then try again.',
      );
    }
    this.recorder.arm(afterS);
  }

  end(): void {
    this.recorder?.end();
  }

  state(): BayState {
    return {
      type: 'bay',
      devices: [...this.instruments.devices.values()].map((device) => device.state()),
      air: this.air.state(),
      mounted: this.mounted && { jobId: this.mounted.jobId, setupId: this.mounted.setupId },
      plan: this.plan,
      recorder: { ...this.recorderState(), lastRunId: this.lastRunId },
    };
  }

  private recorderState(): Omit<BayState['recorder'], 'lastRunId'> {
    if (this.recorder) {
      const state = this.recorder.state();
      return { ...state, problem: state.problem ?? this.untold };
    }
    const problem = this.stranger && `A peer on the bench link was not understood: ${this.stranger}.`;
    return { state: 'idle', runId: null, label: null, startedS: null, problem };
  }

  get dyno(): Device | undefined {
    return this.recorder?.device;
  }

  private get recorder(): Recorder | undefined {
    return this.recorders.at(-1);
  }

  /** Ends what is being recorded and waits until all of it is stored. */
  async drained(): Promise<void> {
    await Promise.all(this.recorders.map((recorder) => recorder.drained()));
  }

  private welcome(device: Device): void {
    this.instruments.devices.set(device.hello.device, device);
    device.on('changed', () => this.emit('changed'));
    this.log.info({ device: device.hello.device, kind: device.hello.kind }, 'instrument came');
    device.on('lost', () => {
      this.log.info({ device: device.hello.device, missing: device.state().missing }, 'instrument went');
      setTimeout(
        () => {
          if (this.instruments.devices.get(device.hello.device) === device)
            this.instruments.devices.delete(device.hello.device);
          // What played a day back is not missed once it has gone.
        },
        device.hello.startedAt ? 0 : missedMs,
      ).unref();
    });
    if (device.hello.kind === 'weather') device.on('row', (row) => this.air.take(device, row) && this.emit('changed'));
    else if (device.hello.dyno) this.takeDyno(device);
    else this.takeLogger(device);
    void this.tellInstruments([device]);
    this.emit('changed');
  }

  private takeDyno(device: Device): void {
    const recorder = new Recorder(this.store, device, () => this.conditions(), this.log);
    this.recorders.push(recorder);
    recorder.on('changed', () => this.emit('changed'));
    recorder.on('sealed', (run) => {
      this.lastRunId = run.id;
      this.emit('changed');
    });
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

  private conditions(): Conditions {
    const { mounted, plan } = this;
    const ratio = this.dyno?.settings.ratio;
    return {
      setup: mounted && { id: mounted.setupId, jobId: mounted.jobId },
      gear: mounted?.gear ?? null,
      plan,
      loggers: this.loggers,
      engineToDrumRatio:
        ratio && ratio.vehicleId === mounted?.vehicleId && ratio.gear === mounted.gear ? ratio.value : null,
      ...this.air.ofRun(),
      recorderId: this.recorderId,
    };
  }

  /** Has instruments told what is on the dyno; while the database does not answer it is tried again, as long as they are there. Never rejects. */
  private async tellInstruments(devices: readonly Device[]): Promise<void> {
    try {
      await this.configure(devices);
      this.setUntold(null);
    } catch (error) {
      if (!this.untold) this.log.warn({ err: error }, 'instruments cannot be told what is on the dyno');
      this.setUntold(
        `The database does not answer (${(error as Error).message}), so instruments do not know yet what is on the dyno. Runs are recorded all the same; it is tried again.`,
      );
      setTimeout(() => void this.tellInstruments(devices.filter(({ connected }) => connected)), retryMs).unref();
    }
  }

  private setUntold(why: string | null): void {
    if (this.untold === why) return;
    this.untold = why;
    this.emit('changed');
  }

  /** Tells instruments which car and setup are on the dyno. @throws when the database does not answer */
  private async configure(devices: readonly Device[]): Promise<void> {
    const wanting = devices.filter((device) => device.hello.commands.includes('configure'));
    if (wanting.length === 0) return;
    const car = await this.readCar();
    if (!car) return;
    const { vehicle, letter, items, gear } = car;
    const message: ConfigureMessage = { type: 'configure', vehicle, setup: letter, items, ...(gear ? { gear } : {}) };
    for (const device of wanting) device.send(message);
  }

  /** The car on the dyno as it is described now; undefined where there is none any more. */
  private async readCar(): Promise<CarOnDyno | undefined> {
    if (!this.mounted) return undefined;
    const { jobId, setupId } = this.mounted;
    const car = await this.store.carOnDyno({ jobId, setupId });
    // Something else may have been put on meanwhile.
    if (car && this.mounted?.setupId === setupId) this.mounted = { jobId, setupId, ...car };
    return car;
  }
}
