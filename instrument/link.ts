import { randomUUID } from 'node:crypto';
import { connect, type Socket } from 'node:net';
import { secureConnection, type Elsewhere } from './elsewhere.ts';
import { UnsavedFrames } from './unsaved-frames.ts';
import {
  benchLinkProtocol,
  suvokMessage,
  type DeviceMessage,
  type Hello,
  type SuvokMessage,
} from '../contract/instruments/bench-link.ts';
import { jsonIn } from '../contract/values/text.ts';

const retryMs = 700;

/**
 * An instrument's end of the bench link: introduces itself, comes back when
 * the connection is lost, and sends again what was not safe by then.
 */
export class Link {
  private socket: Socket | undefined;
  private instance = randomUUID();
  private sequence = 0;
  private unsaved = new UnsavedFrames();
  /** Suvok has said from where on frames are wanted. */
  private welcome = false;
  private closed = false;
  private comesBackAtOnce = false;
  private rest = '';
  private onConnected: (() => void) | undefined;
  /** Settles when Suvok has first welcomed it, and after `introduce` at the next. */
  connected = new Promise<void>((resolve) => (this.onConnected = resolve));

  constructor(
    private readonly host: string,
    private readonly port: number,
    private hello: Omit<Hello, 'protocol' | 'instance'>,
    private readonly onMessage: (message: SuvokMessage) => void,
    /** Where Suvok is another machine. */
    private readonly elsewhere?: Elsewhere,
  ) {
    this.open();
  }

  /** Sends one row of readings. */
  frame(time: number, values: (number | null)[]): void {
    const frame = { type: 'frame' as const, sequence: this.sequence++, time: Number(time.toFixed(6)), values };
    this.unsaved.push(frame);
    if (this.welcome) this.send(frame);
  }

  /** @returns whether there was anybody to say it to */
  send(message: DeviceMessage): boolean {
    if (!this.socket?.writable) return false;
    this.socket.write(JSON.stringify(message) + '\n');
    return true;
  }

  /** Comes back at once as something else: the same instrument with other channels. */
  introduce(hello: Omit<Hello, 'protocol' | 'instance'>): void {
    this.hello = hello;
    this.instance = randomUUID();
    this.sequence = 0;
    this.unsaved = new UnsavedFrames();
    this.welcome = false;
    if (!this.socket) return;
    // Whoever waits for the instrument as it was waits no longer.
    this.onConnected?.();
    this.connected = new Promise<void>((resolve) => (this.onConnected = resolve));
    this.comesBackAtOnce = true;
    this.socket.end();
    this.socket = undefined;
  }

  /** Settles when what was sent has gone out. */
  async drained(): Promise<void> {
    const { socket } = this;
    if (!socket || socket.destroyed || socket.writableLength < 65_536) return;
    await new Promise<void>((resolve) => {
      socket.once('drain', resolve);
      socket.once('close', resolve);
    });
  }

  close(): void {
    this.closed = true;
    this.socket?.end();
  }

  private open(): void {
    const { host, port, elsewhere } = this;
    const { key, code } = elsewhere?.letIn(this.hello.device) ?? {};
    // Not paired: the others of the bench go on without it.
    if (elsewhere && key === undefined && code === undefined) return;
    const socket = elsewhere ? secureConnection({ host, port }, elsewhere.fingerprint) : connect({ host, port });
    socket.setEncoding('utf8');
    socket.setNoDelay(true);
    socket.on(elsewhere ? 'secureConnect' : 'connect', () => {
      if (this.closed) return socket.destroy();
      this.socket = socket;
      this.rest = '';
      this.welcome = false;
      if (code !== undefined) this.send({ type: 'pair', code, device: this.hello.device });
      else this.sayHello(key);
    });
    // What still comes over a connection that was left behind is no welcome of the next one.
    socket.on('data', (text: string) => this.socket === socket && this.take(text));
    socket.on('error', () => undefined);
    socket.on('close', () => {
      if (this.socket === socket) {
        this.socket = undefined;
        this.welcome = false;
      }
      const waitMs = this.comesBackAtOnce ? 0 : retryMs;
      this.comesBackAtOnce = false;
      if (!this.closed) setTimeout(() => this.closed || this.open(), waitMs);
    });
  }

  private sayHello(key: string | undefined): void {
    this.send({ ...this.hello, protocol: benchLinkProtocol, instance: this.instance, ...(key && { key }) });
  }

  private heed(message: SuvokMessage): void {
    if (message.type === 'paired') {
      this.elsewhere?.keep(this.hello.device, message.key);
      return this.sayHello(message.key);
    }
    if (message.type === 'safe') return this.unsaved.safe(message.sequence);
    if (message.type !== 'welcome') return this.onMessage(message);
    for (const frame of this.unsaved.from(message.from)) this.send(frame);
    this.welcome = true;
    this.onConnected?.();
  }

  private take(text: string): void {
    const lines = (this.rest + text).split('\n');
    this.rest = lines.pop() ?? '';
    for (const line of lines) {
      const parsed = suvokMessage.safeParse(jsonIn(line));
      if (parsed.success) this.heed(parsed.data);
    }
  }
}
