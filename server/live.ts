import type { IncomingMessage, Server } from 'node:http';
import type { Duplex } from 'node:stream';
import type pg from 'pg';
import { WebSocketServer, type RawData, type WebSocket } from 'ws';
import { changeNotice } from '../contract/job/changes.ts';
import { heartbeatMs, watchMessage, type LiveMessage } from '../contract/bays/live.ts';
import type { Accounts } from './accounts/accounts.ts';
import { jsonIn } from '../contract/values/text.ts';
import type { RecorderClient } from './recorder-client.ts';
import type { Database, Queryable } from '../store/database/database.ts';
import { databaseIdentity } from '../store/database/database-identity.ts';
import { Pace } from '../recorder/local-link/pace.ts';
import { fromOutside, isOwnOrigin } from './loopback.ts';

/** The bays' state goes out no more often than this, ms. */
const stateEveryMs = 20;
/** A page that has so much unread gets no rows, bytes. */
const mostUnread = 2 ** 20;
/** A page that answers no ping for this long has gone, ms. */
const pingEveryMs = 20_000;
/** Said of changes that nobody listened to: no table's name, so that pages ask for everything anew. */
const anything = '';
/** What a page is told whose session has ended. */
const signedOut = 4401;
/** A page that has just come hears of the changes of this time: what it asked for first may be from before, ms. */
const toldAgainMs = 10_000;

type Opener = NonNullable<Awaited<ReturnType<Accounts['opening']>>>;

/** Tells every open page what happens: the bays' state, changed jobs, and the samples of the bay that it watches. */
export class Live {
  private readonly sockets: WebSocketServer;
  private readonly state = new Pace(stateEveryMs, () => this.say(this.recorder.state()));
  private readonly heartbeat: NodeJS.Timeout;
  private readonly pings: NodeJS.Timeout;
  /** Pages that have answered since the last ping. */
  private readonly answered = new WeakSet<WebSocket>();
  /** The bay that each page watches. */
  private readonly watched = new WeakMap<WebSocket, number>();
  /** By whose session each page listens. */
  private readonly sessions = new WeakMap<WebSocket, Opener>();
  private readonly openers = new WeakMap<IncomingMessage, Opener>();
  private listener: pg.PoolClient | undefined;
  /** When each kind of change was last told. */
  private readonly told = new Map<string, { message: LiveMessage; at: number }>();

  constructor(
    servers: readonly Pick<Server, 'on'>[],
    private readonly hosts: readonly string[],
    private readonly recorder: RecorderClient,
    private readonly database: Database,
    private readonly accounts: Accounts,
    /** Which data are served, and who hears that they have become other ones. */
    private readonly data: { identity: string; replaced: () => void },
  ) {
    this.sockets = new WebSocketServer({
      noServer: true,
      path: '/live',
      // A page says little.
      maxPayload: 1024,
      verifyClient: ({ req }: { req: IncomingMessage }, done) => void this.admit(req, done),
    });
    for (const server of servers)
      server.on('upgrade', (request: IncomingMessage, socket: Duplex, head: Buffer) => {
        this.sockets.handleUpgrade(request, socket, head, (opened) => this.sockets.emit('connection', opened, request));
      });
    this.sockets.on('connection', (socket, request) => {
      const opener = this.openers.get(request);
      if (opener) this.sessions.set(socket, opener);
      socket.on('error', () => socket.terminate());
      this.answered.add(socket);
      socket.on('pong', () => this.answered.add(socket));
      socket.on('message', (data) => this.watch(socket, data));
      this.say({ type: 'data', id: this.data.identity }, socket);
      this.say(this.recorder.state(), socket);
      for (const { message, at } of this.told.values())
        if (performance.now() - at < toldAgainMs) this.say(message, socket);
    });
    recorder.on('changed', () => this.state.plan());
    recorder.on('columns', (bay) => this.sayColumns(bay));
    recorder.on('rows', (bay, rows) => this.sendRows(bay, rows));
    accounts.on('changed', () => void this.endSessions());
    this.pings = setInterval(() => this.ping(), pingEveryMs);
    this.heartbeat = setInterval(() => this.say({ type: 'alive' }), heartbeatMs);
  }

  private async admit(request: IncomingMessage, done: (welcome: boolean, code?: number) => void): Promise<void> {
    if (!isOwnOrigin(request, this.hosts)) return done(false, 403);
    try {
      if (fromOutside(request) && !(await this.accounts.any())) return done(false, 403);
      const opener = await this.accounts.opening(request);
      if (opener) this.openers.set(request, opener);
      done(opener !== undefined, 401);
    } catch {
      // With the database away nobody new is known; the page asks again.
      done(false, 503);
    }
  }

  /** Lets pages go whose session has ended. */
  async endSessions(): Promise<void> {
    for (const socket of this.sockets.clients) {
      const opener = this.sessions.get(socket);
      if (opener && !(await this.accounts.stays(opener.sid, opener.personId))) socket.close(signedOut, 'signed out');
    }
  }

  /** Hears of changes made by any server process on the database. */
  async listen(): Promise<void> {
    const client = await this.database.connect();
    client.on('notification', ({ payload }) => {
      const { data } = changeNotice.safeParse(jsonIn(payload ?? ''));
      if (data) this.sayChanged(data.table, data.job);
    });
    client.on('error', () => {
      if (this.listener !== client) return;
      this.listener = undefined;
      client.release(true);
      this.retryListening();
    });
    try {
      await client.query('listen suvok_changed');
      await this.lookAtData(client);
    } catch (error) {
      client.release(true);
      throw error;
    }
    this.listener = client;
  }

  /** The database may have been away, and come back as another one. */
  private async lookAtData(client: Queryable): Promise<void> {
    const now = await databaseIdentity(client);
    if (now === this.data.identity) return;
    this.data.identity = now;
    this.say({ type: 'data', id: now });
    this.data.replaced();
  }

  private retryListening(): void {
    setTimeout(
      () =>
        void this.listen().then(
          () => this.sayChanged(anything, null),
          () => this.retryListening(),
        ),
      1000,
    ).unref();
  }

  private sayChanged(table: string, jobId: number | null): void {
    const message = { type: 'changed', table, jobId } as const;
    this.say(message);
    const now = performance.now();
    this.told.set(`${table} ${jobId}`, { message, at: now });
    for (const [change, { at }] of this.told) if (now - at >= toldAgainMs) this.told.delete(change);
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
    void this.endSessions();
  }

  /** A page says whose rows it wants; what is no such word is passed over. */
  private watch(socket: WebSocket, data: RawData): void {
    const parsed = watchMessage.safeParse(jsonIn((data as Buffer).toString()));
    if (!parsed.success) return;
    this.watched.set(socket, parsed.data.bay);
    this.sayColumns(parsed.data.bay, socket);
  }

  private watchers(bay: number): WebSocket[] {
    return [...this.sockets.clients].filter((socket) => this.watched.get(socket) === bay);
  }

  /** Rows as the recorder has gathered them. */
  private sendRows(bay: number, rows: readonly Float64Array[]): void {
    const watchers = this.watchers(bay);
    if (watchers.length === 0) return;
    const width = rows[0]!.length;
    const block = new Float64Array(width * rows.length);
    rows.forEach((row, index) => block.set(row, index * width));
    // A page that does not keep up loses rows; it draws what comes next.
    for (const socket of watchers) if (socket.bufferedAmount < mostUnread) socket.send(Buffer.from(block.buffer));
  }

  private sayColumns(bay: number, only?: WebSocket): void {
    const columns = this.recorder.columns.get(bay);
    if (columns)
      for (const socket of only ? [only] : this.watchers(bay)) this.say({ type: 'columns', bay, ...columns }, socket);
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
