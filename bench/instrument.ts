import { connect, type Socket } from 'node:net';

/** An inertia roller on the bench link that says whatever is measured with. */
export class Instrument {
  private sequence = 0;

  private constructor(private readonly socket: Socket) {}

  static async connect(port: number, hello: Record<string, unknown> = {}): Promise<Instrument> {
    const socket = connect({ port, host: '127.0.0.1' });
    await new Promise<void>((resolve, reject) => {
      socket.once('connect', resolve);
      socket.once('error', reject);
    });
    socket.resume();
    const instrument = new Instrument(socket);
    instrument.say({
      type: 'hello',
      protocol: 1,
      device: 'bench-roller',
      kind: 'inertia-roller',
      channels: [
        { name: 'rollerSpeed', unit: 'rad/s' },
        { name: 'engineSpeed', unit: 'rpm' },
      ],
      dyno: { kind: 'inertia-roller', inertiaKgM2: 50, radiusM: 0.25 },
      ...hello,
    });
    return instrument;
  }

  frame(time: number, values: number[]): void {
    this.say({ type: 'frame', sequence: this.sequence++, time, values });
  }

  close(): void {
    this.socket.destroy();
  }

  private say(message: object): void {
    this.socket.write(JSON.stringify(message) + '\n');
  }
}
