import { silentLog } from '../../contract/log.ts';
import { plainSettings, usualPlan } from '../../contract/recording.ts';
import type { Conditions } from '../beginning.ts';
import type { Device } from '../devices/device.ts';
import { Drainer } from '../drainer.ts';
import { Recorder } from '../recorder.ts';
import { restoreDevices } from '../restore.ts';
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
  gear: null,
  air: null,
  airTakenAt: null,
  engineToDrumRatio: null,
  axleRatios: null,
};

/** One life of a recorder with one dyno, from its start to a death at any moment. */
export class RecorderLife {
  device: Device | undefined;
  recorder: Recorder | undefined;
  private dead = false;

  private constructor(
    readonly journal: Journal,
    private readonly drainer: Drainer,
    private readonly files: FilesOfALife,
  ) {}

  static async begin(files: MemoryFiles, store: MemoryStore): Promise<RecorderLife> {
    const own = new FilesOfALife(files);
    const journal = await Journal.open(own, silentLog, { segmentBytes: 4_000 });
    const life = new RecorderLife(journal, new Drainer(journal, store, silentLog), own);
    journal.on('safe', (session, sequence) => {
      if (!life.dead && life.device?.session === session) life.device.safe(sequence);
    });
    await restoreDevices(journal, {
      welcome: (device) => life.take(device),
      loggers: () => [],
      settings: () => plainSettings,
    });
    return life;
  }

  private take(device: Device): Recorder {
    this.device = device;
    this.recorder = new Recorder(this.journal, device, () => plainConditions, silentLog);
    return this.recorder;
  }

  /** The instrument connects, as itself where this life knows it already. */
  connect(instrument: TestInstrument): void {
    if (this.device?.isSame(instrument.hello, instrument.settings)) instrument.comeBack(this.device);
    else {
      const device = instrument.newDevice(this.journal);
      this.take(device);
      instrument.sendAgain();
    }
  }

  /** Ends as a killed process does: nothing is said, nothing is written any more. */
  async die(): Promise<void> {
    this.dead = true;
    this.files.dead = true;
    this.device?.leave();
    this.device?.removeAllListeners();
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
