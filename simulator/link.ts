import { connect, type Socket } from 'node:net';
import { suvokMessage, type DeviceMessage, type Hello, type SuvokMessage } from '../contract/bench-link.ts';

const retryMs = 700;

/** An instrument's end of the bench link: introduces itself, and comes back when the server does. */
export class Link {
  private socket: Socket | undefined;
  private sequence = 0;
  private closed = false;
  private comesBackAtOnce = false;
  private rest = '';
  private onConnected: (() => void) | undefined;
  /** Settles at the first connection, and after `introduce` at the next. */
  connected = new Promise<void>((resolve) => (this.onConnected = resolve));

  constructor(
    private readonly host: string,
    private readonly port: number,
    private hello: Hello,
    private readonly onMessage: (message: SuvokMessage) => void,
  ) {
    this.open();
  }

  /** Sends one row of readings. */
  frame(time: number, values: (number | null)[]): void {
    this.send({ type: 'frame', sequence: this.sequence++, time: Number(time.toFixed(6)), values });
  }

  send(message: DeviceMessage): void {
    if (this.socket?.writable) this.socket.write(JSON.stringify(message) + '\n');
  }

  /** Comes back at once as something else: the same instrument with other channels. */
  introduce(hello: Hello): void {
    this.hello = hello;
    if (!this.socket) return;
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
    const socket = connect({ host: this.host, port: this.port });
    socket.setEncoding('utf8');
    socket.setNoDelay(true);
    socket.on('connect', () => {
      this.socket = socket;
      this.rest = '';
      this.sequence = 0;
      this.send(this.hello);
      this.onConnected?.();
    });
    socket.on('data', (text: string) => this.take(text));
    socket.on('error', () => undefined);
    socket.on('close', () => {
      this.socket = undefined;
      const waitMs = this.comesBackAtOnce ? 0 : retryMs;
      this.comesBackAtOnce = false;
      if (!this.closed) setTimeout(() => this.closed || this.open(), waitMs);
    });
  }

  private take(text: string): void {
    const lines = (this.rest + text).split('\n');
    this.rest = lines.pop() ?? '';
    for (const line of lines) {
      const parsed = suvokMessage.safeParse(parse(line));
      if (parsed.success) this.onMessage(parsed.data);
    }
  }
}

function parse(line: string): unknown {
  try {
    return JSON.parse(line);
  } catch {
    return undefined;
  }
}
