import { and, asc, eq, isNull } from 'drizzle-orm';
import { LISTED } from '../kept-part.js';
import type { KeptPart } from '../kept-part.js';
import { clockIn, dayIn } from '../times.js';
import { calledIn } from './called.js';
import { chatText } from './chat-text.js';
import { chatLines, gestures } from './tables.js';

/** What was written in the chat; hands and signals. */
export const keptTalk: KeptPart<'talk'> = {
  tables: ['gestures', 'chat_lines'],
  async read(db, lesson) {
    const [chat, given] = await Promise.all([
      db
        .select()
        .from(chatLines)
        .where(and(eq(chatLines.lesson, lesson), isNull(chatLines.emptiedAt)))
        .orderBy(asc(chatLines.at)),
      db
        .select()
        .from(gestures)
        .where(eq(gestures.lesson, lesson))
        .orderBy(asc(gestures.at), asc(gestures.id)),
    ]);
    return {
      chat: chat.map(({ by, to, text, at }) => ({ by, to, text, at })),
      gestures: given.map(({ person, what, at }) => ({ by: person, what, at })),
    };
  },
  said: ({ chat }) => chat.map(({ text }) => ({ source: 'chat', said: text })),
  of: ({ chat, gestures: given }, people) => ({
    chat: chat.filter(({ by, to }) => people.has(by) || people.has(to)),
    gestures: given.filter(({ by }) => people.has(by)),
  }),
  files: [
    {
      name: 'chat',
      ending: '.txt',
      type: 'text/plain; charset=utf-8',
      isEmpty: ({ chat }) => chat.length === 0,
      write: chatText,
    },
  ],
  appendix({ chat }, { record, people, zone }) {
    if (chat.length === 0) return null;
    const { name, whom } = calledIn(people);
    return {
      heading: 'Chat',
      page: 'Chat',
      under: `${dayIn(record.openedAt, zone)}, times in ${zone}`,
      body: {
        kind: 'table',
        widths: [0.1, 0.24, 0.66],
        header: ['Time', 'Who', 'Said'],
        rows: chat.map(({ by, to, text, at }) => [clockIn(at, zone), name(by) + whom(to), text]),
      },
    };
  },
  // Hands and signals stay with the lesson, as somebody's who has no name any more.
  redact: (people) => [
    {
      sql: `DELETE FROM chat_lines WHERE "by" ${LISTED} OR "to" ${LISTED}`,
      params: [people, people],
    },
  ],
  count: {
    chat: `SELECT count(*) FROM chat_lines t
      WHERE t.lesson = l.id AND (t."by" = p.id OR t."to" = p.id)`,
  },
  mentions: [{ table: 'chat_lines', column: 'text' }],
};
