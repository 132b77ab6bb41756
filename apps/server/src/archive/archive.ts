import { newestOf } from '@cuaderno/core';
import type { Id, RecordTimeline } from '@cuaderno/core';
import { writeCompletedLessons, writeICalendar } from '@cuaderno/formats/icalendar';
import type { FastifyInstance } from 'fastify';
import { DateTime } from 'luxon';
import { open } from 'node:fs/promises';
import type { Tutor } from '../accounts/index.js';
import type { Course } from '../courses/service.js';
import { completedLessons } from '../hours/completed-lessons.js';
import { hoursTable } from '../hours/hours-table.js';
import { dayIn } from '../live/features/times.js';
import { KEPT_FILES, timelineOf } from '../live/features/kept.js';
import { APPENDIX } from '@cuaderno/contract/records';
import { appendixOf } from '../records/appendix.js';
import { attendanceTable } from '../records/attendance-table.js';
import type { Attendance, RecordInfo } from '@cuaderno/contract/records';
import { signersOf } from '../records/signers.js';
import { ENDINGS } from '../files/endings.js';
import { Paths, safe } from './zip.js';
import type { ArchiveEntry } from './zip.js';

/** Records in one archive at most. */
const MOST = 5000;
const FAR = 8.64e15;

export interface ArchiveWish {
  readonly tutor: Pick<Tutor, 'id' | 'name'>;
  /** Those that it is about. */
  readonly courses: readonly Pick<Course, 'id' | 'name'>[];
  /** Only what is of students of this name. */
  readonly student: string | null;
  /** IANA name of the time zone in which times are said. */
  readonly zone: string;
  /** Aborted when nobody waits for it any more. */
  readonly signal: AbortSignal;
}

/** Everything of a course, or of a student in the courses of a tutor, one piece after the other. */
export class Archive {
  private readonly paths = new Paths();
  /** What could not be made, in words. */
  private readonly missing: string[] = [];

  constructor(
    private readonly app: FastifyInstance,
    private readonly wish: ArchiveWish,
  ) {}

  /** Told what could not be made: the archive says so itself. */
  failed(path: string): void {
    this.missing.push(path);
  }

  async *entries(): AsyncGenerator<ArchiveEntry> {
    const { courses, student } = this.wish;
    yield this.text('', 'About this archive', '.txt', () => this.about());
    for (const course of courses) {
      const folder = courses.length > 1 ? `${safe(course.name)}/` : '';
      yield* this.records(course, folder);
      yield this.text(folder, 'Attendance', '.csv', () => this.attendance(course));
      if (student !== null) continue;
      yield this.text(folder, 'Hours', '.csv', () => this.hours(course));
      yield this.text(folder, 'Timetable', '.ics', () => this.timetable(course));
      yield this.text(folder, 'Lessons', '.ics', () => this.lessonCalendar(course));
      yield* this.boards(course, `${folder}Boards/`);
      yield* this.materials(course, `${folder}Materials/`);
      yield* this.filesOnBoards(course, `${folder}Files on boards/`);
    }
    if (this.missing.length > 0)
      yield this.text('', 'Not in this archive', '.txt', () =>
        Promise.resolve(
          `These could not be made. They are safe in Cuaderno: try again, or save them one by one.\n\n${this.missing.join('\n')}\n`,
        ),
      );
  }

  private async *records(course: Pick<Course, 'id'>, within: string): AsyncGenerator<ArchiveEntry> {
    const { student, tutor, zone } = this.wish;
    const found = (await this.app.records.of({ course: course.id }, MOST)).reverse();
    for (const info of found) {
      if (student !== null && !info.people.includes(student)) continue;
      const day = DateTime.fromMillis(info.openedAt, { zone }).toISODate()!;
      const folder = `${this.paths.free(`${within}Records/`, `${day} ${info.title}`, '')}/`;
      yield { path: `${folder}record.pdf`, packed: true, bytes: () => this.pdf(info) };
      const record = await this.app.records.one(info.lesson, tutor.id);
      const people = await this.app.records.attendance(record.lesson, record.closedAt);
      const timeline = await this.timeline(info.lesson, people);
      for (const file of KEPT_FILES)
        if (!file.isEmpty(timeline))
          yield this.text(folder, file.name, file.ending, () =>
            Promise.resolve(file.write(timeline, { record, people, zone })),
          );
    }
  }

  private async pdf({ lesson }: RecordInfo): Promise<Uint8Array> {
    const { app } = this;
    const { tutor, zone, signal, student } = this.wish;
    const record = await app.records.one(lesson, tutor.id);
    const people = await app.records.attendance(lesson, record.closedAt);
    const boards = (await app.records.boards(record)).map(({ id }) => id);
    const notes = await app.recordNotes.all(lesson, tutor.id);
    const noted = (kind: 'summary' | 'until'): string =>
      newestOf(notes.filter((note) => note.kind === kind))?.text ?? '';
    const content = {
      record,
      people: people.filter((person) => this.isMeant(person) || person.role === 'tutor'),
      timeline: await this.timeline(lesson, people),
      ...{ summary: noted('summary'), until: noted('until') },
    };
    return app.boardPdfs.make(
      {
        ...{ port: app.db.lend(), of: { record: record.lesson }, ink: 'annotations' },
        people: signersOf(people, student === null ? await app.boardWriters.ofAll(boards) : []),
        only:
          student === null ? null : people.filter((one) => this.isMeant(one)).map(({ id }) => id),
        forStudents: student !== null,
        appendix: appendixOf(new Set(APPENDIX), content, zone),
        ...{ title: `${record.courseName} – ${record.title}`, author: tutor.name },
        ...{ date: record.sealedAt, files: app.files.folder },
      },
      signal,
    );
  }

  /** All of it; of a student what they said, and what was said to them. */
  private async timeline(lesson: string, people: readonly Attendance[]): Promise<RecordTimeline> {
    const timeline = await this.app.records.timeline(lesson);
    if (this.wish.student === null) return timeline;
    const own = people.filter((one) => this.isMeant(one)).map(({ id }) => id as Id);
    return timelineOf(timeline, new Set(own));
  }

  private isMeant({ name, role }: Attendance): boolean {
    const { student } = this.wish;
    return student === null || (role !== 'tutor' && name === student);
  }

  private async attendance({ id, name }: Pick<Course, 'id' | 'name'>): Promise<string> {
    const { student, zone } = this.wish;
    const all = await this.app.records.attended(id);
    if (student === null) return attendanceTable(name, all, zone);
    // Those of one name are told apart by a number.
    const own = new RegExp(
      `^${student.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}( \\(\\d+\\))?$`,
      'u',
    );
    const there = all
      .map((lesson) => ({ ...lesson, people: lesson.people.filter((one) => own.test(one.name)) }))
      .filter(({ people }) => people.length > 0);
    return attendanceTable(name, there, zone);
  }

  private async hours(course: Pick<Course, 'id'>): Promise<string> {
    const rows = await this.app.hours.of(this.wish.tutor.id, 0, FAR);
    return hoursTable(
      rows.filter((row) => row.course === course.id),
      this.wish.zone,
    );
  }

  private async lessonCalendar(course: Pick<Course, 'id'>): Promise<string> {
    const rows = await this.app.hours.of(this.wish.tutor.id, 0, FAR);
    const own = rows.filter((row) => row.course === course.id);
    return writeCompletedLessons(completedLessons(own), Date.now());
  }

  private async timetable({ id, name }: Pick<Course, 'id' | 'name'>): Promise<string> {
    const plans = await this.app.timetable.plans({ course: id });
    const entries = plans.map((plan) => ({
      plan,
      summary: plan.topic ? `${name}: ${plan.topic}` : name,
    }));
    return writeICalendar(entries, Date.now());
  }

  private async *boards(course: Pick<Course, 'id'>, folder: string): AsyncGenerator<ArchiveEntry> {
    const { app } = this;
    const { tutor, signal } = this.wish;
    for (const board of await app.boards.ofCourse(course.id))
      yield {
        path: this.paths.free(folder, board.title, '.pdf'),
        packed: true,
        bytes: () =>
          app.boardPdfs.make(
            {
              ...{ port: app.db.lend(), of: { board: board.id }, ink: 'annotations' },
              ...{ title: board.title, author: tutor.name, date: Date.now() },
              files: app.files.folder,
            },
            signal,
          ),
      };
  }

  private async *materials(
    course: Pick<Course, 'id'>,
    folder: string,
  ): AsyncGenerator<ArchiveEntry> {
    const shelf = await this.app.materials.shelf(this.wish.tutor.id);
    const own = shelf.folders.find((one) => one.course === course.id);
    if (!own) return;
    for (const asset of shelf.assets.filter((one) => one.folder === own.id)) {
      yield this.file(folder, asset.name, asset.file);
    }
  }

  /** What its boards were made of and shows on them, wherever it was brought first; what lies with its materials isn't twice. */
  private async *filesOnBoards(
    course: Pick<Course, 'id'>,
    folder: string,
  ): AsyncGenerator<ArchiveEntry> {
    const shelf = await this.app.materials.shelf(this.wish.tutor.id);
    const own = shelf.folders.find((one) => one.course === course.id);
    const there = new Set(
      shelf.assets.filter((one) => one.folder === own?.id).map(({ file }) => file),
    );
    const names = new Map(shelf.assets.map(({ file, name }) => [file, name]));
    for (const { file, name, type } of await this.app.knownFiles.onBoardsOf(course.id)) {
      if (there.has(file)) continue;
      yield this.file(folder, names.get(file) ?? name, file, ENDINGS[type]);
    }
  }

  /** A stored file as it is. @param ending where its name has none */
  private file(folder: string, name: string, hash: string, ending = ''): ArchiveEntry {
    const [, base, own = ending] = /^(.*?)(\.[^.]{1,8})?$/.exec(name) ?? [];
    return {
      path: this.paths.free(folder, base || name, own),
      packed: true,
      bytes: async () =>
        (await open(this.app.files.path(hash))).createReadStream() as AsyncIterable<Uint8Array>,
    };
  }

  private about(): Promise<string> {
    const { courses, student, tutor, zone } = this.wish;
    const day = dayIn(Date.now(), zone);
    const what =
      student === null
        ? `Everything of ${courses.map(({ name }) => name).join(', ')}`
        : `What ${student} wrote and said in the lessons of ${tutor.name}, and when they were there`;
    return Promise.resolve(
      [
        `${what}, as it was on ${day}. Times are said in ${zone}.`,
        '',
        'Records: a folder for each lesson, with its pages as a PDF (ink is annotations in it, with author and time) and what was said in it.',
        'Attendance.csv: who was there, and for how long.',
        ...(student === null
          ? [
              'Hours.csv, Timetable.ics, Lessons.ics (as they were held), Boards (as they are now), Materials, and Files on boards: what else lies on them, wherever it was brought first.',
              'Boards as files that open again are saved one by one, on each board.',
            ]
          : []),
        '',
      ].join('\n'),
    );
  }

  private text(
    folder: string,
    name: string,
    ending: string,
    make: () => Promise<string>,
  ): ArchiveEntry {
    const path = this.paths.free(folder, name, ending);
    return { path, packed: false, bytes: async () => new TextEncoder().encode(await make()) };
  }
}
