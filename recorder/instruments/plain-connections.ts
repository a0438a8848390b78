import type { BaysState } from '../../contract/bays/live.ts';
import type { Log } from '../../contract/values/service-log.ts';
import {
  helloOf,
  type PlainInstrument,
  type TrialRequest,
  type TrialState,
} from '../../contract/instruments/plain-instrument.ts';
import { plainSettings, type DeviceSettings } from '../../contract/instruments/recording.ts';
import { Refusal } from '../../core/refusal.ts';
import { channelIntake } from '../devices/channel-intake.ts';
import type { Device } from '../devices/device.ts';
import type { Instruments } from './instruments.ts';
import { LinesSocket } from './lines-socket.ts';
import type { RecorderMemory } from '../memory/recorder-memory.ts';

/** All bays, as connections need them. */
interface Places {
  /** @throws Refusal where there is no such bay */
  bay(number: number): unknown;
  bayOf(device: Device): { refuseWhileRecording(then: string): void; forget(device: Device): void } | undefined;
  emit(event: 'changed'): boolean;
}

/** A trial that nobody asks for any more ends after this time, ms. */
const trialMs = 60_000;
const nobodyTakes = 'Its lines are not taken at the moment: that part of Suvok is being started.';

/** Instruments that were connected by hand on Devices: what was entered is kept with what the shop sets of each. */
export class PlainConnections {
  private readonly lines: LinesSocket;
  private benchLinkPort: number | undefined;
  private trial: { request: TrialRequest; patience: NodeJS.Timeout } | undefined;

  constructor(
    private readonly memory: RecorderMemory,
    private readonly all: Instruments,
    private readonly places: Places,
    log: Log,
  ) {
    this.lines = new LinesSocket(() => this.places.emit('changed'), log);
  }

  /** The bench link listens: instruments are brought in by whoever takes their lines. @param place of the socket for it */
  async start(benchLinkPort: number, place: string): Promise<void> {
    this.benchLinkPort = benchLinkPort;
    await this.lines.listen(place);
    this.follow();
  }

  /** Says which instruments are wanted: the ones that are kept. */
  follow(): void {
    const { benchLinkPort } = this;
    if (benchLinkPort === undefined) return;
    this.lines.want({ benchLinkPort, instruments: this.kept, listening: this.trial?.request ?? null });
    this.places.emit('changed');
  }

  async close(): Promise<void> {
    clearTimeout(this.trial?.patience);
    await this.lines.close();
  }

  /** Listens on a way, in the place of what was listened to before; asked again it goes on. */
  listen(request: TrialRequest): void {
    if (this.trial && JSON.stringify(this.trial.request) === JSON.stringify(request)) {
      this.trial.patience.refresh();
      return;
    }
    clearTimeout(this.trial?.patience);
    this.trial = { request, patience: setTimeout(() => this.endListening(), trialMs).unref() };
    this.follow();
  }

  endListening(): void {
    if (!this.trial) return;
    clearTimeout(this.trial.patience);
    this.trial = undefined;
    this.follow();
  }

  state(): Pick<BaysState, 'plain' | 'trial'> {
    const { told } = this.lines;
    return {
      plain: this.kept.map((instrument) => ({
        instrument,
        problem: told ? (told.problems[instrument.device] ?? null) : nobodyTakes,
      })),
      trial: this.trial ? this.heardOf(this.trial.request) : null,
    };
  }

  private heardOf({ way }: TrialRequest): TrialState {
    const { told } = this.lines;
    if (told?.trial && JSON.stringify(told.trial.way) === JSON.stringify(way)) return told.trial;
    return { way, connected: false, problem: told ? null : nobodyTakes, lines: [], count: 0, rateHz: null };
  }

  /** @throws Refusal where its columns do not make an instrument, or another one has its name */
  async connect({ instrument, bay }: { instrument: PlainInstrument; bay: number | null }): Promise<void> {
    const { device } = instrument;
    const before = this.settingsOf(device);
    const there = this.all.devices.get(device);
    if (there?.connected && !before?.plain)
      throw new Refusal(`An instrument called ${device} is connected already; give this one another name.`);
    if (there) this.places.bayOf(there)?.refuseWhileRecording('Change how its instrument is connected after it.');
    if (bay !== null) this.places.bay(bay);
    const settings = before ?? plainSettings;
    channelIntake(helloOf(instrument), settings.channelNames, settings.ratio !== null);
    await this.all.keep(device, { ...settings, plain: instrument, bay: bay ?? settings.bay });
    this.endListening();
    this.follow();
  }

  /** Lets one go for good; its runs stay. @throws Refusal where none of the name was connected by hand */
  async disconnect(device: string): Promise<void> {
    const before = this.settingsOf(device);
    if (!before?.plain) throw new Refusal(`No instrument called ${device} was connected by hand.`);
    const there = this.all.devices.get(device);
    const bay = there && this.places.bayOf(there);
    bay?.refuseWhileRecording('Let its instrument go after it.');
    await this.all.keep(device, { ...before, plain: null });
    this.follow();
    if (!there) return;
    this.all.devices.delete(device);
    bay?.forget(there);
    this.places.emit('changed');
  }

  private get kept(): PlainInstrument[] {
    return Object.values(this.memory.now.settings).flatMap(({ plain }) => (plain ? [plain] : []));
  }

  private settingsOf(device: string): DeviceSettings | undefined {
    const { settings } = this.memory.now;
    return Object.hasOwn(settings, device) ? settings[device] : undefined;
  }
}
