import { ShortcutSettings, USUAL_SHORTCUTS } from '@cuaderno/contract/shortcuts';
import { newId } from '@cuaderno/core';
import { asc, count, eq, lt, ne } from 'drizzle-orm';
import type { Database } from '../database/index.js';
import { ProblemError } from '../problems/index.js';
import { Guesses } from './guesses.js';
import { Passwords } from './passwords.js';
import { invitations, passwordResets, tutors } from './tables.js';
import { hashToken, newToken } from './token.js';

/** How long an invitation is good, in ms. */
const INVITATION_MS = 14 * 24 * 3600_000;

/** How long a password may be set anew after that was asked for, in ms. */
const RESET_MS = 3600_000;

/** Wrong passwords an hour: from one address for one account, from one address, and for one account. */
const WRONG = { both: 10, address: 15, account: 100 } as const;

export interface Tutor {
  readonly id: string;
  readonly name: string;
  readonly email: string;
}

/** E-mail as it is compared: case and the way accents were typed don't matter. */
function comparable(email: string): string {
  return email.trim().normalize('NFC').toLowerCase();
}

export class Accounts {
  private readonly byBoth = new Guesses(WRONG.both);
  private readonly byAddress = new Guesses(WRONG.address);
  private readonly byAccount = new Guesses(WRONG.account);

  constructor(
    private readonly db: Database,
    private readonly passwords = new Passwords(),
  ) {}

  async isSetUp(): Promise<boolean> {
    const [row] = await this.db.select({ n: count() }).from(tutors);
    return (row?.n ?? 0) > 0;
  }

  /** The first tutor. Throws `set-up-done` if there is one, however many try at once. */
  async setUp(name: string, email: string, password: string): Promise<Tutor> {
    if (await this.isSetUp()) throw new ProblemError('set-up-done');
    const tutor = { id: newId(), name, email: comparable(email) };
    const passwordHash = await this.passwords.hash(password);
    // Looked at and written in one: of those who came at once, one is the first.
    const [made] = await this.db.raw([
      {
        sql: `INSERT INTO tutors (id, email, name, password_hash, created_at)
          SELECT ?, ?, ?, ?, ? WHERE NOT EXISTS (SELECT 1 FROM tutors) RETURNING id`,
        params: [tutor.id, tutor.email, name, passwordHash, Date.now()],
      },
    ]);
    if (made!.length === 0) throw new ProblemError('set-up-done');
    return tutor;
  }

  async add(name: string, email: string, password: string): Promise<Tutor> {
    const tutor = { id: newId(), name, email: comparable(email) };
    const passwordHash = await this.passwords.hash(password);
    await this.db.insert(tutors).values({ ...tutor, passwordHash, createdAt: Date.now() });
    return tutor;
  }

  /**
   * Throws `sign-in-failed`, which never says what was wrong, or `slow-down`.
   * @param from the visitor's address: guessing many accounts from one place slows down too
   */
  async signIn(email: string, password: string, from: string): Promise<Tutor> {
    const guesses = [
      [this.byBoth, `${comparable(email)} ${from}`],
      [this.byAddress, from],
      [this.byAccount, comparable(email)],
    ] as const;
    for (const [limit, key] of guesses) await limit.begin(key);
    const [row] = await this.db
      .select()
      .from(tutors)
      .where(eq(tutors.email, comparable(email)));
    if (!(await this.passwords.check(password, row?.passwordHash)) || !row)
      throw new ProblemError('sign-in-failed');
    for (const [limit, key] of guesses) await limit.right(key);
    return { id: row.id, name: row.name, email: row.email };
  }

  async first(): Promise<Tutor | null> {
    const [row] = await this.db.select().from(tutors).orderBy(tutors.createdAt).limit(1);
    return row ? { id: row.id, name: row.name, email: row.email } : null;
  }

  /** All tutors but this one, by name. */
  async byId(id: string): Promise<Tutor | null> {
    const [row] = await this.db
      .select({ id: tutors.id, name: tutors.name, email: tutors.email })
      .from(tutors)
      .where(eq(tutors.id, id));
    return row ?? null;
  }

  others(tutor: string): Promise<{ id: string; name: string }[]> {
    return this.db
      .select({ id: tutors.id, name: tutors.name })
      .from(tutors)
      .where(ne(tutors.id, tutor))
      .orderBy(asc(tutors.name));
  }

  /** A word to another tutor to come in; its token is for the link alone, and good once. */
  async invite(by: string): Promise<string> {
    const token = newToken();
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
    // The one who takes it away has it: two who come at once can't both.
    const taken = await this.db
      .delete(invitations)
      .where(eq(invitations.tokenHash, hashToken(token)))
      .returning({ by: invitations.by });
    if (taken.length === 0) throw new ProblemError('invitation-over');
    return this.add(name, email, password);
  }

  /** What was changed about the keys of a board; what can't be read counts as nothing changed. */
  async shortcuts(tutor: string): Promise<ShortcutSettings> {
    const [row] = await this.db
      .select({ shortcuts: tutors.shortcuts })
      .from(tutors)
      .where(eq(tutors.id, tutor));
    return ShortcutSettings.safeParse(row?.shortcuts).data ?? USUAL_SHORTCUTS;
  }

  async setShortcuts(tutor: string, shortcuts: ShortcutSettings): Promise<void> {
    await this.db.update(tutors).set({ shortcuts }).where(eq(tutors.id, tutor));
  }

  /** The time zone by whose clock times are said to a tutor; `null` for that of each machine. */
  async zone(tutor: string): Promise<string | null> {
    const [row] = await this.db
      .select({ zone: tutors.zone })
      .from(tutors)
      .where(eq(tutors.id, tutor));
    return row?.zone ?? null;
  }

  async setZone(tutor: string, zone: string | null): Promise<void> {
    await this.db.update(tutors).set({ zone }).where(eq(tutors.id, tutor));
  }

  /** Throws `wrong-password` or `slow-down`. */
  async changePassword(tutor: Tutor, old: string, next: string): Promise<void> {
    await this.confirm(tutor, old);
    await this.setPassword(tutor.id, next);
  }

  /** Anyone who does something that can't be undone says their password once more. Throws `wrong-password`, `slow-down`. */
  async confirm(tutor: Tutor, password: string): Promise<void> {
    const key = `confirm ${tutor.id}`;
    await this.byAccount.begin(key);
    const [row] = await this.db.select().from(tutors).where(eq(tutors.id, tutor.id));
    if (!(await this.passwords.check(password, row?.passwordHash)))
      throw new ProblemError('wrong-password');
    await this.byAccount.right(key);
  }

  /**
   * A word by which the password can be set anew, once, within an hour; `null` where no account has this e-mail.
   * Those that were asked for before are no longer good.
   */
  async askReset(email: string): Promise<{ token: string; tutor: Tutor } | null> {
    const [row] = await this.db
      .select()
      .from(tutors)
      .where(eq(tutors.email, comparable(email)));
    if (!row) return null;
    const token = newToken();
    const expiresAt = Date.now() + RESET_MS;
    await this.db.batch([
      this.db.delete(passwordResets).where(eq(passwordResets.tutor, row.id)),
      this.db
        .insert(passwordResets)
        .values({ tokenHash: hashToken(token), tutor: row.id, expiresAt }),
    ]);
    return { token, tutor: { id: row.id, name: row.name, email: row.email } };
  }

  /** Sets the password anew, by such a word. Throws `reset-over`. */
  async reset(token: string, password: string): Promise<Tutor> {
    // The one who takes it away has it: it is good once.
    const [taken] = await this.db
      .delete(passwordResets)
      .where(eq(passwordResets.tokenHash, hashToken(token)))
      .returning();
    const [row] = taken
      ? await this.db.select().from(tutors).where(eq(tutors.id, taken.tutor))
      : [];
    if (!taken || !row || taken.expiresAt < Date.now()) throw new ProblemError('reset-over');
    await this.setPassword(row.id, password);
    return { id: row.id, name: row.name, email: row.email };
  }

  private async setPassword(tutor: string, password: string): Promise<void> {
    const passwordHash = await this.passwords.hash(password);
    await this.db.update(tutors).set({ passwordHash }).where(eq(tutors.id, tutor));
  }
}
