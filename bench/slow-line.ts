import { once } from 'node:events';
import { setTimeout } from 'node:timers/promises';
import { connect, createServer, type Server, type Socket } from 'node:net';

/** A line between two machines: what it carries a second, bits, and how long each byte is under way, ms. */
export interface Line {
  bitsPerS: number;
  delayMs: number;
}

/** Whatever a socket says goes to another one over the line; the line's one way is shared by all connections. */
class Way {
  bytes = 0;
  private freeAt = 0;

  constructor(private readonly line: Line) {}

  carry(from: Socket, to: Socket): void {
    // One after the other: timers of their own could overtake each other within a millisecond.
    let carried: Promise<unknown> = Promise.resolve();
    from.on('data', (bytes: Buffer) => {
      this.bytes += bytes.length;
      const begins = Math.max(performance.now(), this.freeAt);
      this.freeAt = begins + (1000 * 8 * bytes.length) / this.line.bitsPerS;
      const thereAt = this.freeAt + this.line.delayMs;
      carried = carried.then(() => setTimeout(Math.max(0, thereAt - performance.now()))).then(() => to.write(bytes));
    });
    const over = () => void carried.then(() => to.destroy());
    from.on('close', over);
    from.on('error', over);
  }
}

/**
 * Listens on a port of this machine and passes everything on to another one as a line elsewhere would.
 * @returns the server, and how many bytes have come back so far
 */
export async function slowLine(
  toPort: number,
  line: Line,
  port: number,
): Promise<{ server: Server; bytesBack: () => number }> {
  const [there, back] = [new Way(line), new Way(line)];
  const server = createServer((near) => {
    const far = connect(toPort, '127.0.0.1');
    there.carry(near, far);
    back.carry(far, near);
  });
  server.listen(port, '127.0.0.1');
  await once(server, 'listening');
  return { server, bytesBack: () => back.bytes };
}
