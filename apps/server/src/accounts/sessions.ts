import { and, eq, lt, ne } from 'drizzle-orm';
import type { Database } from '../database/index.js';
import type { Tutor } from './service.js';
import { sessions, tutors } from './tables.js';
import { hashToken, newToken } from './token.js';

/** How long a sign-in lasts after it was used last, in ms. */
export const SESSION_MS = 30 * 24 * 3600_000;
/** A session that was used is renewed once a day, in ms: not every request writes something down. */
const RENEW_AFTER = 24 * 3600_000;

/** A tutor's sign-in on one browser. */
export interface Session {
  readonly key: string;
  readonly tutor: Tutor;
  /** When it ends unless it is used, in ms since 1970. */
  readonly until: number;
}

/** Sign-ins of tutors. That one has ended holds from that moment, also for windows that are open. */
export class Sessions {
  /** Until when sessions last that windows are open for. */
  private readonly watched = new Map<string, number>();
  /** Called when sessions have ended before their time. */
  readonly whenEnded = new Set<() => void>();

  constructor(private readonly db: Database) {}

  /** A new session; its token is for the cookie alone. */
  async open(tutor: Tutor): Promise<string> {
    const token = newToken();
    const now = Date.now();
    await this.db.delete(sessions).where(lt(sessions.expiresAt, now));
    await this.db
      .insert(sessions)
      .values({ tokenHash: hashToken(token), tutor: tutor.id, expiresAt: now + SESSION_MS });
    return token;
  }

  /** The session of a cookie, if it is on. */
  async find(token: string): Promise<Session | null> {
    const key = hashToken(token);
    const [row] = await this.db
      .select({ id: tutors.id, name: tutors.name, email: tutors.email, until: sessions.expiresAt })
      .from(sessions)
      .innerJoin(tutors, eq(tutors.id, sessions.tutor))
      .where(eq(sessions.tokenHash, key));
    if (!row || row.until < Date.now()) return null;
    const { until, ...tutor } = row;
    return { key, tutor, until };
  }

  /** It is used: it lasts as long again from now on. Returns whether that was written down. */
  async renew({ key, until }: Session): Promise<boolean> {
    const next = Date.now() + SESSION_MS;
    if (next - until < RENEW_AFTER) return false;
    await this.db.update(sessions).set({ expiresAt: next }).where(eq(sessions.tokenHash, key));
    if (this.watched.has(key)) this.watched.set(key, next);
    return true;
  }

  /** A window is open for it: whether it `isOn` is known from here on without being looked up. */
  watch({ key, until }: Session): void {
    const now = Date.now();
    for (const [other, end] of this.watched) if (end < now) this.watched.delete(other);
    this.watched.set(key, Math.max(until, this.watched.get(key) ?? 0));
  }

  isOn(key: string): boolean {
    return (this.watched.get(key) ?? 0) > Date.now();
  }

  async end(token: string): Promise<void> {
    const key = hashToken(token);
    this.watched.delete(key);
    for (const told of this.whenEnded) told();
    await this.db.delete(sessions).where(eq(sessions.tokenHash, key));
  }

  /** Ends all of a tutor's sessions. @param but the one that goes on */
  async endAll(tutor: string, but = ''): Promise<void> {
    const which = and(eq(sessions.tutor, tutor), ne(sessions.tokenHash, but));
    const ended = await this.db
      .delete(sessions)
      .where(which)
      .returning({ key: sessions.tokenHash });
    for (const { key } of ended) this.watched.delete(key);
    for (const told of this.whenEnded) told();
  }
}
