import { isWriting, pack, STORED_VERSION, unpack } from '@cuaderno/core';
import type { Board, Id, KeptEntry, Operation } from '@cuaderno/core';
import { and, asc, count, eq, gt, inArray, isNull, max, ne, or, sql, sum } from 'drizzle-orm';
import { readOperation } from '../boards/operation-check.js';
import { boards, operations } from '../boards/tables.js';
import { courses } from '../courses/tables.js';
import type { Database } from '../database/index.js';
import { lessonBoards, lessons, people } from '../lessons/tables.js';
import { ProblemError } from '../problems/index.js';
import type { LateAnswer, LateLinesShape, OwnLateLines } from '@cuaderno/contract/late-lines';
import { lateLines } from './tables.js';
import type { LateState } from './tables.js';

/** Most late lines of one student of a lesson, and bytes of them: an hour's writing of a quick hand. */
const MOST_LINES = 2000;
const MOST_BYTES = 4_000_000;
/** For how long after a lesson somebody may come back with what they wrote in it, in ms. */
const IN_TIME = 60 * 24 * 3600_000;

/** A student of a lesson, as the browser that came to it then. */
export interface LateWriter {
  readonly lesson: Id;
  readonly course: Id;
  readonly person: Id;
}

/** Late lines of one student of a lesson, on one of its boards. */
interface WrittenLate {
  readonly lesson: Id;
  readonly person: Id;
  readonly board: Id;
}

/**
 * Late lines: what students wrote while their line to the server was away, and could not be taken when they came
 * back, since pens were in or the lesson was closed by then. They wait for the tutor, who adds them or leaves them.
 * That somebody says when they wrote it gains them nothing: no time is asked for, and nothing of it is seen by
 * anyone but the tutor before the tutor adds it.
 */
export class LateLines {
  constructor(private readonly db: Database) {}

  /**
   * Whom this browser was in a lesson. Throws `not-found` where it was nobody of that id, where they weren't let in,
   * never had a pen, or where the lesson is too long ago.
   *
   * @param device SHA-256 of what the browser keeps
   */
  async writer(person: Id, device: string): Promise<LateWriter> {
    const [row] = await this.db
      .select({ person: people, lesson: lessons })
      .from(people)
      .innerJoin(lessons, eq(lessons.id, people.lesson))
      .where(
        and(
          eq(people.id, person),
          eq(people.device, device),
          ne(people.role, 'tutor'),
          eq(people.door, 'in'),
          or(isNull(lessons.closedAt), gt(lessons.closedAt, Date.now() - IN_TIME)),
        ),
      );
    if (!row) throw new ProblemError('not-found');
    const { id: lesson, course } = row.lesson;
    const writer = { lesson, course, person };
    if (!row.person.hadPen && !(await this.wrote(writer))) throw new ProblemError('not-found');
    return writer;
  }

  /**
   * Takes in what a browser kept of a board, in its order. What it offers again is answered as before.
   * Throws `not-found` for a board that the lesson wasn't on.
   */
  async offer(writer: LateWriter, board: Id, ops: readonly Operation[]): Promise<LateAnswer> {
    const { lesson, person } = writer;
    await this.mustBeOn(lesson, board);
    const ids = ops.map(({ id }) => id);
    const [kept, known, taken] = await Promise.all([
      this.onBoard(board, person, ids),
      this.among(lesson, ids),
      this.taken(lesson, person),
    ]);
    const answer: LateAnswer = { waiting: [], kept: [], refused: [] };
    let { bytes, lines, last } = taken;
    const rows: (typeof lateLines.$inferInsert)[] = [];
    const seen = new Set<Id>();
    for (const op of ops) {
      if (seen.has(op.id)) continue;
      seen.add(op.id);
      if (kept.has(op.id)) answer.kept.push(op.id);
      else if (known.has(op.id))
        // An id is bound to who used it first.
        answer[known.get(op.id) === person ? 'waiting' : 'refused'].push(op.id);
      else if (!isWriting(op)) answer.refused.push(op.id);
      else {
        const body = Buffer.from(pack(op));
        if (lines + 1 > MOST_LINES || bytes + body.length > MOST_BYTES) {
          answer.refused.push(op.id);
          continue;
        }
        lines++;
        bytes += body.length;
        rows.push({
          ...{ lesson, id: op.id, person, number: ++last, board, page: op.page, at: Date.now() },
          ...{ version: STORED_VERSION, body },
        });
        answer.waiting.push(op.id);
      }
    }
    if (rows.length > 0) await this.db.insert(lateLines).values(rows).onConflictDoNothing();
    return answer;
  }

  /** What waits for a tutor, the newest first. */
  async waiting(tutor: Id): Promise<LateLinesShape[]> {
    const rows = await this.db
      .select({
        lesson: lessons.id,
        person: people.id,
        name: people.name,
        nameOrdinal: people.nameOrdinal,
        course: courses.id,
        courseName: courses.name,
        board: boards.id,
        title: boards.title,
        openedAt: lessons.openedAt,
        closedAt: lessons.closedAt,
        count: count(),
        at: max(lateLines.at).mapWith(Number),
      })
      .from(lateLines)
      .innerJoin(lessons, eq(lessons.id, lateLines.lesson))
      .innerJoin(courses, eq(courses.id, lessons.course))
      .innerJoin(boards, eq(boards.id, lateLines.board))
      .innerJoin(people, and(eq(people.lesson, lateLines.lesson), eq(people.id, lateLines.person)))
      .where(and(eq(courses.tutor, tutor), eq(lateLines.state, 'waiting')))
      .groupBy(lateLines.lesson, lateLines.person, lateLines.board);
    return rows.sort((a, b) => b.at - a.at);
  }

  /**
   * What one student of a lesson wrote late on one of its boards, as long as it waits, in its order.
   * Throws `not-found` where this tutor has no such lesson, or nothing waits.
   */
  async of(
    tutor: Id,
    { lesson, person, board }: WrittenLate,
  ): Promise<{
    readonly writer: LateWriter & { readonly closedAt: number | null };
    ops: Operation[];
  }> {
    const [row] = await this.db
      .select({ lesson: lessons })
      .from(lessons)
      .innerJoin(courses, eq(courses.id, lessons.course))
      .where(and(eq(lessons.id, lesson), eq(courses.tutor, tutor)));
    if (!row) throw new ProblemError('not-found');
    const rows = await this.db
      .select({ version: lateLines.version, body: lateLines.body })
      .from(lateLines)
      .where(
        and(
          eq(lateLines.lesson, lesson),
          eq(lateLines.person, person),
          eq(lateLines.board, board),
          eq(lateLines.state, 'waiting'),
        ),
      )
      .orderBy(asc(lateLines.number));
    if (rows.length === 0) throw new ProblemError('not-found');
    const { course, closedAt } = row.lesson;
    return {
      writer: { lesson, course, person, closedAt },
      ops: rows.flatMap((row) => operationOf(row) ?? []),
    };
  }

  /** From now on they don't wait any more. */
  async settle(
    { lesson, person, board }: WrittenLate,
    ids: readonly Id[],
    state: Exclude<LateState, 'waiting'>,
  ): Promise<void> {
    if (ids.length === 0) return;
    await this.db
      .update(lateLines)
      .set({ state })
      .where(
        and(
          eq(lateLines.lesson, lesson),
          eq(lateLines.person, person),
          eq(lateLines.board, board),
          eq(lateLines.state, 'waiting'),
          sql`${lateLines.id} IN (SELECT value FROM json_each(${JSON.stringify(ids)}))`,
        ),
      );
  }

  /** The browser by which somebody wrote, SHA-256 of what it keeps; `null` where that isn't known any more. */
  async deviceOf(lesson: Id, person: Id): Promise<string | null> {
    const [row] = await this.db
      .select({ device: people.device })
      .from(people)
      .where(and(eq(people.lesson, lesson), eq(people.id, person)));
    return row?.device ?? null;
  }

  /** What waits of what was written by this browser, and what became of the rest since it was told. */
  async own(device: string): Promise<OwnLateLines[]> {
    const rows = await this.db
      .select({
        lesson: lessons.id,
        courseName: courses.name,
        openedAt: lessons.openedAt,
        state: lateLines.state,
        count: count(),
      })
      .from(lateLines)
      .innerJoin(people, and(eq(people.lesson, lateLines.lesson), eq(people.id, lateLines.person)))
      .innerJoin(lessons, eq(lessons.id, lateLines.lesson))
      .innerJoin(courses, eq(courses.id, lessons.course))
      .where(and(eq(people.device, device), eq(lateLines.told, false)))
      .groupBy(lateLines.lesson, lateLines.state);
    const own = new Map<Id, OwnLateLines>();
    for (const { lesson, courseName, openedAt, state, count } of rows) {
      const one = own.get(lesson) ?? {
        lesson,
        courseName,
        openedAt,
        waiting: 0,
        added: 0,
        left: 0,
      };
      const as = state === 'waiting' || state === 'left' ? state : 'added';
      own.set(lesson, { ...one, [as]: one[as] + count });
    }
    return [...own.values()].sort((a, b) => b.openedAt - a.openedAt);
  }

  /** The student has read what became of them. */
  async told(device: string): Promise<void> {
    await this.db
      .update(lateLines)
      .set({ told: true })
      .where(
        and(
          ne(lateLines.state, 'waiting'),
          inArray(
            lateLines.person,
            this.db.select({ id: people.id }).from(people).where(eq(people.device, device)),
          ),
        ),
      );
  }

  private async mustBeOn(lesson: Id, board: Id): Promise<void> {
    const [row] = await this.db
      .select({ board: lessonBoards.board })
      .from(lessonBoards)
      .where(and(eq(lessonBoards.lesson, lesson), eq(lessonBoards.board, board)));
    if (!row) throw new ProblemError('not-found');
  }

  private async wrote({ lesson, person }: LateWriter): Promise<boolean> {
    const [row] = await this.db
      .select({ seq: operations.seq })
      .from(operations)
      .innerJoin(boards, eq(boards.num, operations.board))
      .innerJoin(lessonBoards, eq(lessonBoards.board, boards.id))
      .where(
        and(
          eq(lessonBoards.lesson, lesson),
          eq(operations.by, person),
          eq(operations.lesson, lesson),
        ),
      )
      .limit(1);
    return row !== undefined;
  }

  /** Which of these are on the board, as theirs. */
  private async onBoard(board: Id, person: Id, ids: readonly Id[]): Promise<Set<Id>> {
    const rows = await this.db
      .select({ id: operations.id })
      .from(operations)
      .innerJoin(boards, eq(boards.num, operations.board))
      .where(
        and(eq(boards.id, board), eq(operations.by, person), inArray(operations.id, [...ids])),
      );
    return new Set(rows.map(({ id }) => id));
  }

  /** Whose those of these are that came before. */
  private async among(lesson: Id, ids: readonly Id[]): Promise<Map<Id, Id>> {
    const rows = await this.db
      .select({ id: lateLines.id, person: lateLines.person })
      .from(lateLines)
      .where(and(eq(lateLines.lesson, lesson), inArray(lateLines.id, [...ids])));
    return new Map(rows.map(({ id, person }) => [id, person]));
  }

  private async taken(
    lesson: Id,
    person: Id,
  ): Promise<{ lines: number; bytes: number; last: number }> {
    const [row] = await this.db
      .select({
        lines: count(),
        bytes: sum(sql`length(${lateLines.body})`).mapWith(Number),
        last: max(lateLines.number),
      })
      .from(lateLines)
      .where(and(eq(lateLines.lesson, lesson), eq(lateLines.person, person)));
    return { lines: row?.lines ?? 0, bytes: row?.bytes ?? 0, last: row?.last ?? 0 };
  }
}

/** An entry of a record that has no place in its board's log. */
export type LateEntry = Omit<KeptEntry, 'seq'>;

/**
 * What was added to a lesson's record after it, by board: in the order of its students, as if written when the lesson
 * closed.
 *
 * @param at when the lesson closed, in ms since 1970
 */
export async function lateEntries(
  db: Database,
  lesson: string,
  at: number,
): Promise<Map<Id, LateEntry[]>> {
  const rows = await db
    .select({
      board: lateLines.board,
      person: lateLines.person,
      version: lateLines.version,
      body: lateLines.body,
    })
    .from(lateLines)
    .where(and(eq(lateLines.lesson, lesson), eq(lateLines.state, 'record')))
    .orderBy(asc(lateLines.person), asc(lateLines.number));
  const entries = new Map<Id, LateEntry[]>();
  for (const { board, person: by, ...row } of rows) {
    const op = operationOf(row);
    const here = entries.get(board) ?? [];
    entries.set(board, here);
    if (op) here.push({ by, at, lesson, op });
  }
  return entries;
}

/** Those that have a place on the board: their page is there. What lay on a sheet that isn't, lies on the page. */
export function withPlace(ops: readonly Operation[], board: Board): Operation[] {
  return ops.flatMap((op) => {
    const page = 'page' in op ? board.pages.get(op.page) : undefined;
    if (!page || page.removed) return [];
    if (op.kind !== 'ink.add' || !op.on) return [op];
    const sheet = page.items.get(op.on);
    if (sheet && !sheet.removed) return [op];
    return [{ ...op, on: undefined }];
  });
}

function operationOf({ version, body }: { version: number; body: Uint8Array }): Operation | null {
  try {
    return readOperation(unpack(body), version);
  } catch {
    return null;
  }
}
