import { silentLog } from '../../contract/values/service-log.ts';
import { plainSettings, usualPlan } from '../../contract/instruments/recording.ts';
import type { Conditions } from '../run/beginning.ts';
import type { Device } from '../devices/device.ts';
import { Drainer } from '../database/drainer.ts';
import { LoggerTap } from '../run/logger-tap.ts';
import { Recorder } from '../run/recorder.ts';
import { restoreDevices } from '../run/restore.ts';
import { Journal } from '../spool/journal.ts';
import { FilesOfALife, type MemoryFiles } from './memory-files.ts';
import type { MemoryStore } from './memory-store.ts';
import type { TestInstrument } from './test-instrument.ts';

/** A bay with nothing on the dyno, in which a run may begin. */
export const plainConditions: Conditions = {
  plan: usualPlan,
  loggers: [],
  mayBegin: () => null,
  bay: 1,
  setup: null,
  database: null,
  gear: null,
  air: null,
  airTakenAt: null,
  engineToDrumRatio: null,
  axleRatios: null,
};

/** One life of a recorder with one dyno and whatever loggers stand beside it, from its start to a death at any moment. */
export class RecorderLife {
  device: Device | undefined;
  recorder: Recorder | undefined;
  private taps: LoggerTap[] = [];
  private dead = false;

  private constructor(
    readonly journal: Journal,
    private readonly drainer: Drainer,
    private readonly files: FilesOfALife,
  ) {}

  static async begin(files: MemoryFiles, store: MemoryStore, segmentBytes = 4_000): Promise<RecorderLife> {
    const own = new FilesOfALife(files);
    const journal = await Journal.open(own, silentLog, { segmentBytes });
    const life = new RecorderLife(journal, new Drainer(journal, store, silentLog), own);
    journal.on('safe', (session, sequence) => {
      if (life.dead) return;
      for (const device of life.devices) if (device.session === session) device.safe(sequence);
    });
    await restoreDevices(
      journal,
      {
        welcome: (device) => life.take(device),
        loggers: () => life.taps,
        settings: () => plainSettings,
      },
      silentLog,
    );
    return life;
  }

  private get devices(): Device[] {
    return [...(this.device ? [this.device] : []), ...this.taps.map(({ device }) => device)];
  }

  private take(device: Device): Recorder | undefined {
    if (!device.hello.dyno) {
      const tap = new LoggerTap(device);
      this.taps = [...this.taps.filter((other) => other.device.hello.device !== device.hello.device), tap];
      device.on('lost', () => (this.taps = this.taps.filter((other) => other !== tap)));
      return undefined;
    }
    this.device = device;
    this.recorder = new Recorder(this.journal, device, () => ({ ...plainConditions, loggers: this.taps }), silentLog);
    return this.recorder;
  }

  /** The instrument connects, as itself where this life knows it already. */
  connect(instrument: TestInstrument): void {
    const known = this.devices.find(({ hello }) => hello.device === instrument.hello.device);
    if (known?.isSame(instrument.hello, instrument.settings)) instrument.comeBack(known);
    else {
      known?.lose();
      this.take(instrument.newDevice(this.journal));
      instrument.sendAgain();
    }
  }

  /** Ends as a killed process does: nothing is said, nothing is written any more. */
  async die(): Promise<void> {
    this.dead = true;
    this.files.dead = true;
    for (const device of this.devices) {
      device.leave();
      device.removeAllListeners();
    }
    this.journal.removeAllListeners();
    void this.drainer.stop();
    void this.recorder?.settled();
    // What was under way ends, and has no effect any more.
    await new Promise((resolve) => setImmediate(resolve));
  }

  /** Lets everything arrive where it goes. */
  async settle(): Promise<void> {
    await this.recorder?.settled();
    for (let turn = 0; turn < 4; turn++) {
      await this.journal.flush();
      this.drainer.wake();
      await new Promise((resolve) => setImmediate(resolve));
    }
    await this.drainer.idle();
  }
}
