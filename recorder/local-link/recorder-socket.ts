import { chmod, rm } from 'node:fs/promises';
import { createServer, type Server, type Socket } from 'node:net';
import type { Log } from '../../contract/log.ts';
import { recorderRequest, type BayAsk, type RecorderMessage } from '../../contract/recorder-link.ts';
import { Refusal } from '../../core/refusal.ts';
import type { Bay } from '../bay.ts';
import { BlockReader, rowsBlock, wordsBlock } from './blocks.ts';
import { Pace } from './pace.ts';

/** Rows go out together at this pace, ms; the bay's state no more often than this. */
const rowsEveryMs = 8;
const stateEveryMs = 30;
/** How often ages and silences are told anew, ms. */
const heartbeatMs = 2000;
/** A server that has so much unread gets no rows: it loses them, the recorder waits for nobody, bytes. */
const mostUnread = 2 ** 20;

/** The recorder's end of the local socket: tells servers of the bay, and does what they ask. */
export class RecorderSocket {
  private readonly server: Server;
  private readonly sockets = new Set<Socket>();
  private rows: Float64Array[] = [];
  private rowTimer: NodeJS.Timeout | undefined;
  private readonly state = new Pace(stateEveryMs, () => this.say(this.bay.state()));
  private readonly heartbeat: NodeJS.Timeout;

  constructor(
    private readonly bay: Bay,
    private readonly log: Log,
  ) {
    this.server = createServer((socket) => this.serve(socket));
    bay.on('changed', () => this.state.plan());
    bay.on('dyno', () => this.sayColumns());
    bay.on('row', (row) => this.planRow(row));
    this.heartbeat = setInterval(() => this.state.plan(), heartbeatMs);
  }

  /** Listens at a place that only the owner of the folder may open. */
  async listen(place: string): Promise<void> {
    await rm(place, { force: true });
    await new Promise<void>((resolve, reject) => {
      this.server.once('error', reject);
      this.server.listen(place, resolve);
    });
    await chmod(place, 0o600);
  }

  async close(): Promise<void> {
    clearInterval(this.heartbeat);
    clearTimeout(this.rowTimer);
    this.state.stop();
    for (const socket of this.sockets) socket.destroy();
    if (this.server.listening) await new Promise<void>((resolve) => this.server.close(() => resolve()));
  }

  private serve(socket: Socket): void {
    this.sockets.add(socket);
    const reader = new BlockReader(
      (words) => {
        this.answer(socket, words).catch((error: Error) => {
          this.log.warn({ err: error }, 'a server asked what nobody understands');
          socket.destroy();
        });
      },
      () => undefined,
    );
    socket.on('data', (bytes) => {
      try {
        reader.push(bytes);
      } catch (error) {
        this.log.warn({ err: error }, 'a server said what is no question');
        socket.destroy();
      }
    });
    socket.on('error', () => undefined);
    socket.on('close', () => this.sockets.delete(socket));
    this.say(this.bay.state(), socket);
    this.sayColumns(socket);
  }

  private async answer(socket: Socket, words: unknown): Promise<void> {
    const { id, of } = recorderRequest.parse(words);
    const said = await this.does(of).then(
      () => ({}),
      (error: Error) => {
        if (error instanceof Refusal) return { refusal: error.message };
        this.log.warn({ err: error, ask: of.ask }, 'the bay could not do what was asked');
        return { failure: error.message };
      },
    );
    this.say({ type: 'answer', id, state: this.bay.state(), ...said }, socket);
  }

  private async does(asked: BayAsk): Promise<void> {
    const { bay } = this;
    switch (asked.ask) {
      case 'mount':
        return bay.mount(asked.with);
      case 'unmount':
        return bay.unmount(asked.with.jobId);
      case 'refresh':
        return bay.refresh(asked.with.jobId);
      case 'plan':
        return bay.planNext(asked.with);
      case 'arm':
        return bay.arm(asked.with.afterS);
      case 'end':
        return bay.end();
      case 'set device': {
        const { device, ...change } = asked.with;
        return bay.instruments.set(device, change);
      }
      case 'calibrate ratio':
        return bay.instruments.calibrateRatio(asked.with.device, asked.with.engineRpm);
      case 'zero load cell':
        return bay.instruments.zeroLoadCell(asked.with.device);
      case 'bring to rest':
        return bay.instruments.bringToRest(asked.with.device);
      case 'play faults':
        return bay.instruments.playFaults(asked.with.device, asked.with.faults);
    }
  }

  private planRow(row: Float64Array): void {
    if (this.sockets.size === 0) return;
    this.rows.push(row);
    this.rowTimer ??= setTimeout(() => {
      this.rowTimer = undefined;
      this.sendRows();
    }, rowsEveryMs);
  }

  private sendRows(): void {
    const { rows } = this;
    this.rows = [];
    if (rows.length === 0) return;
    const block = rowsBlock(rows);
    for (const socket of this.sockets) if (socket.writableLength < mostUnread) socket.write(block);
  }

  private sayColumns(only?: Socket): void {
    this.sendRows();
    const { dyno, liveRows } = this.bay;
    if (dyno) this.say({ type: 'columns', device: dyno.hello.device, columns: liveRows.columns }, only);
  }

  private say(message: RecorderMessage, only?: Socket): void {
    const block = wordsBlock(message);
    for (const socket of only ? [only] : this.sockets) {
      // One that reads nothing at all is let go; it comes back when it lives again.
      if (socket.writableLength > 4 * mostUnread) socket.destroy();
      else socket.write(block);
    }
  }
}
