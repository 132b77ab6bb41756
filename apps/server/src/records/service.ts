import { emptyBoard, fold, SAID_SOURCES } from '@cuaderno/core';
import type { Board, Id, KeptEntry, RecordTimeline, SaidSource } from '@cuaderno/core';
import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { LogStore } from '../boards/log-store.js';
import { boards } from '../boards/tables.js';
import { courses } from '../courses/tables.js';
import type { Database } from '../database/index.js';
import { lessons, people, spans } from '../lessons/tables.js';
import { lateEntries } from '../late-lines/late-lines.js';
import { readTimeline, saidIn } from '../live/features/kept.js';
import { ProblemError } from '../problems/index.js';
import type { Attendance, Attended, GoesOn, RecordInfo } from '@cuaderno/contract/records';
import { records } from './tables.js';

type RecordRow = typeof records.$inferSelect;

/** A break shorter than this, in ms, is a hiccup of the line and no absence. */
const HICCUP = 60_000;

/** Anyone who had a window in the lesson: not those who only came to its door. */
const cameIn = sql`(${people.role} = 'tutor' or exists (
  select 1 from ${spans} where ${spans.lesson} = ${people.lesson} and ${spans.person} = ${people.id}))`;

/** Spans in order, with hiccups closed. */
export function joinSpans(
  list: readonly { from: number; to: number }[],
): { from: number; to: number }[] {
  const joined: { from: number; to: number }[] = [];
  for (const span of [...list].sort((a, b) => a.from - b.from)) {
    const last = joined.at(-1);
    if (last && span.from - last.to < HICCUP) last.to = Math.max(last.to, span.to);
    else joined.push({ ...span });
  }
  return joined;
}

/** Records: what closed lessons have left. */
export class Records {
  constructor(
    private readonly db: Database,
    private readonly logs: LogStore,
  ) {}

  /** Newest first. */
  async of(
    whose: { tutor: string } | { course: string } | { lessons: readonly string[] },
    limit: number,
  ): Promise<RecordInfo[]> {
    const rows = await this.db
      .select({ record: records, lesson: lessons, courseName: courses.name })
      .from(records)
      .innerJoin(lessons, eq(lessons.id, records.lesson))
      .innerJoin(courses, eq(courses.id, lessons.course))
      .where(
        'tutor' in whose
          ? eq(courses.tutor, whose.tutor)
          : 'course' in whose
            ? eq(courses.id, whose.course)
            : inArray(lessons.id, [...whose.lessons]),
      )
      .orderBy(desc(lessons.openedAt))
      .limit(limit);
    const ids = rows.map(({ lesson }) => lesson.id);
    const there = ids.length
      ? await this.db
          .select()
          .from(people)
          .where(and(inArray(people.lesson, ids), eq(people.role, 'student'), cameIn))
          .orderBy(asc(people.arrivedAt))
      : [];
    return rows.map(({ record, lesson, courseName }) => ({
      lesson: lesson.id,
      course: lesson.course,
      courseName,
      title: record.title,
      openedAt: lesson.openedAt,
      closedAt: lesson.closedAt ?? record.sealedAt,
      pageCount: record.pageCount,
      people: [...new Set(there.filter((p) => p.lesson === lesson.id).map(({ name }) => name))],
    }));
  }

  /** Throws `not-found` where this tutor has no such record. */
  async one(
    lesson: string,
    tutor: string,
  ): Promise<
    RecordInfo & Pick<RecordRow, 'sealedAt' | 'board' | 'seq' | 'wholeAt' | 'statistics'>
  > {
    const [row] = await this.db
      .select({ record: records, lesson: lessons, courseName: courses.name })
      .from(records)
      .innerJoin(lessons, eq(lessons.id, records.lesson))
      .innerJoin(courses, eq(courses.id, lessons.course))
      .where(and(eq(records.lesson, lesson), eq(courses.tutor, tutor)));
    if (!row) throw new ProblemError('not-found');
    const { record } = row;
    return {
      lesson,
      course: row.lesson.course,
      courseName: row.courseName,
      title: record.title,
      openedAt: row.lesson.openedAt,
      closedAt: row.lesson.closedAt ?? record.sealedAt,
      pageCount: record.pageCount,
      people: [],
      sealedAt: record.sealedAt,
      board: record.board,
      seq: record.seq,
      wholeAt: record.wholeAt,
      statistics: record.statistics,
    };
  }

  /** Who was there and when, in order of arrival. */
  async attendance(lesson: string, closedAt: number): Promise<Attendance[]> {
    const there = await this.db
      .select()
      .from(people)
      .where(and(eq(people.lesson, lesson), cameIn))
      .orderBy(asc(people.arrivedAt));
    const all = await this.db.select().from(spans).where(eq(spans.lesson, lesson));
    return there.map(({ id, name, nameOrdinal, role }) => ({
      id,
      name,
      nameOrdinal,
      role,
      spans: joinSpans(
        all
          .filter(({ person }) => person === id)
          .map(({ fromAt, toAt }) => ({ from: fromAt, to: toAt ?? closedAt })),
      ),
    }));
  }

  /** Whether a student of this name was in a lesson of a course. */
  async wasIn(course: string, name: string): Promise<boolean> {
    const [row] = await this.db
      .select({ id: people.id })
      .from(people)
      .innerJoin(lessons, eq(lessons.id, people.lesson))
      .where(
        and(eq(lessons.course, course), eq(people.name, name), eq(people.role, 'student'), cameIn),
      )
      .limit(1);
    return row !== undefined;
  }

  /** Who came to the lessons of a course, the latest first; those of one name are told apart. */
  async attended(course: string): Promise<Attended[]> {
    const closed = await this.db
      .select({ lesson: lessons.id, openedAt: lessons.openedAt, closedAt: lessons.closedAt })
      .from(lessons)
      .innerJoin(records, eq(records.lesson, lessons.id))
      .where(eq(lessons.course, course))
      .orderBy(desc(lessons.openedAt));
    const ids = closed.map(({ lesson }) => lesson);
    if (ids.length === 0) return [];
    const [there, all] = await Promise.all([
      this.db
        .select()
        .from(people)
        .where(and(inArray(people.lesson, ids), eq(people.role, 'student'), cameIn))
        .orderBy(asc(people.arrivedAt)),
      this.db.select().from(spans).where(inArray(spans.lesson, ids)),
    ]);
    return closed.map(({ lesson, openedAt, closedAt }) => ({
      lesson,
      openedAt,
      length: (closedAt ?? openedAt) - openedAt,
      people: there
        .filter((person) => person.lesson === lesson)
        .map(({ id, name, nameOrdinal }) => ({
          name: nameOrdinal > 1 ? `${name} (${nameOrdinal})` : name,
          length: joinSpans(
            all
              .filter((span) => span.lesson === lesson && span.person === id)
              .map(({ fromAt, toAt }) => ({ from: fromAt, to: toAt ?? closedAt ?? fromAt })),
          ).reduce((sum, { from, to }) => sum + to - from, 0),
        })),
    }));
  }

  /** What was said and shown beside the pages, and who turned to which of them, in the order of time. */
  timeline(lesson: string): Promise<RecordTimeline> {
    return readTimeline(this.db, lesson as Id);
  }

  /** Where something was said in the lesson, besides its pages and notes. */
  async said(lesson: string): Promise<SaidSource[]> {
    const pieces = saidIn(await this.timeline(lesson));
    return SAID_SOURCES.filter((source) => pieces.some((piece) => piece.source === source));
  }

  /** The board when the lesson opened, and what was done to it until it closed, in order. */
  async log(record: {
    lesson: string;
    board: string;
    seq: number;
  }): Promise<{ before: Board; beforeSeq: number; entries: KeptEntry[] }> {
    const all = await this.logs.whole(record.board, record.seq);
    if (!all) throw new ProblemError('not-found');
    const first = all.findIndex(({ lesson }) => lesson === record.lesson);
    const entries = first < 0 ? [] : all.slice(first);
    const earlier = first < 0 ? all : all.slice(0, first);
    const late = await this.late(record);
    return {
      before: fold(emptyBoard(record.board), earlier),
      beforeSeq: earlier.at(-1)?.seq ?? 0,
      entries: [...entries, ...late],
    };
  }

  /** What the tutor added to the record after the lesson, of what students had written while their line was away. */
  private async late({ lesson, seq }: { lesson: string; seq: number }): Promise<KeptEntry[]> {
    const [row] = await this.db
      .select({ closedAt: lessons.closedAt })
      .from(lessons)
      .where(eq(lessons.id, lesson));
    return lateEntries(this.db, { lesson, after: seq, at: row?.closedAt ?? 0 });
  }

  /** The board on which the lesson was, as it is now. */
  async goesOn({ board, seq }: { board: string; seq: number }): Promise<GoesOn> {
    const [row] = await this.db
      .select({ title: boards.title })
      .from(boards)
      .where(and(eq(boards.id, board), isNull(boards.removedAt)));
    if (!row) return null;
    return { board, title: row.title, same: (await this.logs.lastPlace(board)) <= seq };
  }

  /** The board as it was when the lesson closed, with what was added to the record since. */
  async board(record: { lesson: string; board: string; seq: number }): Promise<Board> {
    const loaded = await this.logs.load(record.board, record.seq);
    if (!loaded) throw new ProblemError('not-found');
    return fold(loaded.board, await this.late(record));
  }

  /** All that a record is made of, in order. */
  async whole(record: { lesson: string; board: string; seq: number }): Promise<KeptEntry[]> {
    const entries = (await this.logs.whole(record.board, record.seq)) ?? [];
    return [...entries, ...(await this.late(record))];
  }

  /** Changes whenever something is taken out of a record, or added to it. */
  async version(record: { lesson: string; board: string; seq: number }): Promise<string> {
    const [out, late] = await Promise.all([
      this.logs.takenOutOf(record.board, record.seq),
      this.late(record),
    ]);
    return `${record.seq}.${out}.${late.length}`;
  }
}
