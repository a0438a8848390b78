import type { Server } from 'node:http';
import type pg from 'pg';
import { WebSocketServer, type WebSocket } from 'ws';
import type { LiveMessage } from '../contract/live.ts';
import type { RecorderClient } from './recorder-client.ts';
import type { Database } from '../store/database.ts';
import { Pace } from '../recorder/local-link/pace.ts';
import { isOwnOrigin } from './loopback.ts';

/** The bay's state goes out no more often than this, ms. */
const stateEveryMs = 20;
/** A page that has so much unread gets no rows, bytes. */
const mostUnread = 2 ** 20;
/** A page that answers no ping for this long has gone, ms. */
const pingEveryMs = 20_000;
/** How often ages and silences are told anew, ms. */
const heartbeatMs = 2000;

/** Tells every open page what happens: the bay's state, changed jobs, and the dyno's samples. */
export class Live {
  private readonly sockets: WebSocketServer;
  private readonly state = new Pace(stateEveryMs, () => this.say(this.bay.state()));
  private readonly heartbeat: NodeJS.Timeout;
  private readonly pings: NodeJS.Timeout;
  /** Pages that have answered since the last ping. */
  private readonly answered = new WeakSet<WebSocket>();
  private listener: pg.PoolClient | undefined;

  constructor(
    server: Server,
    private readonly bay: RecorderClient,
    private readonly database: Database,
  ) {
    this.sockets = new WebSocketServer({
      server,
      path: '/live',
      verifyClient: ({ req }: { req: { headers: Record<string, string | string[] | undefined> } }) =>
        isOwnOrigin(req.headers),
    });
    this.sockets.on('connection', (socket) => {
      socket.on('error', () => socket.terminate());
      this.answered.add(socket);
      socket.on('pong', () => this.answered.add(socket));
      this.say(this.bay.state(), socket);
      this.sayColumns(socket);
    });
    bay.on('changed', () => this.state.plan());
    bay.on('columns', () => this.sayColumns());
    bay.on('rows', (rows) => this.sendRows(rows));
    this.pings = setInterval(() => this.ping(), pingEveryMs);
    this.heartbeat = setInterval(() => this.state.plan(), heartbeatMs);
  }

  /** Hears of changes made by any server process on the database. */
  async listen(): Promise<void> {
    const client = await this.database.connect();
    client.on('notification', ({ payload }) => this.say({ type: 'changed', jobId: payload ? Number(payload) : null }));
    client.on('error', () => {
      if (this.listener !== client) return;
      this.listener = undefined;
      client.release(true);
      this.retryListening();
    });
    try {
      await client.query('listen suvok_changed');
    } catch (error) {
      client.release(true);
      throw error;
    }
    this.listener = client;
  }

  private retryListening(): void {
    setTimeout(() => void this.listen().catch(() => this.retryListening()), 1000).unref();
  }

  async close(): Promise<void> {
    clearInterval(this.heartbeat);
    clearInterval(this.pings);
    this.state.stop();
    for (const socket of this.sockets.clients) socket.terminate();
    const listener = this.listener;
    this.listener = undefined;
    listener?.release(true);
    await new Promise<void>((resolve) => this.sockets.close(() => resolve()));
  }

  private ping(): void {
    for (const socket of this.sockets.clients) {
      if (!this.answered.delete(socket)) socket.terminate();
      else socket.ping();
    }
  }

  /** Rows as the recorder has gathered them. */
  private sendRows(rows: readonly Float64Array[]): void {
    if (this.sockets.clients.size === 0) return;
    const width = rows[0]!.length;
    const block = new Float64Array(width * rows.length);
    rows.forEach((row, index) => block.set(row, index * width));
    // A page that does not keep up loses rows; it draws what comes next.
    for (const socket of this.sockets.clients)
      if (socket.bufferedAmount < mostUnread) socket.send(Buffer.from(block.buffer));
  }

  private sayColumns(only?: WebSocket): void {
    const { columns } = this.bay;
    if (columns) this.say({ type: 'columns', ...columns }, only);
  }

  private say(message: LiveMessage, only?: WebSocket): void {
    const text = JSON.stringify(message);
    for (const socket of only ? [only] : this.sockets.clients) {
      // One that reads nothing at all is let go; a page that lives comes back.
      if (socket.bufferedAmount > 4 * mostUnread) socket.terminate();
      else socket.send(text);
    }
  }
}
