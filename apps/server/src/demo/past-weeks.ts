import { addPageBeside, newId, operation, pagesInOrder } from '@cuaderno/core';
import type { Id, InkName, Operation, Point } from '@cuaderno/core';
import { and, asc, eq } from 'drizzle-orm';
import type { FastifyInstance } from 'fastify';
import { DateTime } from 'luxon';
import type { Tutor } from '../accounts/index.js';
import { operations } from '../boards/tables.js';
import type { Course } from '../courses/service.js';
import { lessons, pageTurns, people, spans } from '../lessons/tables.js';
import { chatLines, gestures } from '../live/features/talk/tables.js';
import { recordNotes, records } from '../records/tables.js';
import { line, loop, stretch } from './drawing.js';

/** What was done in one week's lesson of a course. */
interface Week {
  /** What the page of that week is called. */
  readonly page: string;
  readonly summary: string;
  readonly until: string;
  /** What a student wrote in the chat. */
  readonly said?: string;
  /** Who could not come. */
  readonly away?: readonly string[];
}

/** A course whose lessons are on one board, a page a week. */
export interface Diary {
  readonly course: Course;
  readonly board: Id;
  readonly students: readonly string[];
  /** ISO weekday, and when it begins. */
  readonly weekday: number;
  readonly hour: number;
  readonly minute: number;
  /** How many weeks before the latest such day the last of them was. */
  readonly last: number;
  /** The oldest first. */
  readonly weeks: readonly Week[];
}

const INKS: readonly InkName[] = ['lagoon', 'fern', 'iris'];
const MINUTE = 60_000;

/** Lessons of past weeks, as records: each was held in a moment, and is then said to have taken its time. */
export async function pastWeeks(
  app: FastifyInstance,
  tutor: Tutor,
  zone: string,
  diary: Diary,
): Promise<void> {
  for (const [i, week] of diary.weeks.entries()) {
    const ago = diary.weeks.length - 1 - i + diary.last;
    const now = DateTime.now().setZone(zone);
    const day = latest(now, diary.weekday).minus({ weeks: ago });
    const begins = day.set({ hour: diary.hour, minute: diary.minute, second: 0, millisecond: 0 });
    await oneLesson(app, tutor, diary, week, i, begins.minus({ minutes: 4 }).toMillis());
  }
}

/** The latest such day of the week before today. @param weekday 1 is Monday (ISO 8601) */
export function latest(now: DateTime, weekday: number): DateTime {
  return now.minus({ days: (now.weekday - weekday + 7) % 7 || 7 });
}

async function oneLesson(
  app: FastifyInstance,
  tutor: Tutor,
  diary: Diary,
  week: Week,
  nth: number,
  openedAt: number,
): Promise<void> {
  const { course, board } = diary;
  const lesson = await app.lessons.start(course.id, board, tutor);
  const names = diary.students.filter((name) => !week.away?.includes(name));
  const students: Id[] = [];
  for (const name of names) {
    const joinRequest = {
      name,
      device: `${name} of the demo`,
      guest: null,
      role: 'student',
    } as const;
    students.push((await app.lessons.door.knock(lesson, 'all', joinRequest))!.id);
  }
  await app.live.lessonOpened(lesson);
  app.lessons.permissions.trust(lesson, 'all', 'write');
  const host = (await app.bus.host(board))!;
  const page = await host.between((state) => pagesInOrder(state).at(-1)!.id);
  const write = (who: Id, ops: Operation[]): Promise<void> => host.applyAs(ops, lesson.actor(who));
  await write(tutor.id, [
    operation({ kind: 'page.change', page, to: { name: week.page }, from: { name: '' } }),
    ...scribble(page, 'midnight', { x: 90, y: 110 }, nth),
    line(
      page,
      { tool: 'pen', ink: 'poppy', width: 5 },
      loop({ x: 300, y: 300 }, 60 + 8 * nth),
      nth,
    ),
  ]);
  // The page of the week after is laid behind it.
  const state = await host.between((now) => now);
  await write(
    tutor.id,
    addPageBeside(state, page, 'after').changes.map((change) => operation(change)),
  );
  for (const [i, id] of students.entries())
    await write(id, scribble(page, INKS[i]!, { x: 100, y: 420 + 110 * i }, 10 * nth + i));
  await app.closeLesson(lesson);
  await app.indexing.settled();
  await tell(app, {
    lesson: lesson.id,
    own: board,
    tutor: tutor.id,
    students,
    page,
    week,
    openedAt,
    nth,
  });
  app.indexing.queue(lesson.id);
  await app.indexing.settled();
}

/** A few strokes beside each other. */
function scribble(page: Id, ink: InkName, { x, y }: Point, seed: number): Operation[] {
  return [0, 1, 2, 3, 4].map((i) =>
    line(
      page,
      { tool: 'pen', ink, width: 2.4 },
      stretch(
        { x: x + 80 * i, y: y + 14 * ((seed + i) % 3) },
        { x: x + 80 * i + 58, y: y + 24 * ((seed + 2 * i) % 3) },
        24,
      ),
      seed + i,
    ),
  );
}

/** Says when all of it was. */
async function tell(
  app: FastifyInstance,
  told: {
    lesson: Id;
    own: Id;
    tutor: Id;
    students: readonly Id[];
    page: Id;
    week: Week;
    openedAt: number;
    nth: number;
  },
): Promise<void> {
  const { lesson, own, tutor, students, page, week, openedAt, nth } = told;
  const { db } = app;
  const minute = (n: number): number => openedAt + Math.round(n * MINUTE);
  const closedAt = minute(53 + (nth % 3));
  await db
    .update(lessons)
    .set({ openedAt, closedAt, aliveAt: closedAt })
    .where(eq(lessons.id, lesson));
  await db.update(records).set({ sealedAt: closedAt }).where(eq(records.lesson, lesson));
  await db.delete(spans).where(eq(spans.lesson, lesson));
  const there = [tutor, ...students].map((person, i) => ({
    person,
    from: minute(i === 0 ? 0 : 2 + ((nth + 2 * i) % 5)),
    to: i === 0 ? closedAt : closedAt - ((nth + i) % 4) * MINUTE,
  }));
  await db
    .insert(spans)
    .values(there.map(({ person, from, to }) => ({ lesson, person, fromAt: from, toAt: to })));
  for (const { person, from } of there)
    await db
      .update(people)
      .set({ arrivedAt: from })
      .where(and(eq(people.lesson, lesson), eq(people.id, person)));
  const written = await db
    .select({ board: operations.board, seq: operations.seq })
    .from(operations)
    .where(eq(operations.lesson, lesson))
    .orderBy(asc(operations.seq));
  for (const [i, { board, seq }] of written.entries())
    await db
      .update(operations)
      .set({ at: minute(8 + (40 * i) / written.length) })
      .where(and(eq(operations.board, board), eq(operations.seq, seq)));
  await db
    .insert(pageTurns)
    .values(
      there.map(({ person, from }) => ({ lesson, person, board: own, page, at: from + 2000 })),
    );
  const [first] = students;
  if (first && nth % 2 === 0)
    await db.insert(gestures).values([
      { lesson, person: first, what: 'hand', at: minute(15) },
      { lesson, person: first, what: 'hand.down', at: minute(15.5) },
    ]);
  if (first && week.said)
    await db
      .insert(chatLines)
      .values({ id: newId(), lesson, by: first, to: 'all', text: week.said, at: minute(22) });
  for (const kind of ['summary', 'until'] as const) {
    const note = await app.recordNotes.write(lesson, tutor, {
      ...{ kind, text: week[kind], follows: null },
    });
    await db
      .update(recordNotes)
      .set({ at: closedAt + 4 * MINUTE })
      .where(eq(recordNotes.id, note.id));
  }
}
