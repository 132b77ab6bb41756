import { newId } from '@cuaderno/core';
import { and, desc, eq } from 'drizzle-orm';
import fp from 'fastify-plugin';
import type { Database } from '../database/index.js';
import { ProblemError } from '../problems/index.js';
import { letters } from './tables.js';

declare module 'fastify' {
  interface FastifyInstance {
    mailbox: Mailbox;
  }
}

export type LetterRow = Omit<typeof letters.$inferSelect, 'tutor'>;

const COLUMNS = {
  id: letters.id,
  to: letters.to,
  subject: letters.subject,
  body: letters.body,
  at: letters.at,
};

/** A mailbox in place of a mail server: what would be sent lies here to be read, and nothing leaves this machine. */
export class Mailbox {
  constructor(private readonly db: Database) {}

  async send(
    tutor: string,
    letter: Pick<LetterRow, 'to' | 'subject' | 'body'>,
  ): Promise<LetterRow> {
    const sent = { ...letter, id: newId(), at: Date.now() };
    await this.db.insert(letters).values({ ...sent, tutor });
    return sent;
  }

  /** The newest first. */
  of(tutor: string, limit: number): Promise<LetterRow[]> {
    return this.db
      .select(COLUMNS)
      .from(letters)
      .where(eq(letters.tutor, tutor))
      .orderBy(desc(letters.at), desc(letters.id))
      .limit(limit);
  }

  /** Throws `not-found`. */
  async remove(tutor: string, id: string): Promise<void> {
    const gone = await this.db
      .delete(letters)
      .where(and(eq(letters.id, id), eq(letters.tutor, tutor)))
      .returning({ id: letters.id });
    if (gone.length === 0) throw new ProblemError('not-found');
  }
}

export const mailbox = fp(
  (app, _options, done) => {
    app.decorate('mailbox', new Mailbox(app.db));
    done();
  },
  { name: 'mailbox', dependencies: ['database'] },
);
