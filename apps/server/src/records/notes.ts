import { newestOf, newId } from '@cuaderno/core';
import type { Id } from '@cuaderno/core';
import { and, asc, eq, inArray } from 'drizzle-orm';
import { courses } from '../courses/tables.js';
import type { Database } from '../database/index.js';
import { lessons } from '../lessons/tables.js';
import { ProblemError } from '../problems/index.js';
import type { ListedRecord, Note, NoteKind, RecordInfo } from '@cuaderno/contract/records';
import { recordNotes } from './tables.js';
import { forget, wordRow } from './words.js';

/** What a tutor writes of a lesson, while it goes on or afterwards: a summary, and what to do until next time. */
export class RecordNotes {
  constructor(private readonly db: Database) {}

  /** Every version of them, in the order in which they were written. Throws `not-found`. */
  async all(lesson: Id, tutor: Id): Promise<Note[]> {
    await this.own(lesson, tutor);
    const rows = await this.db
      .select()
      .from(recordNotes)
      .where(eq(recordNotes.lesson, lesson))
      .orderBy(asc(recordNotes.at), asc(recordNotes.id));
    return rows.map(({ id, kind, text, at, follows }) => ({
      ...{ id, kind, text, at },
      follows: follows === '' ? null : follows,
    }));
  }

  /** Records with the newest of what their tutor wrote of them. */
  async listed(infos: readonly RecordInfo[]): Promise<ListedRecord[]> {
    const lessons = infos.map(({ lesson }) => lesson);
    const rows = lessons.length
      ? await this.db.select().from(recordNotes).where(inArray(recordNotes.lesson, lessons))
      : [];
    const newest = (lesson: string, kind: NoteKind): string =>
      newestOf(rows.filter((row) => row.lesson === lesson && row.kind === kind))?.text ?? '';
    return infos.map((info) => ({
      ...info,
      hasSummary: newest(info.lesson, 'summary') !== '',
      until: newest(info.lesson, 'until') || null,
    }));
  }

  /**
   * Writes one, or amends it.
   *
   * @param follows the version that is amended; `null` for the first. Throws `note-amended` where another
   *   amended it meanwhile, and `not-found`.
   */
  async write(
    lesson: Id,
    tutor: Id,
    { kind, text, follows }: { kind: NoteKind; text: string; follows: Id | null },
  ): Promise<Note> {
    const known = (await this.all(lesson, tutor)).filter((note) => note.kind === kind);
    const newest = newestOf(known);
    if ((newest?.id ?? null) !== follows) throw new ProblemError('note-amended');
    const note: Note = { id: newId(), kind, text: text.trim(), at: Date.now(), follows };
    if (note.text === (newest?.text ?? '')) return newest ?? note;
    const { id, at } = note;
    try {
      await this.db.raw([
        {
          sql: 'INSERT INTO record_notes (id, lesson, kind, text, "by", at, follows) VALUES (?, ?, ?, ?, ?, ?, ?)',
          params: [id, lesson, kind, note.text, tutor, at, follows ?? ''],
        },
        forget(lesson, [kind]),
        ...(note.text === ''
          ? []
          : [wordRow({ lesson, source: kind, page: null, number: null, said: note.text })]),
      ]);
    } catch (error) {
      // Two wrote at the same moment: one of them was first.
      if (/UNIQUE/.test(String(error))) throw new ProblemError('note-amended');
      throw error;
    }
    return note;
  }

  private async own(lesson: Id, tutor: Id): Promise<void> {
    const [row] = await this.db
      .select({ id: lessons.id })
      .from(lessons)
      .innerJoin(courses, eq(courses.id, lessons.course))
      .where(and(eq(lessons.id, lesson), eq(courses.tutor, tutor)));
    if (!row) throw new ProblemError('not-found');
  }
}
