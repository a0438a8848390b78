import { chmod, rm } from 'node:fs/promises';
import { createServer, type Server, type Socket } from 'node:net';
import { linesTold, type LinesTold, type LinesWanted } from '../../contract/instruments/lines-link.ts';
import { LineReader } from '../../contract/values/line-reader.ts';
import type { Log } from '../../contract/values/service-log.ts';
import { jsonIn } from '../../contract/values/text.ts';
import { listening } from '../listening.ts';

/** What is told of lines is no longer than this, characters. */
const longestWords = 2 ** 20;

/** The recorder's end of the socket to whoever takes lines of instruments: says what is wanted, hears how it stands. */
export class LinesSocket {
  private readonly server: Server;
  private socket: Socket | undefined;
  private wanted: LinesWanted | undefined;
  private heard: LinesTold | undefined;

  constructor(
    private readonly changed: () => void,
    private readonly log: Log,
  ) {
    this.server = createServer((socket) => this.serve(socket));
  }

  /** How it stands; undefined while nobody takes lines. */
  get told(): LinesTold | undefined {
    return this.socket ? this.heard : undefined;
  }

  /** Listens at a place that only the owner of the folder may open. */
  async listen(place: string): Promise<void> {
    await rm(place, { force: true });
    await listening(this.server, { path: place });
    await chmod(place, 0o600);
  }

  want(wanted: LinesWanted): void {
    this.wanted = wanted;
    this.say();
  }

  async close(): Promise<void> {
    this.socket?.destroy();
    if (this.server.listening) await new Promise<void>((resolve) => this.server.close(() => resolve()));
  }

  private serve(socket: Socket): void {
    // Another one has taken its place: two would take the same lines.
    this.socket?.destroy();
    this.socket = socket;
    const give = (why: string) => {
      this.log.warn({ why }, 'what takes lines of instruments was not understood');
      socket.destroy();
    };
    const reader = new LineReader(
      longestWords,
      (line) => {
        const told = linesTold.safeParse(jsonIn(line));
        if (!told.success) return give(told.error.message);
        this.heard = told.data;
        this.changed();
      },
      () => give('too long'),
    );
    socket.setEncoding('utf8');
    socket.on('data', (text: string) => reader.push(text));
    socket.on('error', () => undefined);
    socket.on('close', () => {
      if (this.socket !== socket) return;
      this.socket = undefined;
      this.heard = undefined;
      this.changed();
    });
    this.say();
  }

  private say(): void {
    if (this.wanted) this.socket?.write(JSON.stringify(this.wanted) + '\n');
  }
}
