import { EventEmitter } from 'node:events';
import { ServerResponse, type IncomingMessage } from 'node:http';
import connectPgSimple from 'connect-pg-simple';
import type { Request, RequestHandler, Response } from 'express';
import session from 'express-session';
import type { Endpoint } from '../../contract/values/endpoint.ts';
import type { Person } from '../../contract/people/people.ts';
import type { Role } from '../../contract/values/role.ts';
import type { Log } from '../../contract/values/service-log.ts';
import type { Database } from '../../store/database/database.ts';
import { haveAccounts, personById, sessionSecret } from '../../store/shop/people.ts';
import { HttpRefusal } from '../http-refusal.ts';
import { RememberingStore } from './remembering-store.ts';
import { Soon } from './soon.ts';

declare module 'express-session' {
  interface SessionData {
    personId: number;
    /** ms since 1970. */
    signedInAt: number;
  }
}
declare module 'express-serve-static-core' {
  interface Locals {
    /** Who asks; undefined where there are no accounts. */
    person?: Person;
  }
}

/** A session that nobody uses ends after this time, and every one after that, ms. */
const idleMs = 12 * 3600e3;
const absoluteMs = 7 * 24 * 3600e3;
/** What is known of accounts is asked anew after this time, ms: another server may have made the first. */
const knownForMs = 2000;

const rank: Readonly<Record<Role, number>> = { viewer: 0, operator: 1, owner: 2 };

/** Who somebody is and what they may do. Without any account Suvok is open to whoever reaches it. */
export class Accounts extends EventEmitter<{ changed: [] }> {
  readonly sessions: RequestHandler;
  private known: { any: boolean; atMs: number } | undefined;
  private readonly people = new Map<number, Person>();
  private readonly soon = new Soon();

  private constructor(
    private readonly database: Database,
    secret: string,
    log: Log,
  ) {
    super();
    const PgStore = connectPgSimple(session);
    const stored = new PgStore({
      pool: database,
      tableName: 'session',
      pruneSessionInterval: 3600,
      errorLog: (error: unknown) => log.warn({ err: error }, 'a session could not be read or written'),
    });
    this.close = () => void stored.close();
    this.sessions = session({
      name: 'suvok',
      secret,
      store: new RememberingStore(stored, this.soon),
      resave: false,
      saveUninitialized: false,
      rolling: true,
      // Secure wherever the page came over TLS.
      cookie: { httpOnly: true, sameSite: 'strict', secure: 'auto', maxAge: idleMs },
    });
  }

  readonly close: () => void;

  static async open(database: Database, log: Log): Promise<Accounts> {
    return new Accounts(database, await sessionSecret(database), log);
  }

  /** Whether anybody has to sign in. While the database is away what was known last holds. */
  async any(): Promise<boolean> {
    const { known } = this;
    if (known && Date.now() - known.atMs < knownForMs) return known.any;
    const ask = async () => {
      const any = await haveAccounts(this.database);
      this.known = { any, atMs: Date.now() };
      return any;
    };
    return this.soon.or(ask, () => known?.any);
  }

  /** Accounts or sessions were changed here: what was known holds no longer, and pages whose session has ended go. */
  changed(): void {
    this.known = undefined;
    // Whoever was taken away or may do less is not let in from memory.
    this.people.clear();
    this.emit('changed');
  }

  /** Who a session belongs to, as they are now. */
  async personOf(request: Pick<Request, 'session'>): Promise<Person | undefined> {
    const { personId, signedInAt } = request.session;
    if (personId === undefined || Date.now() - (signedInAt ?? 0) > absoluteMs) return undefined;
    const ask = async () => {
      const person = await personById(this.database, personId);
      if (person) this.people.set(personId, person);
      else this.people.delete(personId);
      return person;
    };
    // With the database away, or slow, whoever was known works on.
    return this.soon.or(ask, () => this.people.get(personId));
  }

  /** Who opens a WebSocket, and by which session; refused where somebody would have to sign in. */
  async opening(request: IncomingMessage): Promise<{ personId: number | undefined; sid: string } | undefined> {
    await new Promise<void>((resolve, reject) => {
      void this.sessions(request as Request, new ServerResponse(request) as Response, (error?: unknown) =>
        error ? reject(error as Error) : resolve(),
      );
    });
    const asked = request as Request;
    if (!(await this.any())) return { personId: undefined, sid: asked.sessionID };
    const person = await this.personOf(asked);
    return person && { personId: person.id, sid: asked.sessionID };
  }

  /** Whether a session that opened something may keep it open. */
  async stays(sid: string, personId: number | undefined): Promise<boolean> {
    try {
      if (!(await this.any())) return true;
      if (personId === undefined) return false;
      const { rows } = await this.database.query('select from session where sid = $1 and expire > now()', [sid]);
      return rows.length > 0 && (await personById(this.database, personId)) !== undefined;
    } catch {
      return true;
    }
  }

  /** Lets a request through to whoever may ask it. */
  guard({ method, needs }: Pick<Endpoint, 'method' | 'needs'>): RequestHandler {
    const least: Role | 'nobody' = needs ?? (method === 'get' ? 'viewer' : 'operator');
    return async (request, response, next) => {
      if (!(await this.any())) return next();
      const person = await this.personOf(request);
      if (person) response.locals.person = person;
      if (least === 'nobody') return next();
      if (!person) throw new HttpRefusal(401, 'Sign in first.');
      if (rank[person.role] < rank[least])
        throw new HttpRefusal(
          403,
          `${person.name} is ${person.role === 'viewer' ? 'a viewer and may look only' : 'an operator'}: this needs an ${least}.`,
        );
      return next();
    };
  }
}
