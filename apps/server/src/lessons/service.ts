import { MAX_LESSON_BOARDS, newId, teaches } from '@cuaderno/core';
import type { Id, LessonBoard, Rules } from '@cuaderno/core';
import { and, asc, desc, eq, inArray, isNull, sql, sum } from 'drizzle-orm';
import type { Tutor } from '../accounts/index.js';
import { tutors } from '../accounts/tables.js';
import { boards, operations } from '../boards/tables.js';
import { courses } from '../courses/tables.js';
import type { Database } from '../database/index.js';
import { ProblemError } from '../problems/index.js';
import { Door } from './door.js';
import { LiveLesson } from './live-lesson.js';
import { PageTurns } from './page-turns.js';
import { PermissionStore } from './permission-store.js';
import { lessonBoards, lessons, people, spans } from './tables.js';

/** Lessons that are open, and the opening and closing of them. */
export class Lessons {
  private readonly open = new Map<Id, LiveLesson>();
  readonly door: Door;
  readonly permissions: PermissionStore;
  readonly turns: PageTurns;

  constructor(private readonly db: Database) {
    this.door = new Door(db);
    this.permissions = new PermissionStore(db);
    this.turns = new PageTurns(db);
  }

  /** Takes up the lessons that were open when the server stopped, with everyone's pens as they were. */
  async restore(): Promise<void> {
    const rows = await this.db
      .select({ lesson: lessons, tutor: courses.tutor })
      .from(lessons)
      .innerJoin(courses, eq(courses.id, lessons.course))
      .where(isNull(lessons.closedAt));
    for (const { lesson, tutor } of rows) {
      const live = new LiveLesson(lesson.id, lesson.course, lesson.openedAt, tutor);
      live.inStep = lesson.inStep;
      live.rules = lesson.rules;
      live.lead = lesson.lead;
      live.endsAt = lesson.endsAt;
      const here = await this.db
        .select()
        .from(people)
        .where(eq(people.lesson, lesson.id))
        .orderBy(asc(people.arrivedAt));
      for (const person of here) live.add(person, person.arrivedAt);
      for (const board of await this.boardsOf(lesson.id)) live.putBoard(board);
      await this.countWritten(live);
      this.open.set(lesson.id, live);
      await this.db
        .update(spans)
        .set({ toAt: lesson.aliveAt })
        .where(and(eq(spans.lesson, lesson.id), isNull(spans.toAt)));
    }
  }

  private boardsOf(lesson: Id): Promise<LessonBoard[]> {
    return this.db
      .select({ id: boards.id, title: boards.title, shown: lessonBoards.shown })
      .from(lessonBoards)
      .innerJoin(boards, eq(boards.id, lessonBoards.board))
      .where(eq(lessonBoards.lesson, lesson))
      .orderBy(asc(lessonBoards.place));
  }

  /** The board that the last lesson of a course came to last, of those that are there still; else its first one. */
  async lastBoard(course: Id): Promise<Id | null> {
    const [last] = await this.db
      .select({ id: boards.id })
      .from(lessonBoards)
      .innerJoin(lessons, eq(lessons.id, lessonBoards.lesson))
      .innerJoin(boards, eq(boards.id, lessonBoards.board))
      .where(and(eq(lessons.course, course), eq(boards.course, course), isNull(boards.removedAt)))
      .orderBy(desc(lessons.openedAt), desc(lessonBoards.place))
      .limit(1);
    if (last) return last.id;
    const [first] = await this.db
      .select({ id: boards.id })
      .from(boards)
      .where(and(eq(boards.course, course), isNull(boards.removedAt)))
      .orderBy(asc(boards.place), desc(boards.createdAt))
      .limit(1);
    return first?.id ?? null;
  }

  /** What each has written in it so far: a server that was started anew grants nobody as much again. */
  private async countWritten(live: LiveLesson): Promise<void> {
    const written = await this.db
      .select({ by: operations.by, bytes: sum(sql`length(${operations.body})`).mapWith(Number) })
      .from(operations)
      .innerJoin(boards, eq(boards.num, operations.board))
      .where(
        and(
          inArray(
            boards.id,
            live.allBoards().map(({ id }) => id),
          ),
          eq(operations.lesson, live.id),
        ),
      )
      .groupBy(operations.by);
    for (const { by, bytes } of written) if (by !== live.tutor) live.keeps(by, bytes);
  }

  /** Notes that open lessons are running, so that a killed server knows afterwards until when. */
  async pulse(): Promise<void> {
    if (this.open.size === 0) return;
    await this.db
      .update(lessons)
      .set({ aliveAt: Date.now() })
      .where(inArray(lessons.id, [...this.open.keys()]));
  }

  /** Those that are open just now. */
  all(): LiveLesson[] {
    return [...this.open.values()];
  }

  get(lesson: Id): LiveLesson | undefined {
    return this.open.get(lesson);
  }

  /** Lessons on which nobody who teaches has had a window since before this moment, in ms since 1970. */
  leftSince(before: number): LiveLesson[] {
    return [...this.open.values()].filter(
      ({ tutorAwaySince }) => tutorAwaySince !== null && tutorAwaySince < before,
    );
  }

  ofCourse(course: Id): LiveLesson | undefined {
    return [...this.open.values()].find((lesson) => lesson.course === course);
  }

  ofTutor(tutor: Id): LiveLesson[] {
    return [...this.open.values()].filter((lesson) => lesson.tutor === tutor);
  }

  /** The open lesson that is on a board, among others. */
  onBoard(board: Id): LiveLesson | undefined {
    return [...this.open.values()].find((lesson) => lesson.isOn(board));
  }

  /**
   * The class has a board of the course from now on, or doesn't any more. On disk when this returns.
   * Throws `lesson-boards-full`.
   */
  async putBoard(lesson: LiveLesson, board: LessonBoard): Promise<void> {
    const { id, shown } = board;
    const place = lesson.allBoards().length;
    if (!lesson.isOn(id) && place >= MAX_LESSON_BOARDS)
      throw new ProblemError('lesson-boards-full');
    lesson.putBoard(board);
    await this.db
      .insert(lessonBoards)
      .values({ lesson: lesson.id, board: id, place, shown })
      .onConflictDoUpdate({
        target: [lessonBoards.lesson, lessonBoards.board],
        set: { shown },
      });
  }

  /** Throws `lesson-running` where the course has an open lesson. */
  async start(
    course: Id,
    board: Id,
    tutor: Tutor,
    { rules = {}, endsAt = null }: { rules?: Rules; endsAt?: number | null } = {},
  ): Promise<LiveLesson> {
    if (this.ofCourse(course)) throw new ProblemError('lesson-running');
    const now = Date.now();
    const live = new LiveLesson(newId(), course, now, tutor.id);
    live.putBoard({ id: board, title: '', shown: true });
    live.rules = rules;
    live.endsAt = endsAt;
    this.open.set(live.id, live);
    try {
      await this.db.batch([
        this.db
          .insert(lessons)
          .values({ id: live.id, course, openedAt: now, aliveAt: now, rules, endsAt }),
        this.db.insert(lessonBoards).values({ lesson: live.id, board, place: 0, shown: true }),
      ]);
      for (const one of await this.boardsOf(live.id)) live.putBoard(one);
      await this.enter(live, tutor);
    } catch (error) {
      this.open.delete(live.id);
      throw error;
    }
    return live;
  }

  /** The tutor goes in by opening it. */
  private async enter(lesson: LiveLesson, { id, name }: Tutor): Promise<void> {
    const person = {
      id,
      name,
      nameOrdinal: 1,
      role: 'tutor',
      trust: 'hands',
      rules: {},
      door: 'in',
    } as const;
    lesson.add({ ...person, device: null, guest: null });
    await this.db.insert(people).values({ ...person, lesson: lesson.id, arrivedAt: Date.now() });
  }

  /** Whether students' windows follow the tutor's from now on. */
  async setStep(lesson: LiveLesson, on: boolean): Promise<void> {
    lesson.inStep = on;
    await this.db.update(lessons).set({ inStep: on }).where(eq(lessons.id, lesson.id));
  }

  async windowOpened(lesson: LiveLesson, person: Id): Promise<void> {
    const participant = lesson.person(person);
    if (!participant || participant.windows++ > 0) return;
    if (teaches(participant.role)) lesson.tutorAwaySince = null;
    await this.db.insert(spans).values({ lesson: lesson.id, person, fromAt: Date.now() });
  }

  async windowClosed(lesson: LiveLesson, person: Id): Promise<void> {
    const participant = lesson.person(person);
    if (!participant || --participant.windows > 0) return;
    if (teaches(participant.role) && !lesson.isTaught) lesson.tutorAwaySince = Date.now();
    await this.db
      .update(spans)
      .set({ toAt: Date.now() })
      .where(and(eq(spans.lesson, lesson.id), eq(spans.person, person), isNull(spans.toAt)));
  }

  /** Ends the lesson; nobody gets in from now on. On disk when this returns; where it can't be, the lesson goes on. */
  async end(lesson: LiveLesson, at: number): Promise<void> {
    await this.db.batch([
      this.db
        .update(spans)
        .set({ toAt: at })
        .where(and(eq(spans.lesson, lesson.id), isNull(spans.toAt))),
      this.db.update(lessons).set({ closedAt: at, aliveAt: at }).where(eq(lessons.id, lesson.id)),
    ]);
    this.open.delete(lesson.id);
    this.turns.forget(lesson.id);
    // Nothing written from here on belongs to the lesson, no matter who is still connected.
    for (const student of lesson.students()) student.trust = 'view';
  }

  async tutorName(tutor: Id): Promise<string> {
    const [row] = await this.db
      .select({ name: tutors.name })
      .from(tutors)
      .where(eq(tutors.id, tutor));
    return row?.name ?? '';
  }
}
