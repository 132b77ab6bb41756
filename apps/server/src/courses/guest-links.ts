import { newId } from '@cuaderno/core';
import type { GivenRole } from '@cuaderno/core';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Database } from '../database/index.js';
import { ProblemError } from '../problems/index.js';
import { newLinkToken } from './codes.js';
import { guestLinks } from './tables.js';

export interface GuestLink {
  readonly id: string;
  readonly course: string;
  readonly token: string;
  /** Whom it was made for. */
  readonly guest: string;
  /** What they are in the lesson that they come to. */
  readonly role: GivenRole;
  readonly madeAt: number;
  /** Whether somebody came by it already. */
  readonly used: boolean;
}

type GuestLinkRow = typeof guestLinks.$inferSelect;

function link({ id, course, token, guest, role, madeAt, device }: GuestLinkRow): GuestLink {
  return { id, course, token, guest, role, madeAt, used: device !== null };
}

/** Links that let in one guest each, and anyone who opens them first is that guest. */
export class GuestLinks {
  constructor(private readonly db: Database) {}

  async make(course: string, guest: string, role: GivenRole): Promise<GuestLink> {
    const row: GuestLinkRow = {
      id: newId(),
      course,
      token: newLinkToken(),
      guest,
      role,
      madeAt: Date.now(),
      device: null,
      endedAt: null,
    };
    await this.db.insert(guestLinks).values(row);
    return link(row);
  }

  async of(course: string): Promise<GuestLink[]> {
    const rows = await this.db
      .select()
      .from(guestLinks)
      .where(and(eq(guestLinks.course, course), isNull(guestLinks.endedAt)))
      .orderBy(asc(guestLinks.madeAt));
    return rows.map(link);
  }

  /** It leads nowhere from here on. */
  async end(id: string, course: string): Promise<void> {
    await this.db
      .update(guestLinks)
      .set({ endedAt: Date.now() })
      .where(and(eq(guestLinks.id, id), eq(guestLinks.course, course)));
  }

  async byToken(token: string): Promise<GuestLink | null> {
    const [row] = await this.db
      .select()
      .from(guestLinks)
      .where(and(eq(guestLinks.token, token), isNull(guestLinks.endedAt)));
    return row ? link(row) : null;
  }

  /** Somebody comes by it. Throws `guest-link-used` where another browser did before. */
  async use(id: string, device: string): Promise<void> {
    await this.db
      .update(guestLinks)
      .set({ device })
      .where(and(eq(guestLinks.id, id), isNull(guestLinks.device)));
    const [row] = await this.db
      .select({ device: guestLinks.device })
      .from(guestLinks)
      .where(eq(guestLinks.id, id));
    if (row?.device !== device) throw new ProblemError('guest-link-used');
  }
}
