import { chmod, rm } from 'node:fs/promises';
import { createServer, type Server, type Socket } from 'node:net';
import type { Log } from '../../contract/values/service-log.ts';
import { recorderRequest, type BayAsk, type RecorderMessage } from '../../contract/bays/recorder-link.ts';
import { heartbeatMs } from '../../contract/bays/live.ts';
import { Refusal } from '../../core/refusal.ts';
import type { Bay } from '../bays/bay.ts';
import type { Bays } from '../bays/bays.ts';
import { listening } from '../listening.ts';
import { BlockReader, rowsBlock, wordsBlock } from './blocks.ts';
import { machineMs } from './machine-clock.ts';
import { Pace } from './pace.ts';

/** Rows go out together at this pace, ms; the bay's state no more often than this. */
const rowsEveryMs = 8;
const stateEveryMs = 30;
/** Read after whoever asked was told that nothing came of it: a key that was pressed long ago does nothing now. */
const tooLate = 'This was asked too long ago, and was not done.';
/** A server that has so much unread gets no rows: it loses them, the recorder waits for nobody, bytes. */
const mostUnread = 2 ** 20;

/** The recorder's end of the local socket: tells servers of the bays, and does what they ask. */
export class RecorderSocket {
  private readonly server: Server;
  private readonly sockets = new Set<Socket>();
  private readonly rows = new Map<number, Float64Array[]>();
  private rowTimer: NodeJS.Timeout | undefined;
  private readonly state = new Pace(stateEveryMs, () => this.say(this.bays.state()));
  private readonly heartbeat: NodeJS.Timeout;

  constructor(
    private readonly bays: Bays,
    private readonly log: Log,
  ) {
    this.server = createServer((socket) => this.serve(socket));
    bays.on('changed', () => this.state.plan());
    bays.on('columns', (bay) => this.sayColumns(bay));
    bays.on('row', (bay, row) => this.planRow(bay, row));
    this.heartbeat = setInterval(() => this.state.plan(), heartbeatMs);
  }

  /** Listens at a place that only the owner of the folder may open. */
  async listen(place: string): Promise<void> {
    await rm(place, { force: true });
    await listening(this.server, { path: place });
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
    this.say(this.bays.state(), socket);
    for (const { bay } of this.bays.state().bays) this.sayColumns(this.bays.bay(bay), socket);
  }

  private async answer(socket: Socket, words: unknown): Promise<void> {
    const { id, of, notAfterMs = Infinity } = recorderRequest.parse(words);
    const said = await (machineMs() > notAfterMs ? Promise.reject(new Refusal(tooLate)) : this.does(of)).then(
      () => ({}),
      (error: Error) => {
        if (error instanceof Refusal) return { refusal: error.message };
        this.log.warn({ err: error, ask: of.ask }, 'the bays could not do what was asked');
        return { failure: error.message };
      },
    );
    this.say({ type: 'answer', id, state: this.bays.state(), ...said }, socket);
  }

  private async does(asked: BayAsk): Promise<void> {
    const { bays } = this;
    const { instruments } = bays;
    switch (asked.ask) {
      case 'mount':
        return bays.mount(asked.bay, asked.with);
      case 'clear':
        return bays.clear(asked.bay);
      case 'plan':
        return bays.planNext(asked.bay, asked.with);
      case 'arm':
        return bays.bay(asked.bay).arm(asked.with.afterS, asked.with.by);
      case 'end':
        return bays.bay(asked.bay).end();
      case 'hold':
        return bays.bay(asked.bay).hold(asked.with);
      case 'add bay':
        return bays.add(asked.with.name);
      case 'rename bay':
        return bays.rename(asked.bay, asked.with.name);
      case 'remove bay':
        return bays.remove(asked.bay);
      case 'unmount':
        return bays.unmount(asked.with.jobId);
      case 'refresh':
        return bays.refresh(asked.with.jobId);
      case 'set device': {
        const { device, ...change } = asked.with;
        return instruments.set(device, change);
      }
      case 'calibrate ratio':
        return instruments.calibrateRatio(asked.with.device, asked.with.engineRpm);
      case 'zero load cell':
        return instruments.zeroLoadCell(asked.with.device);
      case 'bring to rest':
        return instruments.bringToRest(asked.with.device);
      case 'connect plain':
        return bays.plain.connect(asked.with);
      case 'disconnect plain':
        return bays.plain.disconnect(asked.with.device);
      case 'listen':
        return bays.plain.listen(asked.with);
      case 'end listening':
        return bays.plain.endListening();
      case 'offer pairing':
        return bays.paired.offer(asked.with);
      case 'withdraw pairing':
        return bays.paired.withdraw();
      case 'revoke pairing':
        return bays.paired.revoke(asked.with.device);
      case 'play faults':
        return instruments.playFaults(asked.with.device, asked.with.faults);
    }
  }

  private planRow(bay: number, row: Float64Array): void {
    if (this.sockets.size === 0) return;
    const rows = this.rows.get(bay);
    if (rows) rows.push(row);
    else this.rows.set(bay, [row]);
    this.rowTimer ??= setTimeout(() => {
      this.rowTimer = undefined;
      this.sendRows();
    }, rowsEveryMs);
  }

  private sendRows(): void {
    for (const [bay, rows] of this.rows) {
      const block = rowsBlock(bay, rows);
      for (const socket of this.sockets) if (socket.writableLength < mostUnread) socket.write(block);
    }
    this.rows.clear();
  }

  private sayColumns(bay: Bay, only?: Socket): void {
    this.sendRows();
    const { columns } = bay;
    if (columns) this.say({ type: 'columns', bay: bay.number, ...columns }, only);
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
