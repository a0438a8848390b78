import type { DeviceSettings } from '../../contract/instruments/recording.ts';
import { Refusal } from '../../core/refusal.ts';
import { rpmPerRadS } from '../../core/units/units.ts';
import type { BenchLink } from '../devices/bench-link.ts';
import { channelIntake } from '../devices/channel-intake.ts';
import type { Device } from '../devices/device.ts';
import type { RecorderMemory } from '../memory/recorder-memory.ts';
import type { BayStore } from '../database/recorder-store.ts';
import { calibratedRatio, loadCellZero } from './calibration.ts';

/** A bay as its instruments need it. */
interface Surroundings {
  car: { now: { vehicleId: number; vehicle: string; gear: string | null } | null };
  dyno: Device | undefined;
  remembered: { name: string };
  /** @throws Refusal while a run is being recorded */
  refuseWhileRecording(then: string): void;
}

/** All bays, as instruments need them. */
interface Places {
  bayOf(device: Device): Surroundings | undefined;
  /** @throws Refusal where there is no such bay */
  bay(number: number): Surroundings;
  emit(event: 'changed'): boolean;
}

/** All instruments by their names on the link, and what the shop sets of them. */
export class Instruments {
  readonly devices = new Map<string, Device>();

  constructor(
    private readonly store: BayStore,
    private readonly memory: RecorderMemory,
    private readonly link: BenchLink,
    private readonly places: Places,
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
   * Keeps what the shop sets of an instrument. Other channel names, or another bay, make it come back anew.
   * @throws Refusal when the device is not there, the names cannot be used, or a run is being recorded
   */
  async set(name: string, change: { [Key in keyof DeviceSettings]?: DeviceSettings[Key] | undefined }): Promise<void> {
    const device = this.connected(name);
    this.places.bayOf(device)?.refuseWhileRecording('Change its settings after it.');
    if (change.bay !== undefined && change.bay !== device.settings.bay) this.refuseMove(device, change.bay);
    const given = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined));
    const settings: DeviceSettings = { ...device.settings, ...given };
    const before = device.settings;
    if (change.channelNames) channelIntake(device.hello, change.channelNames, settings.ratio !== null);
    await this.store.saveDeviceSettings(name, settings);
    await this.remember(device, settings);
    const form = ({ bay, channelNames }: DeviceSettings) => JSON.stringify([bay, channelNames]);
    if (form(settings) !== form(before)) device.lose();
    this.places.emit('changed');
  }

  /** Remembers where an instrument stands, as it was found out by itself. Never rejects. */
  keepPlace(device: Device, bay: number): void {
    if (device.settings.bay === bay) return;
    const settings = { ...device.settings, bay };
    void this.remember(device, settings);
    void this.store.saveDeviceSettings(device.hello.device, settings).catch(() => undefined);
  }

  /** Keeps what is set of an instrument that need not be there. */
  async keep(name: string, settings: DeviceSettings): Promise<void> {
    await this.store.saveDeviceSettings(name, settings);
    await this.write(name, settings);
    const device = this.devices.get(name);
    if (device) device.settings = settings;
  }

  private async remember(device: Device, settings: DeviceSettings): Promise<void> {
    device.settings = settings;
    await this.write(device.hello.device, settings);
  }

  private async write(name: string, settings: DeviceSettings): Promise<void> {
    this.link.settings.set(name, settings);
    await this.memory.keep({ settings: { ...this.memory.now.settings, [name]: settings } });
  }

  /** @throws Refusal where an instrument cannot be placed in a bay */
  private refuseMove(device: Device, bay: number | null): void {
    if (bay === null) {
      if (device.hello.dyno) throw new Refusal('A dyno always stands in a bay: name the one that it is to stand in.');
      return;
    }
    const place = this.places.bay(bay);
    place.refuseWhileRecording('Place the instrument there after it.');
    const { dyno } = place;
    if (device.hello.dyno && dyno && dyno.hello.device !== device.hello.device)
      throw new Refusal(
        `${place.remembered.name} has a dyno already, ${dyno.hello.name ?? dyno.hello.device}: a bay has one. Place that one elsewhere first.`,
      );
  }

  /** Takes the ratio of engine to drum speed from the speed held now, for the car on the dyno. */
  async calibrateRatio(name: string, engineRpm?: number): Promise<void> {
    const device = this.connected(name);
    const car = this.places.bayOf(device)?.car.now;
    if (!car) throw new Refusal('No car is on the dyno: put one on first, the ratio belongs to a car and gear.');
    const radiusM = device.dyno?.radiusM;
    const { value, axles } = calibratedRatio(device.recent(), radiusM, engineRpm);
    const { vehicleId, vehicle, gear } = car;
    const rpmPerKmh = radiusM ? (value * rpmPerRadS) / (radiusM * 3.6) : null;
    await this.set(name, {
      ratio: { value, axles, vehicleId, vehicle, gear, rpmPerKmh, at: new Date().toISOString() },
    });
  }

  /** Takes what the load cells read now, with the drum at rest, as their zero. */
  async zeroLoadCell(name: string): Promise<void> {
    const zero = loadCellZero(this.connected(name).recent());
    await this.set(name, { zero: { ...zero, at: new Date().toISOString() } });
  }

  /** Has a stand-in come to rest. */
  bringToRest(name: string): void {
    const device = this.connected(name);
    this.places.bayOf(device)?.refuseWhileRecording('End it first.');
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
