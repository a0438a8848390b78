import { EventEmitter } from 'node:events';
import { plainProtocol, type Frame, type Hello, type SuvokMessage } from '../../contract/instruments/bench-link.ts';
import { torqueChannels } from '../../contract/files/drums.ts';
import type { DynoFile } from '../../contract/files/machine-and-air.ts';
import { silentAfterMs, type DeviceState } from '../../contract/bays/live.ts';
import type { DeviceSettings } from '../../contract/instruments/recording.ts';
import type { Journal } from '../spool/journal.ts';
import type { KeptSession } from '../spool/journal-index.ts';
import type { Discontinuity } from '../spool/records.ts';
import { channelIntake, type ChannelIntake } from './channel-intake.ts';
import { ClockDrift } from './clock-drift.ts';
import type { Peer } from './peer.ts';

/** Its interval while that is not known, and of one that says less than something a second, ms. */
const unknownIntervalMs = 1000;
const slowIntervalMs = 20_000;
/** An instrument that sends again what it read while it was away is waited for this long, ms. */
const comesBackMs = 10_000;
/** So many rows are kept for calibrations. */
const latelyRows = 2000;

interface DeviceEvents {
  /** Time in s, then a value a channel in Suvok's units; NaN where nothing was read. */
  row: [Float64Array];
  lost: [];
  /** Something in its state is worth showing. */
  changed: [];
  discontinuity: [Discontinuity];
  /** It says that nothing of what it was asked to do is left. */
  ready: [];
}

/**
 * An instrument of the bench link for one session: from its hello until it is
 * lost. One that sends again what it read while it was away keeps its session
 * over a broken connection, and over another life of the recorder.
 */
export class Device extends EventEmitter<DeviceEvents> {
  connected = false;
  /** It will not come back as what it was. */
  gone = false;
  /** Rows of its session so far. */
  rows = 0;
  private peer: Peer | undefined;
  private away: NodeJS.Timeout | undefined;
  private lastSequence: number | undefined;
  private lastTime: number | undefined;
  private heardAt = performance.now();
  private missing = 0;
  private rateHz: number | null = null;
  private rateFrom: { time: number; count: number; wallMs: number } | undefined;
  /** Its clock runs faster than time: it plays something back. */
  playsFast = false;
  private problem: string | null = null;
  private faults: string[] = [];
  private gaps = 0;
  private readonly lately: Float64Array[] = [];
  private readonly drift = new ClockDrift();

  private constructor(
    readonly hello: Hello,
    public settings: DeviceSettings,
    readonly session: number,
    private readonly journal: Journal,
    readonly intake: ChannelIntake,
  ) {
    super();
  }

  /**
   * An instrument that has said hello.
   * @param before the session that it had until now, as the same instance: what was taken then is not wanted again
   * @throws Refusal when its channels cannot be used
   */
  static of(hello: Hello, settings: DeviceSettings, journal: Journal, peer: Peer, before?: Device): Device {
    const intake = intakeOf(hello, settings);
    const device = new Device(hello, settings, journal.openSession(hello, settings), journal, intake);
    device.lastSequence = before?.lastSequence;
    device.attach(peer);
    return device;
  }

  /** One that spoke with an earlier life of the recorder: it is away, and may come back. */
  static restored(kept: KeptSession, journal: Journal): Device {
    const device = new Device(kept.hello, kept.settings, kept.session, journal, intakeOf(kept.hello, kept.settings));
    device.rows = kept.rows;
    device.lastSequence = kept.lastSequence ?? undefined;
    if (device.resumes) device.waitForReturn();
    return device;
  }

  /** It sends again what it read while it was away. */
  get resumes(): boolean {
    return this.hello.protocol > plainProtocol;
  }

  /** Whether a hello is of this very session, come back. */
  isSame(hello: Hello, settings: DeviceSettings): boolean {
    const form = (of: Hello, { channelNames }: DeviceSettings) =>
      JSON.stringify([of.instance, of.kind, of.channels, of.dyno, of.startedAt, channelNames]);
    return this.resumes && !this.gone && form(hello, settings) === form(this.hello, this.settings);
  }

  /** Takes a connection of the instrument; the one before, which may be half open, is let go. */
  attach(peer: Peer): void {
    const before = this.peer;
    this.peer = peer;
    before?.close();
    clearTimeout(this.away);
    this.connected = true;
    this.heardAt = performance.now();
    this.problem = null;
    // What an old connection still brings is sent again on the new one.
    peer.on('frame', (frame) => this.peer === peer && this.take(frame));
    peer.on('problem', (text) => this.mind(text));
    peer.on('event', (text) => this.mind(text));
    peer.on('status', (status) => {
      this.heardAt = performance.now();
      this.problem = status.state === 'fault' ? (status.text ?? 'it reports a fault') : null;
      if (status.state === 'ready') this.emit('ready');
      this.emit('changed');
    });
    peer.on('close', () => {
      if (this.peer !== peer) return;
      this.peer = undefined;
      this.connected = false;
      if (this.resumes) this.waitForReturn();
      else this.lose();
      this.emit('changed');
    });
    if (this.resumes) peer.send({ type: 'welcome', from: this.lastSequence === undefined ? 0 : this.lastSequence + 1 });
    this.emit('changed');
  }

  private waitForReturn(): void {
    clearTimeout(this.away);
    this.away = setTimeout(() => this.lose(), comesBackMs);
  }

  /** Ends the session: whatever the instrument says next is another one's. */
  lose(): void {
    if (this.gone) return;
    this.gone = true;
    this.connected = false;
    clearTimeout(this.away);
    const { peer } = this;
    this.peer = undefined;
    peer?.close();
    this.journal.closeSession(this.session);
    this.emit('lost');
    this.emit('changed');
  }

  /** Lets it go as the recorder stops: it may come back to the next life. */
  leave(): void {
    clearTimeout(this.away);
    this.peer?.close();
  }

  send(message: SuvokMessage): void {
    if (message.type === 'problem' || this.hello.commands.some((command) => command === message.type))
      this.peer?.send(message);
  }

  /** Its frames up to a number are on the disk. */
  safe(sequence: number): void {
    if (this.resumes) this.peer?.send({ type: 'safe', sequence });
  }

  /** Has a stand-in play these faults and no others; those that it does not offer are left out. */
  play(faults: readonly string[]): void {
    this.faults = this.hello.faults.filter((fault) => faults.includes(fault));
    this.send({ type: 'fault', faults: this.faults });
    this.emit('changed');
  }

  /** What it said in the last seconds. */
  recent(): { names: string[]; rows: Float64Array[] } {
    return { names: this.intake.channels.map(({ name }) => name), rows: this.lately };
  }

  /** The machine as it describes itself, with the zero of its load cells as the shop took it, and the shop's height. */
  get dyno(): DynoFile | undefined {
    const { dyno } = this.hello;
    const { zero, altitudeM } = this.settings;
    if (!dyno) return dyno;
    const absorberZeroNm = zero
      ? Object.fromEntries(torqueChannels.map((channel) => [channel, zero[channel]]))
      : undefined;
    return { ...dyno, ...(absorberZeroNm && { absorberZeroNm }), ...(altitudeM !== null && { altitudeM }) };
  }

  /** Frames or a status have come lately, for what it is. */
  get heard(): boolean {
    return this.connected && performance.now() - this.heardAt < this.threeIntervalsMs(silentAfterMs);
  }

  /** Three of its own intervals, and no less than this, ms. */
  threeIntervalsMs(leastMs: number): number {
    const { rateHz } = this;
    const intervalMs = rateHz === null ? unknownIntervalMs : rateHz >= 1 ? 1000 / rateHz : slowIntervalMs;
    return Math.max(leastMs, 3 * intervalMs);
  }

  /** @param bay that it stands in */
  state(bay: number | null): DeviceState {
    return {
      bay,
      device: this.hello.device,
      name: this.hello.name ?? this.hello.device,
      kind: this.hello.kind,
      connected: this.connected,
      heard: this.heard,
      channels: this.intake.channels,
      rateHz: this.rateHz,
      missing: this.missing,
      gaps: this.gaps,
      clockDriftPpm: this.drift.ppm,
      settings: this.settings,
      declared: this.hello.channels,
      commands: this.hello.commands,
      dyno: this.dyno ?? null,
      engineToDrumRatio: this.hello.engineToDrumRatio ?? null,
      problem: this.problem,
      faults: { offered: this.hello.faults, on: this.faults },
    };
  }

  /** Takes up a row that an earlier life of the recorder had from it. */
  remember(row: Float64Array): void {
    this.lastTime = row[0]!;
    this.keepLately(row);
  }

  private take(frame: Frame): void {
    this.heardAt = performance.now();
    const { lastSequence } = this;
    if (lastSequence !== undefined && frame.sequence !== lastSequence + 1) {
      const lost = frame.sequence - lastSequence - 1;
      if (lost < 0) return this.mind(`frame ${frame.sequence} came after frame ${lastSequence} and was left out`);
      this.missing += lost;
      this.gaps++;
      this.breaks({ missing: lost, atS: frame.time });
      this.emit('changed');
    }
    if (this.journal.full)
      return this.mind('the recorder’s disk takes nothing: what the instrument says now is not kept');
    this.lastSequence = frame.sequence;
    if (this.lastTime !== undefined && frame.time <= this.lastTime) {
      if (frame.time < this.lastTime - 1) {
        this.breaks({ backFromS: this.lastTime, atS: frame.time });
        this.lastTime = undefined;
        this.rateFrom = undefined;
        this.drift.restart();
      }
      return this.mind(`its clock did not advance at ${frame.time.toFixed(2)} s; the frame was left out`);
    }
    this.lastTime = frame.time;
    this.drift.push(frame.time, performance.now() / 1000);
    this.measureRate(frame.time);
    const row = this.rowOf(frame);
    this.keepLately(row);
    this.journal.row(this.session, this.rows++, row, frame.sequence);
    this.emit('row', row);
  }

  private rowOf(frame: Frame): Float64Array {
    const { columns, conversions } = this.intake;
    const row = new Float64Array(columns.length + 1);
    row[0] = frame.time;
    columns.forEach((column, index) => {
      const value = frame.values[column]!;
      row[index + 1] = value === null ? NaN : conversions[index]!(value);
    });
    return row;
  }

  private keepLately(row: Float64Array): void {
    this.lately.push(row);
    if (this.lately.length > 2 * latelyRows) this.lately.splice(0, latelyRows);
  }

  private breaks(found: Discontinuity): void {
    this.journal.break(this.session, this.rows, found);
    this.emit('discontinuity', found);
  }

  private measureRate(time: number): void {
    this.rateFrom ??= { time, count: 0, wallMs: performance.now() };
    this.rateFrom.count++;
    const elapsed = time - this.rateFrom.time;
    if (elapsed < 1) return;
    this.rateHz = Math.round((this.rateFrom.count - 1) / elapsed);
    this.playsFast = elapsed > 2 * ((performance.now() - this.rateFrom.wallMs) / 1000);
    this.rateFrom = { time, count: 1, wallMs: performance.now() };
  }

  private mind(text: string): void {
    this.problem = text;
    this.emit('changed');
  }
}

const intakeOf = (hello: Hello, { channelNames, ratio }: DeviceSettings): ChannelIntake =>
  channelIntake(hello, channelNames, ratio !== null);
