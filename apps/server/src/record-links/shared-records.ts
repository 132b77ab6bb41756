import { ANY_STUDENT, boardFor, nameOf, newestOf, pagesInOrder, placeOf } from '@cuaderno/core';
import type { Attendance } from '@cuaderno/contract/records';
import type { RecordNotes } from '../records/notes.js';
import type { Records } from '../records/service.js';
import { ProblemError } from '../problems/index.js';
import type { OpenLink } from './record-links.js';
import type { SharedList, SharedRecord } from '@cuaderno/contract/record-links';

/** What others are called where their names aren't shown. */
const OTHER = 'another student';
/** Records of a course that a link lists at most. */
const LISTED = 500;

/** What anyone who has a link sees: what students see, and no more names than the tutor wished. */
export class SharedRecords {
  constructor(
    private readonly records: Records,
    private readonly notes: RecordNotes,
  ) {}

  async list(link: OpenLink): Promise<SharedList> {
    const of = link.lesson ? { lessons: [link.lesson] } : { course: link.course };
    const found = await this.records.of(of, LISTED);
    return {
      tutor: link.tutorName,
      course: link.courseName,
      forWhom: link.forWhom,
      may: link.may,
      until: link.untilAt,
      all: link.lesson === null,
      records: found.map(({ lesson, title, openedAt, closedAt }) => ({
        lesson,
        title,
        openedAt,
        closedAt,
      })),
    };
  }

  /** The record, if the link leads to it. Throws `not-found`. */
  async record(link: OpenLink, lesson: string): Promise<Awaited<ReturnType<Records['one']>>> {
    const record = await this.records.one(lesson, link.tutor);
    const leads = link.lesson ? link.lesson === lesson : record.course === link.course;
    if (!leads) throw new ProblemError('not-found');
    return record;
  }

  async one(link: OpenLink, lesson: string): Promise<SharedRecord> {
    const record = await this.record(link, lesson);
    const [board, boards, people, { chat }] = await Promise.all([
      this.records.board(record),
      this.records.boards(record),
      this.records.attendance(lesson, record.closedAt),
      this.records.timeline(lesson),
    ]);
    const { summary, until } = await this.noted(link, lesson);
    const called = names(link, people);
    const here = people.filter(({ role }) => role === 'student').map(({ id }) => called(id));
    return {
      lesson,
      title: record.title,
      openedAt: record.openedAt,
      closedAt: record.closedAt,
      pages: pagesInOrder(boardFor(board, ANY_STUDENT)).map((page, i, all) => {
        const { name, width, height } = page;
        const place = placeOf(page);
        const begins = boards.length > 1 && (i === 0 || placeOf(all[i - 1]!) !== place);
        return { name, width, height, board: begins ? (boards[place]?.title ?? null) : null };
      }),
      summary,
      until,
      people: here.filter((name) => name !== OTHER),
      others: here.filter((name) => name === OTHER).length,
      // What was said to one person alone is theirs.
      chat: chat
        .filter(({ to }) => to === 'all')
        .map(({ by, text, at }) => ({ by: called(by), text, at })),
    };
  }

  /** What was noted of the lesson, as it is now. */
  async noted(link: OpenLink, lesson: string): Promise<{ summary: string; until: string }> {
    const all = await this.notes.all(lesson, link.tutor);
    const of = (kind: 'summary' | 'until'): string =>
      newestOf(all.filter((note) => note.kind === kind))?.text ?? '';
    return { summary: of('summary'), until: of('until') };
  }
}

/** What people are called for anyone who has the link. */
function names(link: OpenLink, people: readonly Attendance[]): (id: string) => string {
  const known = new Map(
    people.map((person) => {
      const own = person.role === 'tutor' || person.name === link.student;
      return [person.id, link.names === 'all' || own ? nameOf(person) : OTHER] as const;
    }),
  );
  return (id) => known.get(id) ?? OTHER;
}
