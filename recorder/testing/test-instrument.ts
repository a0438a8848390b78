import { EventEmitter } from 'node:events';
import type { Frame, Hello, SuvokMessage } from '../../contract/instruments/bench-link.ts';
import { plainSettings } from '../../contract/instruments/recording.ts';
import { testDyno } from '../../core/testing/test-car.ts';
import { Device } from '../devices/device.ts';
import type { Peer } from '../devices/peer.ts';
import type { Journal } from '../spool/journal.ts';

export const rollerHello: Hello = {
  type: 'hello',
  protocol: 1,
  device: 'roller',
  name: 'Roller',
  kind: 'inertia-roller',
  channels: [
    { name: 'rollerSpeed', unit: 'rad/s' },
    { name: 'throttle', unit: '%' },
  ],
  commands: [],
  faults: [],
  dyno: testDyno,
  engineToDrumRatio: 3.4,
};

/** One end of a connection, played by hand: what the recorder says, and what the instrument does. */
export class TestPeer extends EventEmitter {
  readonly heard: SuvokMessage[] = [];
  closed = false;

  send(message: SuvokMessage): void {
    this.heard.push(message);
  }

  close(): void {
    if (this.closed) return;
    this.closed = true;
    this.emit('close');
  }

  get asPeer(): Peer {
    return this as unknown as Peer;
  }
}

/** An instrument that numbers its frames and keeps those that are not safe, as docs/bench-link.md asks from protocol 2 on. */
export class TestInstrument {
  peer = new TestPeer();
  device: Device | undefined;
  readonly sent: Frame[] = [];
  private sequence = 0;

  constructor(
    readonly hello: Hello = rollerHello,
    readonly settings = plainSettings,
  ) {}

  /** Connects to a recorder that does not know it. */
  newDevice(journal: Journal): Device {
    this.peer = new TestPeer();
    this.device = Device.of(this.hello, this.settings, journal, this.peer.asPeer);
    return this.device;
  }

  /** Sends what the recorder has asked for in its welcome. */
  sendAgain(): void {
    const welcome = this.peer.heard.find((message) => message.type === 'welcome');
    if (welcome) for (const frame of this.sent) if (frame.sequence >= welcome.from) this.peer.emit('frame', frame);
  }

  /** Comes back on a new connection and sends again what is wanted. */
  comeBack(device: Device): void {
    this.peer = new TestPeer();
    this.device = device;
    device.attach(this.peer.asPeer);
    this.sendAgain();
  }

  frame(time: number, values: (number | null)[]): void {
    const frame: Frame = { type: 'frame', sequence: this.sequence++, time, values };
    this.sent.push(frame);
    if (!this.peer.closed) this.peer.emit('frame', frame);
  }

  /** Frames that it numbers and nobody gets. */
  skip(count: number): void {
    this.sequence += count;
  }

  /** The greatest frame number that it was told is safe; -1 before any. */
  get safeTo(): number {
    return this.peer.heard.reduce((to, message) => (message.type === 'safe' ? Math.max(to, message.sequence) : to), -1);
  }
}
