import { isNamedIn, newId, newestOf, renamedIn, SAID_SOURCES } from '@cuaderno/core';
import type { Id, SaidSource } from '@cuaderno/core';
import { asc, desc, eq, inArray } from 'drizzle-orm';
import PQueue from 'p-queue';
import { boards } from '../boards/tables.js';
import type { LogStore } from '../boards/log-store.js';
import { dropCopies } from '../database/copies.js';
import type { Database, Query } from '../database/index.js';
import { recordBoards } from '../lessons/tables.js';
import { LISTED } from '../live/features/kept-part.js';
import { redactKept } from '../live/features/kept.js';
import type { LessonBus } from '../live/lesson-bus.js';
import { assets } from '../materials/tables.js';
import { ProblemError } from '../problems/index.js';
import type { SharedPages } from '../record-links/shared-pages.js';
import type { RecordIndexer } from '../records/record-indexer.js';
import { recordNotes, records } from '../records/tables.js';
import { forget, wordRow } from '../records/words.js';
import type { TakenFromBoard } from './take-out-worker.js';
import type { BoardRedactor } from './board-redactor.js';
import type { Mention, MentionedLink } from './mentions.js';
import type { Deletion, DeletionReport, DeletionWish, Seat } from '@cuaderno/contract/student-data';
import type { StudentsData } from './student-data.js';
import { deletions } from './tables.js';

/** What a deletion reaches. */
interface Reach {
  readonly seats: readonly Seat[];
  /** All ids under which they wrote. */
  readonly wrote: readonly Id[];
  /** Courses of which nobody else of the name is. */
  readonly alone: readonly Id[];
  readonly affected: readonly { readonly num: number; readonly id: Id; readonly title: string }[];
  /** Whether somebody else of the name is in any course. */
  readonly othersStay: boolean;
}

/**
 * Deletes what there is of a student. All of it is one commit: a server that is stopped half way has done nothing,
 * and what came after it (words and statistics of the records, pictures of pages) is made anew at its next start.
 */
export class Deleting {
  private readonly turns = new PQueue({ concurrency: 1 });

  constructor(
    private readonly parts: {
      readonly db: Database;
      readonly bus: LessonBus;
      readonly logs: LogStore;
      readonly redactor: BoardRedactor;
      readonly indexing: RecordIndexer;
      readonly sharedPages: SharedPages;
      readonly data: StudentsData;
      /** The folder that holds everything. */
      readonly folder: string;
    },
  ) {}

  /** Reports of what was done, the newest first. */
  async of(tutor: Id): Promise<Deletion[]> {
    const rows = await this.parts.db
      .select()
      .from(deletions)
      .where(eq(deletions.tutor, tutor))
      .orderBy(desc(deletions.number));
    return rows.map(({ id, at, report }) => ({ id, at, report }));
  }

  /**
   * One after the other.
   * Throws `not-found` where this tutor has no such student, and `student-in-lesson` while they are in an open one.
   */
  delete(tutor: Id, wish: DeletionWish): Promise<Deletion> {
    return this.turns.add(() => this.work(tutor, wish));
  }

  private async work(tutor: Id, wish: DeletionWish): Promise<Deletion> {
    const { db, data, bus, indexing, sharedPages } = this.parts;
    const wanted = new Set(wish.people);
    const all = await data.seats(tutor, wish.name);
    const seats = all.filter(({ person }) => wanted.has(person));
    if (seats.length < wanted.size) throw new ProblemError('not-found');
    if (seats.some(({ open }) => open)) throw new ProblemError('student-in-lesson');
    // Where others of that name stay in a course, what only names them may be about either.
    const stay = new Set(all.filter(({ person }) => !wanted.has(person)).map((one) => one.course));
    const there = [...new Set(seats.map(({ course }) => course))];
    const alone = there.filter((course) => !stay.has(course));
    const wrote = [...wanted, ...(await this.namedByFiles(alone, wish.name))];
    const affected = await this.boardsOf(tutor, wrote, there);
    // What is being written down of a record just now has still seen it all.
    await indexing.settled();
    const { deletion, lessons } = await bus.shut(
      affected.map(({ id }) => id),
      () => this.commit(tutor, wish, { seats, wrote, alone, affected, othersStay: stay.size > 0 }),
    );
    await indexing.settled();
    for (const lesson of lessons) {
      // Somebody may have looked at one meanwhile.
      await sharedPages.forget(lesson);
      indexing.queue(lesson);
    }
    await indexing.settled();
    await this.sweep(db);
    return deletion;
  }

  /** Who has the name on boards of these courses that came as files. */
  private async namedByFiles(courseIds: readonly Id[], name: string): Promise<Id[]> {
    const [rows] = await this.parts.db.raw([
      {
        sql: `SELECT DISTINCT person FROM board_writers
          WHERE name = ? AND board IN (SELECT id FROM boards WHERE course ${LISTED})`,
        params: [name, JSON.stringify(courseIds)],
      },
    ]);
    return (rows as [Id][]).map(([person]) => person);
  }

  /** Boards on which they wrote, and all others of their courses. */
  private async boardsOf(
    tutor: Id,
    people: readonly Id[],
    courseIds: readonly Id[],
  ): Promise<{ num: number; id: Id; title: string }[]> {
    const [rows] = await this.parts.db.raw([
      {
        sql: `SELECT b.num FROM boards b JOIN courses c ON c.id = b.course
          WHERE c.tutor = ? AND (b.course ${LISTED}
            OR EXISTS (SELECT 1 FROM operations o WHERE o.board = b.num AND o."by" ${LISTED}))`,
        params: [tutor, JSON.stringify(courseIds), JSON.stringify(people)],
      },
    ]);
    const nums = (rows as [number][]).map(([num]) => num);
    if (nums.length === 0) return [];
    return this.parts.db
      .select({ num: boards.num, id: boards.id, title: boards.title })
      .from(boards)
      .where(inArray(boards.num, nums))
      .orderBy(asc(boards.num));
  }

  private async commit(
    tutor: Id,
    { name, ink, named }: DeletionWish,
    { seats, wrote, alone, affected, othersStay }: Reach,
  ): Promise<{ deletion: Deletion; lessons: Id[] }> {
    const { db, redactor, data, logs, sharedPages } = this.parts;
    const people = seats.map(({ person }) => person);
    const found = await redactor.takeOut({
      ...{ port: db.lend(), boards: affected, people: wrote, ink: ink === 'take-out', name },
    });
    const taken = found.filter(({ out }) => out.length > 0);
    const [last] = await db
      .select({ number: deletions.number })
      .from(deletions)
      .where(eq(deletions.tutor, tutor))
      .orderBy(desc(deletions.number))
      .limit(1);
    const number = (last?.number ?? 0) + 1;
    const alias = `Former student ${number}`;
    const at = Date.now();

    const links = await data.mentions.links(alone, name);
    const letters = await this.lettersWith(tutor, links);
    const mentions = named
      ? (await data.mentions.of(othersStay ? null : tutor, alone, name)).filter(
          ({ id }) => !letters.includes(id as Id),
        )
      : [];
    const lessons = await this.lessonsOf(taken, seats, mentions);
    for (const lesson of lessons) await sharedPages.forget(lesson);
    const list = JSON.stringify(people);
    const ids = (some: readonly { id: unknown }[]): string =>
      JSON.stringify(some.map(({ id }) => id));
    const counted = {
      said: sumOf(seats.map(({ said }) => said)),
      guestLinks: await this.count(
        `guest_links WHERE id IN (SELECT guest FROM people WHERE id ${LISTED})`,
        [list],
      ),
      browsers: await this.count(`known_devices WHERE course ${LISTED} AND name = ?`, [
        ...[JSON.stringify(alone), name],
      ]),
    };
    const report: DeletionReport = {
      alias,
      courses: [...new Set(seats.map(({ courseName }) => renamedIn(courseName, name, alias)))],
      lessons: new Set(seats.map(({ lesson }) => lesson)).size,
      ink,
      boards: taken.length,
      entries: taken.reduce((sum, { out }) => sum + out.length, 0),
      ...counted,
      links: links.length,
      letters: letters.length,
      renamed: mentions.length,
      left: await this.left(tutor, affected, found, name, alias),
    };
    const deletion: Deletion = { id: newId(), at, report };
    await db.raw([
      ...taken.flatMap(({ num, out, last: seq }) =>
        logs.takingOut(num, out, seq, { by: tutor, at }),
      ),
      {
        sql: `UPDATE guest_links SET guest = ?, device = NULL, ended_at = coalesce(ended_at, ?)
          WHERE id IN (SELECT guest FROM people WHERE id ${LISTED})`,
        params: [alias, at, list],
      },
      {
        sql: `UPDATE board_writers SET name = ?, name_ordinal = 1
          WHERE name = ? AND board IN (SELECT id FROM boards WHERE course ${LISTED})`,
        params: [alias, name, JSON.stringify(alone)],
      },
      {
        sql: `DELETE FROM known_devices WHERE course ${LISTED} AND name = ?`,
        params: [JSON.stringify(alone), name],
      },
      {
        sql: `DELETE FROM hand_overs WHERE name = ?2
          AND device IN (SELECT device FROM people WHERE id ${LISTED.replace('?', '?1')})`,
        params: [list, name],
      },
      {
        sql: `DELETE FROM hand_over_fetches WHERE name = ?2
          AND device IN (SELECT device FROM people WHERE id ${LISTED.replace('?', '?1')})`,
        params: [list, name],
      },
      {
        sql: `UPDATE people SET name = ?, name_ordinal = 1, device = NULL, guest = NULL WHERE id ${LISTED}`,
        params: [alias, list],
      },
      ...redactKept(list),
      {
        // What waits belongs to nobody any more; what lies in a record stays there, as ink does, unless it is taken out.
        sql: `DELETE FROM late_lines WHERE person ${LISTED}${ink === 'take-out' ? '' : " AND state <> 'record'"}`,
        params: [list],
      },
      { sql: `DELETE FROM link_openings WHERE link ${LISTED}`, params: [ids(links)] },
      { sql: `DELETE FROM record_links WHERE id ${LISTED}`, params: [ids(links)] },
      { sql: `DELETE FROM letters WHERE id ${LISTED}`, params: [JSON.stringify(letters)] },
      ...data.mentions.renaming(mentions, name, alias),
      ...lessons.map((lesson) => forget(lesson, ['page', ...SAID_SOURCES])),
      {
        sql: `UPDATE records SET whole_at = NULL, statistics = NULL WHERE lesson ${LISTED}`,
        params: [JSON.stringify(lessons)],
      },
      ...(named ? await this.wordsOfNotes(alone, name, alias) : []),
      {
        sql: 'INSERT INTO deletions (id, tutor, number, at, report) VALUES (?, ?, ?, ?, ?)',
        params: [deletion.id, tutor, number, at, JSON.stringify(report)],
      },
    ]);
    return { deletion, lessons };
  }

  private async count(what: string, params: unknown[]): Promise<number> {
    const [rows] = await this.parts.db.raw([{ sql: `SELECT count(*) FROM ${what}`, params }]);
    return (rows as [number][])[0]![0];
  }

  /** Letters that brought these links. */
  private async lettersWith(tutor: Id, links: readonly MentionedLink[]): Promise<Id[]> {
    const [rows] = await this.parts.db.raw([
      {
        sql: `SELECT id FROM letters WHERE tutor = ?
          AND EXISTS (SELECT 1 FROM json_each(?) WHERE instr(letters.body, value) > 0)`,
        params: [tutor, JSON.stringify(links.map(({ token }) => token))],
      },
    ]);
    return (rows as [Id][]).map(([id]) => id);
  }

  /**
   * Lessons whose records are other than they were: on these boards, with the student in them, or with their name in
   * the chat.
   */
  private async lessonsOf(
    taken: readonly TakenFromBoard[],
    seats: readonly Seat[],
    mentions: readonly Mention[],
  ): Promise<Id[]> {
    const onBoards = await this.parts.db
      .selectDistinct({ lesson: recordBoards.lesson })
      .from(recordBoards)
      .where(inArray(recordBoards.board, ['', ...taken.map(({ id }) => id)]));
    const named = await this.parts.data.mentions.lessonsOf(mentions);
    const all = [...onBoards, ...seats].map(({ lesson }) => lesson);
    return [...new Set([...all, ...named])];
  }

  /** Notes are found by their newest versions. */
  private async wordsOfNotes(
    courseIds: readonly Id[],
    name: string,
    alias: string,
  ): Promise<Query[]> {
    const [rows] = await this.parts.db.raw([
      {
        sql: `SELECT DISTINCT lesson FROM record_notes
          WHERE lesson IN (SELECT id FROM lessons WHERE course ${LISTED}) AND instr(text, ?) > 0`,
        params: [JSON.stringify(courseIds), name],
      },
    ]);
    const statements: Query[] = [];
    for (const [lesson] of rows as [Id][]) {
      const all = await this.parts.db
        .select()
        .from(recordNotes)
        .where(eq(recordNotes.lesson, lesson))
        .orderBy(asc(recordNotes.at), asc(recordNotes.id));
      statements.push(forget(lesson, ['summary', 'until']));
      for (const kind of ['summary', 'until'] as const) {
        const newest = newestOf(
          all
            .filter((note) => note.kind === kind)
            .map((note) => ({ ...note, follows: note.follows === '' ? null : note.follows })),
        );
        const said = renamedIn(newest?.text ?? '', name, alias);
        if (said !== '')
          statements.push(wordRow({ lesson, source: kind, page: null, number: null, said }));
      }
    }
    return statements;
  }

  /** Where only the tutor can say what is to stand there instead. */
  private async left(
    tutor: Id,
    affected: readonly { id: Id; title: string }[],
    found: readonly TakenFromBoard[],
    name: string,
    alias: string,
  ): Promise<DeletionReport['left']> {
    const { db } = this.parts;
    const plain = (title: string): string => renamedIn(title, name, alias);
    const titles = new Map(affected.map(({ id, title }) => [id, title]));
    const left: DeletionReport['left'] = found
      .filter(({ named }) => named.length > 0)
      .map(({ id, named }) => ({
        ...{ where: 'page' as const, title: plain(titles.get(id) ?? ''), pages: [...named] },
      }));
    const add = (where: 'board' | 'record' | 'material', all: readonly string[]): void => {
      for (const title of all)
        if (isNamedIn(title, name)) left.push({ where, title: plain(title), pages: [] });
    };
    add('board', [...titles.values()]);
    const sealed = await db
      .select({ title: records.title })
      .from(records)
      .innerJoin(recordBoards, eq(recordBoards.lesson, records.lesson))
      .where(inArray(recordBoards.board, ['', ...titles.keys()]));
    add('record', [...new Set(sealed.map(({ title }) => title))]);
    const shelf = await db
      .select({ name: assets.name })
      .from(assets)
      .where(eq(assets.tutor, tutor));
    add(
      'material',
      shelf.map((asset) => asset.name),
    );
    return left;
  }

  /** What was deleted isn't to be found in the database's files either. */
  private async sweep(db: Database): Promise<void> {
    await db.raw([
      { sql: "INSERT INTO record_index (record_index) VALUES ('optimize')", params: [] },
    ]);
    await db.raw([{ sql: 'PRAGMA wal_checkpoint(TRUNCATE)', params: [] }]);
    await dropCopies(this.parts.folder);
  }
}

/** What was said, of several taken together. */
function sumOf(all: readonly Seat['said'][]): Seat['said'] {
  const sums: Partial<Record<SaidSource, number>> = {};
  for (const source of SAID_SOURCES)
    sums[source] = all.reduce((sum, said) => sum + (said[source] ?? 0), 0);
  return sums;
}
