import type { DeviceSettings } from '../contract/recording.ts';
import { Refusal } from '../core/refusal.ts';
import { rpmPerRadS } from '../core/units/units.ts';
import type { BayMemory } from './bay-memory.ts';
import type { BenchLink } from './devices/bench-link.ts';
import { channelIntake } from './devices/channel-intake.ts';
import type { Device } from './devices/device.ts';
import type { BayStore } from './recorder-store.ts';
import { calibratedRatio, loadCellZero } from './calibration.ts';

/** What instruments need of the bay that they stand in. */
interface Surroundings {
  /** The car on the dyno. */
  car(): { vehicleId: number; vehicle: string; gear: string | null } | null;
  /** @throws Refusal while a run is being recorded */
  refuseWhileRecording(then: string): void;
  changed(): void;
}

/** The instruments of the bay by their names on the link, and what the shop sets of them. */
export class Instruments {
  readonly devices = new Map<string, Device>();

  constructor(
    private readonly store: BayStore,
    private readonly memory: BayMemory,
    private readonly link: BenchLink,
    private readonly bay: Surroundings,
  ) {}

  /** Takes up what was set before the recorder stopped. */
  restore(): void {
    for (const [device, settings] of Object.entries(this.memory.now.settings)) {
      this.link.settings.set(device, settings);
      const connected = this.devices.get(device);
      if (connected) connected.settings = settings;
    }
  }

  /**
   * Keeps what the shop sets of an instrument. Other channel names make it come back anew.
   * @throws Refusal when the device is not there, the names cannot be used, or a run is being recorded
   */
  async set(name: string, change: { [Key in keyof DeviceSettings]?: DeviceSettings[Key] | undefined }): Promise<void> {
    this.bay.refuseWhileRecording('Change its settings after it.');
    const device = this.connected(name);
    const given = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined));
    const settings: DeviceSettings = { ...device.settings, ...given };
    const before = device.settings.channelNames;
    if (change.channelNames) channelIntake(device.hello, change.channelNames, settings.ratio !== null);
    await this.store.saveDeviceSettings(name, settings);
    await this.memory.keep({ settings: { ...this.memory.now.settings, [name]: settings } });
    this.link.settings.set(name, settings);
    device.settings = settings;
    if (change.channelNames && JSON.stringify(change.channelNames) !== JSON.stringify(before)) device.lose();
    this.bay.changed();
  }

  /** Takes the ratio of engine to drum speed from the speed held now, for the car on the dyno. */
  async calibrateRatio(name: string, engineRpm?: number): Promise<void> {
    const device = this.connected(name);
    const car = this.bay.car();
    if (!car) throw new Refusal('No car is on the dyno: put one on first, the ratio belongs to a car and gear.');
    const radiusM = device.dyno?.radiusM;
    const value = calibratedRatio(device.recent(), radiusM, engineRpm);
    const { vehicleId, vehicle, gear } = car;
    const rpmPerKmh = radiusM ? (value * rpmPerRadS) / (radiusM * 3.6) : null;
    await this.set(name, { ratio: { value, vehicleId, vehicle, gear, rpmPerKmh, at: new Date().toISOString() } });
  }

  /** Takes what the load cells read now, with the drum at rest, as their zero. */
  async zeroLoadCell(name: string): Promise<void> {
    const zero = loadCellZero(this.connected(name).recent());
    await this.set(name, { zero: { ...zero, at: new Date().toISOString() } });
  }

  /** Has a stand-in come to rest. */
  bringToRest(name: string): void {
    this.bay.refuseWhileRecording('End it first.');
    const device = this.connected(name);
    if (!device.hello.commands.includes('stop'))
      throw new Refusal('Suvok commands only the stand-ins. Bring a real machine to rest with its own controls.');
    device.send({ type: 'stop' });
  }

  /** @throws Refusal when the device is not there or plays no faults */
  playFaults(name: string, faults: readonly string[]): void {
    const device = this.devices.get(name);
    if (!device || device.hello.faults.length === 0)
      throw new Refusal('Only a stand-in that is connected can play faults.');
    device.play(faults);
  }

  private connected(name: string): Device {
    const device = this.devices.get(name);
    if (!device?.connected) throw new Refusal('That instrument is not connected.');
    return device;
  }
}
