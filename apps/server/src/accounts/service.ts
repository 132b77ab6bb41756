import { newId } from '@cuaderno/core';
import { asc, count, eq, lt, ne } from 'drizzle-orm';
import { createHash, randomBytes } from 'node:crypto';
import type { Database } from '../database/index.js';
import { ProblemError } from '../problems/index.js';
import { checkPassword, hashPassword } from './password.js';
import { invitations, sessions, tutors } from './tables.js';
import { Throttle } from './throttle.js';

/** How long a sign-in lasts, in ms. */
export const SESSION_MS = 30 * 24 * 3600_000;

/** How long an invitation is good, in ms. */
const INVITATION_MS = 14 * 24 * 3600_000;

/** Wrong passwords before it slows down. */
const FREE_TRIES = 5;

export interface Tutor {
  readonly id: string;
  readonly name: string;
  readonly email: string;
}

function hashToken(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}

/** E-mail as it is compared: case and the way accents were typed don't matter. */
function comparable(email: string): string {
  return email.trim().normalize('NFC').toLowerCase();
}

export class Accounts {
  private readonly throttle = new Throttle(FREE_TRIES);

  constructor(private readonly db: Database) {}

  async isSetUp(): Promise<boolean> {
    const [row] = await this.db.select({ n: count() }).from(tutors);
    return (row?.n ?? 0) > 0;
  }

  /** The first tutor. Throws `set-up-done` if there is one. */
  async setUp(name: string, email: string, password: string): Promise<Tutor> {
    if (await this.isSetUp()) throw new ProblemError('set-up-done');
    return this.add(name, email, password);
  }

  async add(name: string, email: string, password: string): Promise<Tutor> {
    const tutor = { id: newId(), name, email: comparable(email) };
    const passwordHash = await hashPassword(password);
    await this.db.insert(tutors).values({ ...tutor, passwordHash, createdAt: Date.now() });
    return tutor;
  }

  /**
   * Throws `sign-in-failed`, which never says what was wrong, or `slow-down`.
   * @param from the visitor's address: guessing many accounts from one place slows down too
   */
  async signIn(email: string, password: string, from: string): Promise<Tutor> {
    const keys = [`account ${comparable(email)}`, `address ${from}`];
    for (const key of keys) this.throttle.check(key);
    // Counted before the password is checked: tries made at the same moment count as well.
    for (const key of keys) this.throttle.failed(key);
    const [row] = await this.db
      .select()
      .from(tutors)
      .where(eq(tutors.email, comparable(email)));
    if (!(await checkPassword(password, row?.passwordHash)) || !row)
      throw new ProblemError('sign-in-failed');
    for (const key of keys) this.throttle.succeeded(key);
    return { id: row.id, name: row.name, email: row.email };
  }

  async first(): Promise<Tutor | null> {
    const [row] = await this.db.select().from(tutors).orderBy(tutors.createdAt).limit(1);
    return row ? { id: row.id, name: row.name, email: row.email } : null;
  }

  /** All tutors but this one, by name. */
  others(tutor: string): Promise<{ id: string; name: string }[]> {
    return this.db
      .select({ id: tutors.id, name: tutors.name })
      .from(tutors)
      .where(ne(tutors.id, tutor))
      .orderBy(asc(tutors.name));
  }

  /** A word to another tutor to come in; its token is for the link alone, and good once. */
  async invite(by: string): Promise<string> {
    const token = randomBytes(24).toString('base64url');
    const now = Date.now();
    await this.db.delete(invitations).where(lt(invitations.expiresAt, now));
    await this.db
      .insert(invitations)
      .values({ tokenHash: hashToken(token), by, expiresAt: now + INVITATION_MS });
    return token;
  }

  /** The tutor who sent an invitation. Throws `invitation-over`. */
  async inviter(token: string): Promise<string> {
    const [row] = await this.db
      .select({ name: tutors.name, until: invitations.expiresAt })
      .from(invitations)
      .innerJoin(tutors, eq(tutors.id, invitations.by))
      .where(eq(invitations.tokenHash, hashToken(token)));
    if (!row || row.until < Date.now()) throw new ProblemError('invitation-over');
    return row.name;
  }

  /** Makes the account of who was invited. Throws `invitation-over` or `email-taken`. */
  async accept(token: string, name: string, email: string, password: string): Promise<Tutor> {
    await this.inviter(token);
    const [known] = await this.db
      .select({ id: tutors.id })
      .from(tutors)
      .where(eq(tutors.email, comparable(email)));
    if (known) throw new ProblemError('email-taken');
    // Whoever takes it away has it: two who come at once can't both.
    const taken = await this.db
      .delete(invitations)
      .where(eq(invitations.tokenHash, hashToken(token)))
      .returning({ by: invitations.by });
    if (taken.length === 0) throw new ProblemError('invitation-over');
    return this.add(name, email, password);
  }

  /** A new session; its token is for the cookie alone. */
  async openSession(tutor: Tutor): Promise<string> {
    const token = randomBytes(32).toString('base64url');
    const now = Date.now();
    await this.db.delete(sessions).where(lt(sessions.expiresAt, now));
    await this.db
      .insert(sessions)
      .values({ tokenHash: hashToken(token), tutor: tutor.id, expiresAt: now + SESSION_MS });
    return token;
  }

  async closeSession(token: string): Promise<void> {
    await this.db.delete(sessions).where(eq(sessions.tokenHash, hashToken(token)));
  }

  async bySession(token: string): Promise<Tutor | null> {
    const [row] = await this.db
      .select({ id: tutors.id, name: tutors.name, email: tutors.email, until: sessions.expiresAt })
      .from(sessions)
      .innerJoin(tutors, eq(tutors.id, sessions.tutor))
      .where(eq(sessions.tokenHash, hashToken(token)));
    if (!row || row.until < Date.now()) return null;
    return { id: row.id, name: row.name, email: row.email };
  }
}
