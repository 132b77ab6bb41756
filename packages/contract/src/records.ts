import { SAID_SOURCES } from '@cuaderno/core/features';
import { Id } from '@cuaderno/core/id';
import { Role } from '@cuaderno/core/permissions';
import { LessonStatistics } from '@cuaderno/core/replay';
import * as z from 'zod';

export const RecordInfo = z.object({
  lesson: z.string(),
  course: z.string(),
  courseName: z.string(),
  title: z.string(),
  openedAt: z.number(),
  closedAt: z.number(),
  pageCount: z.number(),
  /** Names of the students who were there. */
  people: z.array(z.string()),
});
export type RecordInfo = z.infer<typeof RecordInfo>;

/** A record as it is listed for its tutor. */
export const ListedRecord = RecordInfo.extend({
  /** Whether the tutor has written what was done. */
  hasSummary: z.boolean(),
  /** What is to be done until next time, as the tutor wrote it; `null` where nothing is. */
  until: z.string().nullable(),
});
export type ListedRecord = z.infer<typeof ListedRecord>;

const Stretch = z.object({ from: z.number(), to: z.number() });

export const Attendance = z.object({
  id: z.string(),
  name: z.string(),
  nameOrdinal: z.number(),
  role: Role,
  spans: z.array(Stretch),
});
export type Attendance = z.infer<typeof Attendance>;

/** How far a record is written down. */
export const IndexingState = z.object({
  /** `waits` for others before it, or until the server starts anew after it has `failed`. */
  state: z.enum(['waits', 'goes-on', 'failed', 'whole']),
  /** Pages that are written down, and how many there are. */
  done: z.number(),
  of: z.number(),
});
export type IndexingState = z.infer<typeof IndexingState>;

export const NoteKind = z.enum(['summary', 'until']);
export type NoteKind = z.infer<typeof NoteKind>;

/** One version of what the tutor wrote of a lesson. */
export const Note = z.object({
  id: Id,
  kind: NoteKind,
  text: z.string(),
  at: z.number(),
  /** The version that it amends. */
  follows: Id.nullable(),
});
export type Note = z.infer<typeof Note>;

/** Where words were found in a record. */
export const Found = z.object({
  source: z.enum(['page', ...SAID_SOURCES, 'summary', 'until']),
  page: Id.nullable(),
  /** Of the page, from 1. */
  number: z.number().nullable(),
  before: z.string(),
  found: z.string(),
  after: z.string(),
});
export type Found = z.infer<typeof Found>;

/** A board of a record. */
export const BoardOfRecord = z.object({
  board: Id,
  /** What it was called then. */
  title: z.string(),
  /** The board as it is now; `null` where it was taken out of its course. */
  goesOn: z
    .object({
      title: z.string(),
      /** Whether nothing was done to it since the lesson closed. */
      same: z.boolean(),
    })
    .nullable(),
});
export type BoardOfRecord = z.infer<typeof BoardOfRecord>;

/** Who was in a lesson of a course, and for how long, in ms. */
export const Attended = z.object({
  lesson: z.string(),
  openedAt: z.number(),
  length: z.number(),
  people: z.array(z.object({ name: z.string(), length: z.number() })),
});
export type Attended = z.infer<typeof Attended>;

export const Statistics = LessonStatistics.nullable();

/** A record as it is opened. */
export const RecordOpened = z.object({
  record: RecordInfo,
  attendance: z.array(Attendance),
  indexing: IndexingState,
  statistics: Statistics,
  /** Its boards, in the order in which the lesson came to them: that of their pages in the record. */
  boards: z.array(BoardOfRecord),
  /** Where something was said in it, besides its pages and notes. */
  said: z.array(z.enum(SAID_SOURCES)),
});
export type RecordOpened = z.infer<typeof RecordOpened>;

/** A record in which words were found, with the places. */
export const FoundRecord = z.object({ record: ListedRecord, places: z.array(Found) });
export type FoundRecord = z.infer<typeof FoundRecord>;

/** What can follow the pages of a record's PDF. */
export const APPENDIX = ['notes', ...SAID_SOURCES, 'attendance'] as const;
export type AppendixName = (typeof APPENDIX)[number];
