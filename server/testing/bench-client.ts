import { connect, type Socket } from 'node:net';
import { generatedRun } from '../../core/testing/generated-run.ts';
import { testDyno } from '../../core/testing/test-car.ts';
import type { GeneratedRun } from '../../core/testing/pull-options.ts';

interface Frame {
  type: 'frame';
  sequence: number;
  time: number;
  values: (number | null)[];
}

/** A peer on the bench link, written from docs/bench-link.md and nothing else. */
export class BenchClient {
  received: Record<string, unknown>[] = [];
  /** Frames that it has not been told are safe. */
  unsaved: Frame[] = [];
  private sequence = 0;
  private welcome = false;
  private helloSaid: Record<string, unknown> = {};
  socket!: Socket;
  closed = false;

  static async connect(port: number): Promise<BenchClient> {
    const client = new BenchClient();
    await client.open(port);
    return client;
  }

  private async open(port: number): Promise<void> {
    const socket = connect({ port, host: '127.0.0.1' });
    socket.setEncoding('utf8');
    let rest = '';
    socket.on('data', (text: string) => {
      const lines = (rest + text).split('\n');
      rest = lines.pop()!;
      for (const line of lines) this.take(JSON.parse(line) as Record<string, unknown>);
    });
    socket.on('close', () => {
      if (this.socket === socket) this.closed = true;
    });
    await new Promise<void>((resolve, reject) => {
      socket.once('connect', resolve);
      socket.once('error', reject);
    });
    socket.on('error', () => undefined);
    this.socket = socket;
    this.closed = false;
  }

  private take(message: Record<string, unknown>): void {
    this.received.push(message);
    if (message.type === 'safe')
      this.unsaved = this.unsaved.filter(({ sequence }) => sequence > Number(message.sequence));
    if (message.type !== 'welcome') return;
    for (const frame of this.unsaved) if (frame.sequence >= Number(message.from)) this.say(frame);
    this.welcome = true;
  }

  /** The number up to which all its frames are safe; -1 where none is. */
  get safeTo(): number {
    return this.received.reduce(
      (to, { type, sequence }) => (type === 'safe' ? Math.max(to, Number(sequence)) : to),
      -1,
    );
  }

  /** Comes back as itself, and sends again what is wanted. Tries until somebody listens. */
  async comeBack(port: number): Promise<void> {
    this.received = [];
    this.welcome = false;
    for (let open = false; !open;) {
      open = await this.open(port).then(
        () => true,
        () => false,
      );
      if (!open) await new Promise((resolve) => setTimeout(resolve, 50));
    }
    this.say(this.helloSaid);
  }

  say(message: unknown): void {
    this.socket.write((typeof message === 'string' ? message : JSON.stringify(message)) + '\n');
  }

  hello(over: Record<string, unknown> = {}): void {
    this.helloSaid = {
      type: 'hello',
      protocol: 1,
      device: 'test-roller',
      kind: 'inertia-roller',
      channels: [
        { name: 'rollerSpeed', unit: 'rad/s' },
        { name: 'engineSpeed', unit: 'rpm' },
      ],
      dyno: testDyno,
      ...over,
    };
    this.say(this.helloSaid);
  }

  frame(time: number, values: (number | null)[]): void {
    const frame = { type: 'frame' as const, sequence: this.sequence++, time, values };
    if (this.helloSaid.protocol !== 2) return this.say(frame);
    this.unsaved.push(frame);
    // Until it is told what is wanted it sends nothing.
    if (this.welcome) this.say(frame);
  }

  /** Sends a generated pull. @param until stop after this device time, s @returns the device time after it */
  pull(options: GeneratedRun = {}, startS = 0, until = Infinity): number {
    const run = generatedRun(options);
    let last = startS;
    run.time.forEach((at, row) => {
      if (at > until) return;
      last = startS + at;
      this.frame(
        last,
        run.channels.map((channel) => channel.values[row]!),
      );
    });
    return last;
  }

  /** Sends what is left of a generated pull after a time of it. */
  rest(options: GeneratedRun, startS: number, after: number): void {
    const run = generatedRun(options);
    run.time.forEach((at, row) => {
      if (at > after)
        this.frame(
          startS + at,
          run.channels.map((channel) => channel.values[row]!),
        );
    });
  }

  close(): void {
    this.socket.destroy();
  }
}
