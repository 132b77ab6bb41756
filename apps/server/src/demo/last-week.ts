import type { ChatTo, Id } from '@cuaderno/core';
import { newId } from '@cuaderno/core';
import { and, asc, eq } from 'drizzle-orm';
import type { FastifyInstance } from 'fastify';
import { operations } from '../boards/tables.js';
import { pageTurns } from '../lessons/tables.js';
import { captions } from '../live/features/captions/tables.js';
import { chatLines, gestures } from '../live/features/talk/tables.js';
import { recordNotes } from '../records/tables.js';

/** Who was in last week's lesson, and the pages that they wrote on. */
export interface LastWeek {
  readonly lesson: Id;
  readonly board: Id;
  /** A minute of the lesson, in ms since 1970. */
  readonly minute: (n: number) => number;
  readonly tutor: Id;
  readonly ida: Id;
  readonly jonas: Id;
  readonly noor: Id;
  readonly sky: Id;
  readonly bear: Id;
  readonly cassiopeia: Id;
  readonly orion: Id;
  readonly table: Id;
  /** When each line was finished, by the id of its operation, in ms since 1970. */
  readonly finished: ReadonlyMap<Id, number>;
}

/** It was all written in a moment; this says that it took a lesson, and what was said and shown meanwhile. */
export async function tellLastWeek(app: FastifyInstance, week: LastWeek): Promise<void> {
  const { lesson, board: own, minute, tutor, ida, jonas, noor } = week;
  const written = await app.db
    .select({ board: operations.board, seq: operations.seq, id: operations.id })
    .from(operations)
    .where(eq(operations.lesson, lesson))
    .orderBy(asc(operations.seq));
  const [first, ...rest] = written.map(({ board, seq, id }) =>
    app.db
      .update(operations)
      .set({ at: week.finished.get(id) ?? minute(52) })
      .where(and(eq(operations.board, board), eq(operations.seq, seq))),
  );
  if (first) await app.db.batch([first, ...rest]);

  const turns: [Id, number, Id][] = [
    [tutor, 0, week.sky],
    [ida, 3, week.sky],
    [jonas, 4, week.sky],
    [noor, 7, week.sky],
    ...[tutor, ida, jonas, noor].map((who, i): [Id, number, Id] => [who, 10 + i / 10, week.bear]),
    ...[tutor, ida, noor, jonas].map((who, i): [Id, number, Id] => [
      who,
      23 + i / 8,
      week.cassiopeia,
    ]),
    [jonas, 31, week.orion],
    ...[tutor, ida, noor].map((who, i): [Id, number, Id] => [who, 33 + i / 10, week.orion]),
    ...[tutor, noor, ida, jonas].map((who, i): [Id, number, Id] => [who, 45 + i / 9, week.table]),
  ];
  await app.db
    .insert(pageTurns)
    .values(
      turns.map(([person, at, page]) => ({ lesson, person, board: own, page, at: minute(at) })),
    );

  const shown: [Id, number, string][] = [
    [jonas, 9, 'hand'],
    [jonas, 9.6, 'hand.down'],
    [ida, 21, 'got-it'],
    [ida, 22, 'signal.none'],
    [noor, 30, 'slower'],
    [noor, 32, 'signal.none'],
    [noor, 38, 'hand'],
    [noor, 38.5, 'hand.down'],
  ];
  await app.db
    .insert(gestures)
    .values(shown.map(([person, at, what]) => ({ lesson, person, what, at: minute(at) })));

  const notes = {
    summary: 'We joined the Great Bear and Cassiopeia. Noor underlined Rigel by herself.',
    until: 'Look for Orion after ten, and write down when you saw it.',
  };
  for (const kind of ['summary', 'until'] as const) {
    const note = await app.recordNotes.write(lesson, tutor, {
      ...{ kind, text: notes[kind], follows: null },
    });
    await app.db
      .update(recordNotes)
      .set({ at: minute(58) })
      .where(eq(recordNotes.id, note.id));
  }

  const said: [Id, number, ChatTo, string][] = [
    [ida, 13.5, 'all', 'It looks like a saucepan!'],
    [tutor, 14, 'all', 'In some countries that is its name.'],
    [noor, 39, 'tutor', 'I can’t see Orion from my window.'],
    [tutor, 40, noor, 'Try again at ten: it rises late this month.'],
  ];
  await app.db
    .insert(chatLines)
    .values(
      said.map(([by, at, to, text]) => ({ id: newId(), lesson, by, to, text, at: minute(at) })),
    );

  // Ida typed what was said while Jonas’s headphones were broken.
  const typed: [number, string][] = [
    [12.1, 'Seven bright stars make the Plough.'],
    [12.4, 'It is only a part of the Great Bear: the tail and the back.'],
    [24.2, 'From the Plough, go over the Pole Star, as far again.'],
    [24.6, 'There is Cassiopeia. It looks like a W, or like an M.'],
    [34.3, 'Three stars in a row: that is Orion’s belt.'],
  ];
  await app.db.insert(captions).values(
    typed.map(([at, text]) => ({
      ...{ id: newId(), lesson, by: ida, text },
      ...{ fromAt: minute(at), at: minute(at) + 4_000 },
    })),
  );
}
