import { RecordTimeline } from '@cuaderno/core/features';
import { Id } from '@cuaderno/core/id';
import * as z from 'zod';
import { BoardShape, Title } from '../courses.js';
import {
  APPENDIX,
  Attended,
  FoundRecord,
  IndexingState,
  Note,
  NoteKind,
  RecordOpened,
} from '../records.js';
import { route } from '../route.js';
import { Zone } from '../time-zone.js';

/** Longest note, in characters: several pages. */
const MOST = 10_000;

/** A moment, in ms since 1970, in an address. */
const Moment = z.coerce.number().int().min(0).max(8.64e15);

const FindQuery = z.object({
  words: z.string().max(200).optional(),
  course: Id.optional(),
  student: z.string().max(200).optional(),
  from: Moment.optional(),
  until: Moment.optional(),
  skip: z.coerce.number().int().min(0).max(1_000_000).optional(),
});

export const downloadAttendance = route({
  method: 'GET',
  path: '/courses/:course/attendance.csv',
  who: 'tutor',
  tag: 'records',
  summary: 'Who came to the lessons of a course, as a table (RFC 4180)',
  params: z.object({ course: Id }),
  query: Zone,
  answers: 'bytes',
});

export const listNotes = route({
  method: 'GET',
  path: '/lessons/:lesson/notes',
  who: 'tutor',
  tag: 'records',
  summary: 'What the tutor wrote of a lesson: summary and until next time, every version',
  params: z.object({ lesson: Id }),
  answers: { 200: z.object({ notes: z.array(Note) }) },
});

export const keepNote = route({
  method: 'POST',
  path: '/lessons/:lesson/notes',
  who: 'tutor',
  tag: 'records',
  summary: 'Write a note, or amend one: former versions stay',
  params: z.object({ lesson: Id }),
  body: z.object({ kind: NoteKind, text: z.string().max(MOST), follows: Id.nullable() }),
  answers: { 201: Note },
});

export const findRecords = route({
  method: 'GET',
  path: '/records',
  who: 'tutor',
  tag: 'records',
  summary: 'Find records: by course, student, date and words on pages, in chat and notes',
  query: FindQuery,
  answers: {
    200: z.object({
      found: z.array(FoundRecord),
      more: z.boolean(),
    }),
  },
});

export const listStudents = route({
  method: 'GET',
  path: '/students',
  who: 'tutor',
  tag: 'records',
  summary: 'Names of students who were in this tutor’s lessons',
  answers: { 200: z.object({ students: z.array(z.string()) }) },
});

export const listAttendance = route({
  method: 'GET',
  path: '/courses/:course/attendance',
  who: 'tutor',
  tag: 'records',
  summary: 'Who came to the lessons of a course, and for how long; the latest first',
  params: z.object({ course: Id }),
  answers: { 200: z.object({ lessons: z.array(Attended) }) },
});

export const readRecord = route({
  method: 'GET',
  path: '/records/:lesson',
  who: 'tutor',
  tag: 'records',
  summary: 'A record: when the lesson was, and who was there',
  params: z.object({ lesson: Id }),
  answers: {
    200: RecordOpened,
  },
});

export const readRecordPreview = route({
  method: 'GET',
  path: '/records/:lesson/cover',
  who: 'tutor',
  tag: 'records',
  summary:
    'The page of a record with most ink, as a packed snapshot (MessagePack), to draw it small',
  params: z.object({ lesson: Id }),
  answers: 'bytes',
});

export const retryIndexing = route({
  method: 'POST',
  path: '/records/:lesson/seal',
  who: 'tutor',
  tag: 'records',
  summary: 'Write a record down once more, where that failed',
  params: z.object({ lesson: Id }),
  answers: { 202: IndexingState },
});

export const copyRecord = route({
  method: 'POST',
  path: '/records/:lesson/copy',
  who: 'tutor',
  tag: 'records',
  summary: 'Go on from a record: a new board as the lesson left it, or clean',
  params: z.object({ lesson: Id }),
  body: z.object({ course: z.string().optional(), title: Title, lessonInk: z.boolean() }),
  answers: { 201: BoardShape },
});

export const readRecordBoard = route({
  method: 'GET',
  path: '/records/:lesson/board',
  who: 'tutor',
  tag: 'records',
  summary: 'The board as the lesson left it, as a packed snapshot (MessagePack)',
  params: z.object({ lesson: Id }),
  answers: 'bytes',
});

export const readTimeline = route({
  method: 'GET',
  path: '/records/:lesson/timeline',
  who: 'tutor',
  tag: 'records',
  summary: 'What happened beside the pages: chat, hands and signals, and who turned to which page',
  params: z.object({ lesson: Id }),
  answers: { 200: RecordTimeline },
});

export const readRecordLog = route({
  method: 'GET',
  path: '/records/:lesson/log',
  who: 'tutor',
  tag: 'records',
  summary:
    'The lesson as it happened (MessagePack): the board before it, and what was done, in order',
  params: z.object({ lesson: Id }),
  answers: 'bytes',
});

/** A language as BCP 47 writes it, in short. */
const Language = z
  .string()
  .max(35)
  .regex(/^[a-zA-Z]{2,8}(-[a-zA-Z0-9]{1,8})*$/, 'a language, as nb or en-GB');

const PdfQuery = Zone.extend({
  /** How what was written goes along. */
  ink: z.enum(['drawn', 'annotations', 'none']).default('drawn'),
  /** Whether it is shown whose each line is. */
  signed: z.stringbool().default(false),
  /** The one person whose ink goes along. */
  only: Id.optional(),
  /** What follows the pages, with commas between. */
  with: z
    .string()
    .default('')
    .transform((list) => list.split(',').filter((name) => name !== ''))
    .pipe(z.array(z.enum(APPENDIX)).max(APPENDIX.length)),
  language: Language.optional(),
});

export const downloadRecordPdf = route({
  method: 'GET',
  path: '/records/:lesson/pdf',
  who: 'tutor',
  tag: 'records',
  summary:
    'The record as one PDF: ink drawn in, as annotations or left out; signed, or of one person alone; with pages for notes, chat and attendance',
  params: z.object({ lesson: Id }),
  query: PdfQuery,
  answers: 'bytes',
});

export const downloadSaid = route({
  method: 'GET',
  path: '/records/:lesson/said/:file',
  who: 'tutor',
  tag: 'records',
  summary: 'What was said in a lesson beside its pages, as a file of its kind',
  params: z.object({ lesson: Id, file: z.string().max(100) }),
  query: Zone,
  answers: 'bytes',
});
