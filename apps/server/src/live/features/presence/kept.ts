import { asc, eq } from 'drizzle-orm';
import { pageTurns } from '../../../lessons/tables.js';
import type { KeptPart } from '../kept-part.js';

/** Who turned to which page. */
export const keptPresence: KeptPart<'presence'> = {
  tables: ['page_turns'],
  async read(db, lesson) {
    const turns = await db
      .select()
      .from(pageTurns)
      .where(eq(pageTurns.lesson, lesson))
      .orderBy(asc(pageTurns.at), asc(pageTurns.id));
    return { turns: turns.map(({ person, page, at }) => ({ by: person, page, at })) };
  },
  said: () => [],
  of: ({ turns }, people) => ({ turns: turns.filter(({ by }) => people.has(by)) }),
  files: [],
  appendix: () => null,
  // They stay with the lesson, as somebody's who has no name any more.
  redact: () => [],
  count: {},
  mentions: [],
};
