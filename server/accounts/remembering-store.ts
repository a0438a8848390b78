import { Store, type SessionData } from 'express-session';
import type { Soon } from './soon.ts';

/** A session that goes on is written down as alive no more often than this, ms. */
const touchEveryMs = 60_000;
/** So many sessions are remembered. */
const most = 1000;

/**
 * Sessions of the database, remembered as they were last seen: while it is
 * away, whoever had signed in works on. What was ended is forgotten at once.
 */
export class RememberingStore extends Store {
  private readonly seen = new Map<string, SessionData>();
  private readonly touchedMs = new Map<string, number>();

  constructor(
    private readonly stored: Store,
    private readonly soon: Soon,
  ) {
    super();
  }

  override get(sid: string, callback: (error: unknown, session?: SessionData | null) => void): void {
    const ask = () =>
      new Promise<SessionData | null>((resolve) => {
        this.stored.get(sid, (error: unknown, session) => {
          if (error) return resolve(this.alive(sid) ?? null);
          if (session) this.keep(sid, session);
          else this.forget(sid);
          resolve(session ?? null);
        });
      });
    void this.soon.or(ask, () => this.alive(sid)).then((session) => callback(null, session));
  }

  override set(sid: string, session: SessionData, callback?: (error?: unknown) => void): void {
    this.keep(sid, session);
    this.touchedMs.set(sid, Date.now());
    this.stored.set(sid, session, callback);
  }

  override destroy(sid: string, callback?: (error?: unknown) => void): void {
    this.forget(sid);
    this.stored.destroy(sid, callback);
  }

  override touch(sid: string, session: SessionData, callback?: () => void): void {
    this.keep(sid, session);
    const now = Date.now();
    if (now - (this.touchedMs.get(sid) ?? 0) < touchEveryMs) return callback?.();
    this.touchedMs.set(sid, now);
    // Nobody's answer waits for that, and while the database is away nobody is signed out by it.
    this.stored.touch?.(sid, session, () => undefined);
    callback?.();
  }

  private alive(sid: string): SessionData | undefined {
    const session = this.seen.get(sid);
    const expires = session?.cookie.expires;
    return expires && new Date(expires).getTime() < Date.now() ? undefined : session;
  }

  private keep(sid: string, session: SessionData): void {
    this.seen.delete(sid);
    this.seen.set(sid, JSON.parse(JSON.stringify(session)) as SessionData);
    const [oldest] = this.seen.keys();
    if (this.seen.size > most && oldest !== undefined) this.forget(oldest);
  }

  private forget(sid: string): void {
    this.seen.delete(sid);
    this.touchedMs.delete(sid);
  }
}
