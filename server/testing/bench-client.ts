import { connect, type Socket } from 'node:net';
import { generatedRun } from '../../core/testing/generated-run.ts';
import { testDyno } from '../../core/testing/test-car.ts';
import type { GeneratedRun } from '../../core/testing/pull-options.ts';

/** A peer on the bench link, written from docs/bench-link.md and nothing else. */
export class BenchClient {
  readonly received: Record<string, unknown>[] = [];
  private sequence = 0;
  closed = false;

  private constructor(readonly socket: Socket) {
    let rest = '';
    socket.setEncoding('utf8');
    socket.on('data', (text: string) => {
      const lines = (rest + text).split('\n');
      rest = lines.pop()!;
      for (const line of lines) this.received.push(JSON.parse(line) as Record<string, unknown>);
    });
    socket.on('error', () => undefined);
    socket.on('close', () => (this.closed = true));
  }

  static async connect(port: number): Promise<BenchClient> {
    const socket = connect({ port, host: '127.0.0.1' });
    await new Promise<void>((resolve, reject) => {
      socket.once('connect', resolve);
      socket.once('error', reject);
    });
    return new BenchClient(socket);
  }

  say(message: unknown): void {
    this.socket.write((typeof message === 'string' ? message : JSON.stringify(message)) + '\n');
  }

  hello(over: Record<string, unknown> = {}): void {
    this.say({
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
    });
  }

  frame(time: number, values: (number | null)[]): void {
    this.say({ type: 'frame', sequence: this.sequence++, time, values });
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

  close(): void {
    this.socket.destroy();
  }
}
