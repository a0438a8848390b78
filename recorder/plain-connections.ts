import type { BaysState } from '../contract/live.ts';
import type { PlainInstrument } from '../contract/plain-instrument.ts';
import { plainSettings, type DeviceSettings } from '../contract/recording.ts';
import { Refusal } from '../core/refusal.ts';
import { helloOf } from './devices/adapters/plain-adapter.ts';
import { PlainInstruments } from './devices/adapters/plain-instruments.ts';
import { channelIntake } from './devices/channel-intake.ts';
import type { Device } from './devices/device.ts';
import type { Instruments } from './instruments.ts';
import type { RecorderMemory } from './recorder-memory.ts';

/** All bays, as connections need them. */
interface Places {
  /** @throws Refusal where there is no such bay */
  bay(number: number): unknown;
  bayOf(device: Device): { refuseWhileRecording(then: string): void; forget(device: Device): void } | undefined;
  emit(event: 'changed'): boolean;
}

/** Instruments that were connected by hand on Devices: what was entered is kept with what the shop sets of each. */
export class PlainConnections {
  private readonly instruments: PlainInstruments;

  constructor(
    private readonly memory: RecorderMemory,
    private readonly all: Instruments,
    private readonly places: Places,
  ) {
    this.instruments = new PlainInstruments(() => this.places.emit('changed'));
  }

  /** The bench link listens: instruments are brought in. */
  start(benchLinkPort: number): void {
    this.instruments.start(benchLinkPort);
    this.follow();
  }

  /** Makes those that run the ones that are kept. */
  follow(): void {
    this.instruments.follow(this.kept);
  }

  close(): void {
    this.instruments.close();
  }

  listen: PlainInstruments['listen'] = (way) => this.instruments.listen(way);
  endListening = () => this.instruments.endTrial();

  state(): Pick<BaysState, 'plain' | 'trial'> {
    return {
      plain: this.kept.map((instrument) => ({ instrument, problem: this.instruments.problemOf(instrument.device) })),
      trial: this.instruments.trial,
    };
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
    this.instruments.endTrial();
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
