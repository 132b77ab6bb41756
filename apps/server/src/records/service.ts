import { emptyBoard, fold, joinBoards, joinLogs, SAID_SOURCES } from '@cuaderno/core';
import type {
  Board,
  Id,
  KeptEntry,
  LogOfBoard,
  RecordBoard,
  RecordTimeline,
  SaidSource,
} from '@cuaderno/core';
import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import type { LogStore } from '../boards/log-store.js';
import { boards } from '../boards/tables.js';
import { courses } from '../courses/tables.js';
import type { Database } from '../database/index.js';
import { lessons, people, recordBoards, spans } from '../lessons/tables.js';
import { lateEntries } from '../late-lines/late-lines.js';
import { readTimeline, saidIn } from '../live/features/kept.js';
import { ProblemError } from '../problems/index.js';
import type { Attendance, Attended, BoardOfRecord, RecordInfo } from '@cuaderno/contract/records';
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

/** Where a record ends on one of its boards. */
interface RecordBoardRow extends RecordBoard {
  readonly title: string;
  readonly seq: number;
}

/** A record, as far as it is named here. */
interface Named {
  readonly lesson: string;
}

/** Records: what closed lessons have left. That of a lesson on several boards is read as one: see `core/records`. */
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
  ): Promise<RecordInfo & Pick<RecordRow, 'sealedAt' | 'wholeAt' | 'statistics'>> {
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

  /** The boards of a record, in the order in which the lesson came to them. */
  async boards({ lesson }: Named): Promise<RecordBoardRow[]> {
    const rows = await this.db
      .select()
      .from(recordBoards)
      .where(eq(recordBoards.lesson, lesson))
      .orderBy(asc(recordBoards.place));
    return rows.map(({ board: id, place, title, seq }) => ({ id, place, title, seq }));
  }

  /** The boards when the lesson opened, as one, and what was done to them until it closed, in order. */
  async log(record: Named): Promise<{ before: Board; beforeSeq: number; entries: KeptEntry[] }> {
    const boards = await this.boards(record);
    const late = await this.late(record);
    const before: Board[] = [];
    const logs: LogOfBoard[] = [];
    let beforeSeq = 0;
    for (const board of boards) {
      const all = await this.logs.whole(board.id, board.seq);
      if (!all) throw new ProblemError('not-found');
      const first = all.findIndex(({ lesson }) => lesson === record.lesson);
      const earlier = first < 0 ? all : all.slice(0, first);
      before.push(fold(emptyBoard(board.id), earlier));
      beforeSeq = Math.max(beforeSeq, earlier.at(-1)?.seq ?? 0);
      logs.push({
        board,
        entries: [...(first < 0 ? [] : all.slice(first)), ...late(board)],
      });
    }
    return { before: joinBoards(before), beforeSeq, entries: joinLogs(logs, beforeSeq + 1) };
  }

  /**
   * What the tutor added to the record after the lesson, of what students had written while their line was away: of
   * each of its boards, after the last of its entries.
   */
  private async late({ lesson }: Named): Promise<(board: RecordBoardRow) => KeptEntry[]> {
    const [row] = await this.db
      .select({ closedAt: lessons.closedAt })
      .from(lessons)
      .where(eq(lessons.id, lesson));
    const late = await lateEntries(this.db, lesson, row?.closedAt ?? 0);
    return ({ id, seq }) =>
      (late.get(id) ?? []).map((entry, i) => ({ ...entry, seq: seq + 1 + i }));
  }

  /** The boards of a record, each with what it is now; `null` for one that was taken out of its course. */
  async boardsNow(record: Named): Promise<BoardOfRecord[]> {
    const now: BoardOfRecord[] = [];
    for (const { id, title, seq } of await this.boards(record)) {
      const [row] = await this.db
        .select({ title: boards.title })
        .from(boards)
        .where(and(eq(boards.id, id), isNull(boards.removedAt)));
      const goesOn = row && {
        title: row.title,
        same: (await this.logs.lastPlace(id)) <= seq,
      };
      now.push({ board: id, title, goesOn: goesOn ?? null });
    }
    return now;
  }

  /** The boards as they were when the lesson closed, as one, with what was added to the record since. */
  async board(record: Named): Promise<Board> {
    const late = await this.late(record);
    const ends: Board[] = [];
    for (const board of await this.boards(record)) {
      const loaded = await this.logs.load(board.id, board.seq);
      if (!loaded) throw new ProblemError('not-found');
      ends.push(fold(loaded.board, late(board)));
    }
    return joinBoards(ends);
  }

  /** One board of a record as it was when the lesson closed, with what was added to the record since. */
  async oneBoard(record: Named, board: string): Promise<Board | null> {
    const of = (await this.boards(record)).find(({ id }) => id === board);
    const loaded = of && (await this.logs.load(board, of.seq));
    if (!loaded) return null;
    return fold(loaded.board, (await this.late(record))(of));
  }

  /** Changes whenever something is taken out of a record, or added to it. */
  async version(record: Named): Promise<string> {
    const all = await this.boards(record);
    const out = await Promise.all(all.map(({ id, seq }) => this.logs.takenOutOf(id, seq)));
    const late = await this.late(record);
    const count = all.reduce((sum, board) => sum + late(board).length, 0);
    return [...all.flatMap(({ seq }, i) => [seq, out[i]]), count].join('.');
  }
}
