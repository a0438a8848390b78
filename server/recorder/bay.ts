import { EventEmitter } from 'node:events';
import type { ConfigureMessage } from '../../contract/bench-link.ts';
import type { Mounting } from '../../contract/http.ts';
import type { BayState } from '../../contract/live.ts';
import { usualPlan, type RunPlan } from '../../contract/recording.ts';
import { Refusal } from '../../core/refusal.ts';
import type { BenchLink } from '../devices/bench-link.ts';
import type { Device } from '../devices/device.ts';
import { mountedJob, mountJob, plannedRun, planRun } from '../store/bay.ts';
import type { Database } from '../store/database.ts';
import { jobWithAll } from '../store/jobs.ts';
import { itemsUpTo } from '../store/setups.ts';
import { Instruments } from './instruments.ts';
import { LiveRows } from './live-rows.ts';
import { LoggerTap } from './logger-tap.ts';
import { Recorder, type Conditions } from './recorder.ts';

/** Air older than this is no longer the air of a run, ms. */
const airHoldsMs = 10 * 60_000;
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
  private mounted: (Mounting & { gear: string | null; vehicleId: number; vehicle: string }) | null = null;
  private plan: RunPlan = usualPlan;
  /** What pages see of the dyno's and the loggers' rows as they come. */
  readonly liveRows = new LiveRows();
  private air: { temperatureC: number; pressureHpa: number; relativeHumidityPct: number; takenAt: Date } | null = null;
  private stranger: string | null = null;
  private lastRunId: number | null = null;

  constructor(
    private readonly database: Database,
    private readonly recorderId: number,
    link: BenchLink,
  ) {
    super();
    this.instruments = new Instruments(database, link, {
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
    this.plan = (await plannedRun(this.database)) ?? usualPlan;
    const mounting = await mountedJob(this.database);
    if (mounting) await this.mount(mounting);
  }

  /** Puts a job's setup on the dyno: its runs are recorded there. */
  async mount(mounting: Mounting): Promise<void> {
    const job = await jobWithAll(this.database, mounting.jobId);
    if (!job?.setups.some((setup) => setup.id === mounting.setupId)) {
      throw new Refusal('That setup is not one of the job; open the job anew and try again.');
    }
    this.refuseWhileRecording('End it before you change what is on the dyno.');
    await mountJob(this.database, mounting);
    this.mounted = { ...mounting, gear: job.gear, vehicleId: job.vehicleId, vehicle: job.vehicle };
    await this.configure(this.instruments.devices.values());
    this.emit('changed');
  }

  /** Settles what is recorded next. @throws Refusal while something is being recorded */
  async planNext(plan: RunPlan): Promise<void> {
    this.refuseWhileRecording('Change what is recorded next after it.');
    await planRun(this.database, plan);
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
    await mountJob(this.database, null);
    this.mounted = null;
    this.emit('changed');
  }

  /** The job on the dyno was changed: its gear and items may be other ones now. */
  async refresh(jobId: number): Promise<void> {
    if (this.mounted?.jobId !== jobId) return;
    const job = await jobWithAll(this.database, jobId);
    if (job) this.mounted.gear = job.gear;
    await this.configure(this.instruments.devices.values());
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
      air: this.air && { ...this.air, takenAt: this.air.takenAt.toISOString() },
      mounted: this.mounted && { jobId: this.mounted.jobId, setupId: this.mounted.setupId },
      plan: this.plan,
      recorder: { ...this.recorderState(), lastRunId: this.lastRunId },
    };
  }

  private recorderState(): Omit<BayState['recorder'], 'lastRunId'> {
    if (this.recorder) return this.recorder.state();
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
    device.on('lost', () => {
      setTimeout(
        () => {
          if (this.instruments.devices.get(device.hello.device) === device)
            this.instruments.devices.delete(device.hello.device);
          // What played a day back is not missed once it has gone.
        },
        device.hello.startedAt ? 0 : missedMs,
      ).unref();
    });
    if (device.hello.kind === 'weather') device.on('row', (row) => this.takeAir(device, row));
    else if (device.hello.dyno) this.takeDyno(device);
    else this.takeLogger(device);
    void this.configure([device]);
    this.emit('changed');
  }

  private takeDyno(device: Device): void {
    const recorder = new Recorder(this.database, device, () => this.conditions());
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
      this.recorders = this.recorders.filter((one) => one !== recorder || this.recorders.length === 1);
      if (this.dyno && this.dyno !== device) this.showDyno(this.dyno);
    });
    this.showDyno(device);
  }

  private takeLogger(device: Device): void {
    const tap = new LoggerTap(device);
    this.loggers = [...this.loggers.filter((one) => one.device.hello.device !== device.hello.device), tap];
    device.on('lost', () => {
      this.loggers = this.loggers.filter((one) => one !== tap);
      if (this.dyno) this.showDyno(this.dyno);
    });
    if (this.dyno) this.showDyno(this.dyno);
  }

  private showDyno(dyno: Device): void {
    this.liveRows.show(dyno, this.loggers);
    this.emit('dyno', dyno);
  }

  private conditions(): Conditions {
    const { mounted, air, plan } = this;
    const ratio = this.dyno?.settings.ratio;
    const holds = air !== null && Date.now() - air.takenAt.getTime() < airHoldsMs;
    const takenAt = air?.takenAt ?? null;
    return {
      setup: mounted && { id: mounted.setupId, jobId: mounted.jobId },
      gear: mounted?.gear ?? null,
      plan,
      loggers: this.loggers,
      engineToDrumRatio:
        ratio && ratio.vehicleId === mounted?.vehicleId && ratio.gear === mounted.gear ? ratio.value : null,
      air: holds
        ? { temperatureC: air.temperatureC, pressureHpa: air.pressureHpa, relativeHumidityPct: air.relativeHumidityPct }
        : null,
      airTakenAt: holds ? takenAt : null,
      recorderId: this.recorderId,
    };
  }

  private takeAir(device: Device, row: Float64Array): void {
    const value = (name: string) =>
      row[1 + device.intake.channels.findIndex((channel) => channel.name === name)] ?? NaN;
    const air = {
      temperatureC: value('airTemperature'),
      pressureHpa: value('airPressure'),
      relativeHumidityPct: value('relativeHumidity'),
    };
    if (Object.values(air).some((figure) => Number.isNaN(figure))) return;
    this.air = { ...air, takenAt: new Date() };
    this.emit('changed');
  }

  /** Tells instruments which car and setup are on the dyno. */
  private async configure(devices: Iterable<Device>): Promise<void> {
    const wanting = [...devices].filter((device) => device.hello.commands.includes('configure'));
    if (!this.mounted || wanting.length === 0) return;
    const job = await jobWithAll(this.database, this.mounted.jobId);
    const setup = job?.setups.find((one) => one.id === this.mounted!.setupId);
    if (!job || !setup) return;
    const message: ConfigureMessage = {
      type: 'configure',
      vehicle: job.vehicle,
      setup: setup.letter,
      items: await itemsUpTo(this.database, setup.id),
      ...(job.gear ? { gear: job.gear } : {}),
    };
    for (const device of wanting) device.send(message);
  }
}
