import { EventEmitter } from 'node:events';
import type { Mounting } from '../../contract/bays/bay-requests.ts';
import type { BaysState } from '../../contract/bays/live.ts';
import { Refusal } from '../../core/refusal.ts';
import { placeOf, type FoundBay } from './bay-place.ts';
import { Bay, type BayParts } from './bay.ts';
import { BaysCopy } from './bays-copy.ts';
import type { BenchLink } from '../devices/bench-link.ts';
import type { Device } from '../devices/device.ts';
import { Instruments } from '../instruments/instruments.ts';
import { PlainConnections } from '../instruments/plain-connections.ts';
import type { PairedInstruments } from '../instruments/paired-instruments.ts';
import type { RememberedBay } from '../memory/recorder-memory.ts';
import { inOtherData, oneMore, withAdded, withMounted, withRenamed, withStored } from './remembered-bays.ts';
import { restoreDevices } from '../run/restore.ts';

/** An instrument that has been gone for this long is no longer missed, ms. */
const missedMs = 10 * 60_000;

/** What is said once of a disk that has lost something. @param records that are missing */
const damaged = (records: number) =>
  `The recorder’s disk is damaged: it did not give back ${records === 1 ? 'one piece' : `${records} pieces`} of what it had taken, 50 ms of readings each or more. All else was kept; what a run lacks is counted on that run. Look at the disk, and make a backup, before you record more.`;

interface BaysEvents {
  changed: [];
  row: [bay: number, Float64Array];
  columns: [Bay];
}

/** All bays of this recorder, and which instrument stands in which. */
export class Bays extends EventEmitter<BaysEvents> {
  readonly instruments: Instruments;
  readonly plain: PlainConnections;
  readonly paired: PairedInstruments;
  private readonly bays = new Map<number, Bay>();
  private readonly copy: BaysCopy;
  private stranger: string | null = null;
  private spoolProblem: string | null = null;
  /** Said until a run that began in this life is stored: the disk has lost something that it had taken. */
  private damage: { told: string; earlier: ReadonlySet<string> } | null = null;
  /** What the last other database that was met took off the dynos, as a sentence. */
  private otherData: string | null = null;

  constructor(private readonly parts: BayParts & { link: BenchLink; paired: PairedInstruments }) {
    super();
    const { store, memory, link, paired, journal, drainer, log } = parts;
    this.paired = paired;
    paired.on('changed', () => this.emit('changed'));
    paired.on('revoked', (device) => link.dismiss(device));
    if (journal.lost > 0) {
      const earlier = new Set(journal.unstored.map(({ run }) => run.key));
      this.damage = { told: damaged(journal.lost), earlier };
      log.error({ records: journal.lost }, 'the disk did not give back everything that the spool had taken');
    }
    this.copy = new BaysCopy(store, memory, log);
    this.instruments = new Instruments(store, memory, link, this);
    this.plain = new PlainConnections(memory, this.instruments, this, log);
    this.follow();
    link.on('device', (device) => this.welcome(device));
    link.on('stranger', (text) => {
      this.stranger = text;
      this.emit('changed');
    });
    journal.on('problem', (problem) => {
      this.spoolProblem = problem;
      this.emit('changed');
    });
    drainer.on('changed', () => this.emit('changed'));
    drainer.on('database', (identity) => void this.meet(identity));
    drainer.on('stored', (key, run) => {
      (this.bays.get(run.bay ?? 0) ?? this.inOrder[0])?.stored(key, run);
      if (this.damage?.earlier.has(key) === false) this.damage = null;
      log.info({ runId: run.id, key }, 'run stored');
    });
  }

  private get inOrder(): Bay[] {
    return [...this.bays.values()].sort((one, other) => one.number - other.number);
  }

  /** Makes the bays those that are remembered. */
  private follow(): void {
    const wanted = new Set(this.parts.memory.now.bays.map(({ bay }) => bay));
    for (const number of this.bays.keys()) if (!wanted.has(number)) this.bays.delete(number);
    for (const number of wanted) {
      if (this.bays.has(number)) continue;
      const bay = new Bay(number, this.parts);
      this.bays.set(number, bay);
      bay.on('changed', () => this.emit('changed'));
      bay.on('row', (row) => this.emit('row', number, row));
      bay.on('columns', () => this.emit('columns', bay));
    }
  }

  /** Takes up what was going on before the recorder stopped: its instruments, and runs that were being recorded. */
  async restore(): Promise<void> {
    this.instruments.restore();
    await restoreDevices(
      this.parts.journal,
      {
        welcome: (device) => {
          this.parts.link.restore(device);
          return this.welcome(device)?.recorderOf(device);
        },
        loggers: (device) => this.bayOf(device)?.taps ?? [],
        settings: (name) => this.parts.memory.now.settings[name],
      },
      this.parts.log,
    );
    await this.adopt();
  }

  /** Asks the database once what it knows of the bays; while it is away it is asked again. Never rejects. */
  private async adopt(told = false): Promise<void> {
    const { store, memory, log } = this.parts;
    try {
      await this.meet(await store.identity());
      if (memory.now.asked) {
        for (const bay of this.bays.values()) await bay.car.refresh();
        return;
      }
      const stored = await store.bays();
      const cars = await Promise.all(stored.map(({ mounted }) => mounted && store.carOnDyno(mounted)));
      const settings = Object.fromEntries(await store.deviceSettings());
      const bays = withStored(memory.now.bays, stored, cars);
      await memory.keep({ asked: true, bays, settings: { ...settings, ...memory.now.settings } });
      this.follow();
      this.instruments.restore();
      this.plain.follow();
      for (const bay of this.bays.values()) bay.car.tell(bay.devices);
      this.emit('changed');
    } catch (error) {
      if (!told) log.warn({ err: error }, 'the database does not say yet what is in the bays; it is asked again');
      setTimeout(() => void this.adopt(true), 500).unref();
    }
  }

  /**
   * Meets a database. In another one than before, numbers of cars and setups may be another customer's: cars are taken
   * off the dynos, and ratios that were found for a car are forgotten.
   */
  private async meet(identity: string): Promise<void> {
    const { memory, log } = this.parts;
    const { database, bays } = memory.now;
    if (database === identity) return;
    if (database === null) return memory.keep({ database: identity });
    log.warn(
      { before: database, now: identity },
      'the database is another one than before: cars are taken off the dynos',
    );
    if (bays.some(({ mounted }) => mounted))
      this.otherData =
        'The data were restored or begun anew, so the car was taken off the dyno. Put it on again from its job: until then runs belong to no job.';
    await memory.keep({ database: identity, ...inOtherData(memory.now) });
    this.instruments.restore();
    void this.copy.follow();
    this.emit('changed');
  }

  /** @throws Refusal where there is no such bay */
  bay(number: number): Bay {
    const bay = this.bays.get(number);
    if (!bay) throw new Refusal(`There is no bay ${number}.`);
    return bay;
  }

  /** The bay that an instrument stands in. */
  bayOf(device: Device): Bay | undefined {
    return this.inOrder.find(({ devices }) => devices.has(device));
  }

  /** Adds an empty bay. @throws Refusal where there are enough, or one has the name */
  async add(name: string): Promise<void> {
    await this.keep(withAdded(this.parts.memory.now.bays, name));
  }

  /** @throws Refusal where another bay has the name */
  async rename(number: number, name: string): Promise<void> {
    await this.keep(withRenamed(this.parts.memory.now.bays, number, name));
  }

  /** Takes an empty bay away. @throws Refusal where something is in it, or it is the only one */
  async remove(number: number): Promise<void> {
    const bay = this.bay(number);
    const { name, mounted } = bay.remembered;
    if (this.bays.size === 1) throw new Refusal(`${name} is the only bay.`);
    if (mounted) throw new Refusal(`A car is on the dyno of ${name}: take it off first.`);
    if ([...bay.devices].some((device) => !device.gone))
      throw new Refusal(`Instruments stand in ${name}: place them in another bay first.`);
    await this.keep(this.parts.memory.now.bays.filter((other) => other.bay !== number));
  }

  /** The recorder's own word counts; the database has a copy. */
  private async keep(bays: readonly RememberedBay[]): Promise<void> {
    await this.parts.memory.keep({ bays: [...bays] });
    this.follow();
    this.emit('changed');
    void this.copy.follow();
  }

  /**
   * Puts a job's setup on a bay's dyno: its runs are recorded there. One car stands on one dyno.
   * @throws Refusal while a run is being recorded there or where the job is now, or the setup is not one of the job
   */
  async mount(number: number, { jobId, setupId }: Mounting): Promise<void> {
    const bay = this.bay(number);
    const before = this.inOrder.filter((other) => other !== bay && other.car.now?.jobId === jobId);
    for (const one of [bay, ...before]) one.refuseWhileRecording('End it before you change what is on the dyno.');
    const car = await this.parts.store.carOnDyno({ jobId, setupId });
    if (!car) throw new Refusal('That setup is not one of the job; open the job anew and try again.');
    const mounted = { jobId, setupId, ...car };
    const left = new Set(before.map((other) => other.number));
    await this.copy.first(withMounted(this.parts.memory.now.bays, number, mounted, left));
    for (const other of before) await other.car.put(null);
    await bay.car.put(mounted);
    this.otherData = null;
  }

  /** Takes the car off a dyno: what is recorded from now on belongs to no job until it is claimed. */
  async clear(number: number): Promise<void> {
    const bay = this.bay(number);
    bay.refuseWhileRecording('End it before you take the car off.');
    await this.takeOff(bay);
  }

  private async takeOff(bay: Bay): Promise<void> {
    await bay.car.put(null);
    await this.copy.follow();
  }

  /** Takes a job off whatever dyno it is on. */
  async unmount(jobId: number): Promise<void> {
    for (const bay of this.inOrder) if (bay.car.now?.jobId === jobId) await this.takeOff(bay);
  }

  /** A job was changed: its gear and items may be other ones now. */
  async refresh(jobId: number): Promise<void> {
    for (const bay of this.inOrder) if (bay.car.now?.jobId === jobId) await bay.car.refresh();
  }

  /** Settles what is recorded next in a bay. @throws Refusal while something is being recorded there */
  async planNext(number: number, plan: Parameters<Bay['planNext']>[0]): Promise<void> {
    await this.bay(number).planNext(plan);
    void this.copy.follow();
  }

  state(): BaysState {
    const { devices } = this.instruments;
    const placed = new Set(this.inOrder.flatMap((bay) => [...bay.devices]));
    const others = [...devices.values()].filter((device) => !placed.has(device));
    const stranger = this.stranger && `A peer on the bench link was not understood: ${this.stranger}.`;
    return {
      type: 'bays',
      bays: this.inOrder.map((bay) =>
        bay.state(
          others.filter(({ hello }) => hello.kind === 'weather'),
          this.spoolProblem ??
            this.damage?.told ??
            (bay.car.now ? null : this.otherData) ??
            (bay.dyno ? null : stranger),
        ),
      ),
      ...this.plain.state(),
      pairing: this.paired.state(),
      silentSince: null,
      unplaced: others.filter(({ hello }) => hello.kind !== 'weather').map((device) => device.state(null)),
    };
  }

  /** The disk is nearly full: what is being recorded ends while that can still be written down. */
  endForWantOfRoom(): void {
    for (const bay of this.bays.values()) bay.endNow('The recorder’s disk was full.');
  }

  /** Ends runs that are only waiting for a logger. Those that are being recorded go on after the next start. */
  async settled(): Promise<void> {
    this.copy.stop();
    await this.plain.close();
    await Promise.all(this.inOrder.map((bay) => bay.settled()));
  }

  /** @returns the bay that the instrument stands in from now on, if any */
  private welcome(device: Device): Bay | undefined {
    const { hello } = device;
    for (const bay of this.bays.values())
      for (const other of bay.devices) if (other.hello.device === hello.device) bay.forget(other);
    this.instruments.devices.set(hello.device, device);
    device.on('changed', () => this.emit('changed'));
    const bay = this.placeFor(device);
    this.parts.log.info({ device: hello.device, kind: hello.kind, bay: bay?.number ?? null }, 'instrument came');
    device.on('lost', () => this.miss(device));
    if (hello.kind === 'weather') device.on('row', (row) => this.takeAir(device, row));
    bay?.welcome(device);
    this.emit('changed');
    return bay;
  }

  /** Settles where an instrument stands, and remembers it. */
  private placeFor(device: Device): Bay | undefined {
    const { hello } = device;
    const place = placeOf(
      hello,
      device.settings.bay,
      this.inOrder.map((bay) => this.found(bay, device)),
    );
    if (!place) return undefined;
    const { memory } = this.parts;
    let number = 'bay' in place ? place.bay : 0;
    if ('newBay' in place) {
      const more = oneMore(memory.now.bays, place.newBay);
      number = more.bay;
      void this.keep([...memory.now.bays, more]);
      this.follow();
    }
    // What plays a day back is here for an hour.
    if (hello.startedAt === undefined) {
      if (hello.dyno) void memory.keepBay(number, { dyno: hello.device });
      this.instruments.keepPlace(device, number);
    }
    return this.bays.get(number);
  }

  private found(bay: Bay, comes: Device): FoundBay {
    const { name, dyno } = bay.remembered;
    const there = bay.dyno;
    // What played a day back and has gone is not waited for.
    const waitedFor = there && (there.connected || there.hello.startedAt === undefined);
    const other = waitedFor && there.hello.device !== comes.hello.device;
    const away = dyno !== null && dyno !== comes.hello.device;
    return { bay: bay.number, name, otherDyno: other ? 'there' : away ? 'away' : 'none' };
  }

  /** A station without a bay serves those that have none of their own. */
  private takeAir(device: Device, row: Float64Array): void {
    const own = this.bayOf(device);
    const hasOwn = (bay: Bay) => [...bay.devices].some(({ hello, heard }) => hello.kind === 'weather' && heard);
    const served = own ? [own] : this.inOrder.filter((bay) => !hasOwn(bay));
    let taken = false;
    for (const bay of served) taken = bay.takeAir(device, row) || taken;
    if (taken) this.emit('changed');
  }

  private miss(device: Device): void {
    this.parts.log.info({ device: device.hello.device, missing: device.state(null).missing }, 'instrument went');
    const { devices } = this.instruments;
    const forget = () => {
      if (devices.get(device.hello.device) === device) devices.delete(device.hello.device);
      this.bayOf(device)?.forget(device);
    };
    // What played a day back is not missed once it has gone.
    setTimeout(forget, device.hello.startedAt ? 0 : missedMs).unref();
  }
}
