import { pageInRecord } from '@cuaderno/core';
import { and, asc, eq } from 'drizzle-orm';
import { pageTurns, recordBoards } from '../../../lessons/tables.js';
import type { KeptPart } from '../kept-part.js';

/** Who turned to which page. */
export const keptPresence: KeptPart<'presence'> = {
  tables: ['page_turns'],
  async read(db, lesson) {
    const turns = await db
      .select({ turn: pageTurns, place: recordBoards.place })
      .from(pageTurns)
      .innerJoin(
        recordBoards,
        and(eq(recordBoards.lesson, pageTurns.lesson), eq(recordBoards.board, pageTurns.board)),
      )
      .where(eq(pageTurns.lesson, lesson))
      .orderBy(asc(pageTurns.at), asc(pageTurns.id));
    return {
      turns: turns.map(({ turn: { person, board, page, at }, place }) => ({
        by: person,
        page: pageInRecord(page, { id: board, place }),
        at,
      })),
    };
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
