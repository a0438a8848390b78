import { EventEmitter } from 'node:events';
import type { Frame, Hello, SuvokMessage } from '../../contract/bench-link.ts';
import type { DynoFile } from '../../contract/files.ts';
import type { DeviceState } from '../../contract/live.ts';
import { plainSettings, type DeviceSettings } from '../../contract/recording.ts';
import { channelIntake, type ChannelIntake } from './channel-intake.ts';
import { ClockDrift } from './clock-drift.ts';
import type { Discontinuity } from './discontinuity.ts';
import type { Peer } from './peer.ts';

/** Without a frame or a status for this long a connected instrument counts as silent, ms. */
const silentAfterMs = 3000;

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

/** An instrument on the bench link: its channels, its clock and how well it is heard. */
export class Device extends EventEmitter<DeviceEvents> {
  readonly intake: ChannelIntake;
  connected = true;
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

  /** @throws Refusal when its channels cannot be used */
  constructor(
    readonly hello: Hello,
    private readonly peer: Peer,
    public settings: DeviceSettings = plainSettings,
  ) {
    super();
    this.intake = channelIntake(hello, settings.channelNames, settings.ratio !== null);
    peer.on('frame', (frame) => this.take(frame));
    peer.on('problem', (text) => this.mind(text));
    peer.on('event', (text) => this.mind(text));
    peer.on('status', (status) => {
      this.heardAt = performance.now();
      this.problem = status.state === 'fault' ? (status.text ?? 'it reports a fault') : null;
      if (status.state === 'ready') this.emit('ready');
      this.emit('changed');
    });
    peer.on('close', () => {
      this.connected = false;
      this.emit('lost');
      this.emit('changed');
    });
  }

  send(message: SuvokMessage): void {
    if (message.type === 'problem' || this.hello.commands.includes(message.type)) this.peer.send(message);
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

  /** Lets the instrument go, as when it has come back on a new connection. */
  replace(): void {
    this.peer.close();
  }

  /** The machine as it describes itself, with the zero of its load cells as the shop took it. */
  get dyno(): DynoFile | undefined {
    const { dyno } = this.hello;
    const { zero } = this.settings;
    if (!dyno || !zero) return dyno;
    const { absorberTorque, absorberTorqueLeft, absorberTorqueRight } = zero;
    return { ...dyno, absorberZeroNm: { absorberTorque, absorberTorqueLeft, absorberTorqueRight } };
  }

  get heard(): boolean {
    return this.connected && performance.now() - this.heardAt < silentAfterMs;
  }

  state(): DeviceState {
    return {
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

  private take(frame: Frame): void {
    this.heardAt = performance.now();
    if (this.lastSequence !== undefined && frame.sequence !== this.lastSequence + 1) {
      const lost = frame.sequence - this.lastSequence - 1;
      if (lost > 0) {
        this.missing += lost;
        this.gaps++;
        this.emit('discontinuity', { missing: lost, atS: frame.time });
        this.emit('changed');
      } else {
        return this.mind(`frame ${frame.sequence} came after frame ${this.lastSequence} and was left out`);
      }
    }
    this.lastSequence = frame.sequence;
    if (this.lastTime !== undefined && frame.time <= this.lastTime) {
      if (frame.time < this.lastTime - 1) {
        this.emit('discontinuity', { backFromS: this.lastTime, atS: frame.time });
        this.lastTime = undefined;
        this.rateFrom = undefined;
        this.drift.restart();
      }
      return this.mind(`its clock did not advance at ${frame.time.toFixed(2)} s; the frame was left out`);
    }
    this.lastTime = frame.time;
    this.drift.push(frame.time, performance.now() / 1000);
    this.measureRate(frame.time);
    const { columns, conversions } = this.intake;
    const row = new Float64Array(columns.length + 1);
    row[0] = frame.time;
    columns.forEach((column, index) => {
      const value = frame.values[column]!;
      row[index + 1] = value === null ? NaN : conversions[index]!(value);
    });
    this.lately.push(row);
    if (this.lately.length > 2 * latelyRows) this.lately.splice(0, latelyRows);
    this.emit('row', row);
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
