import { Id } from '@cuaderno/core';
import { LessonFigures } from '@cuaderno/core/replay';
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

const Stretch = z.object({ from: z.number(), to: z.number() });

export const Attendance = z.object({
  id: z.string(),
  name: z.string(),
  nth: z.number(),
  role: z.enum(['tutor', 'student']),
  spans: z.array(Stretch),
});
export type Attendance = z.infer<typeof Attendance>;

/** What happened beside the pages; times in ms since 1970. */
export const Timeline = z.object({
  chat: z.array(z.object({ by: Id, to: z.string(), text: z.string(), at: z.number() })),
  /** `hand`, `hand.down`, a signal, or `signal.none`. */
  gestures: z.array(z.object({ by: Id, what: z.string(), at: z.number() })),
  turns: z.array(z.object({ by: Id, page: Id, at: z.number() })),
});
export type Timeline = z.infer<typeof Timeline>;

/** How far a record is written down. */
export const Sealing = z.object({
  /** `waits` for others before it, or until the server starts anew after it has `failed`. */
  state: z.enum(['waits', 'goes-on', 'failed', 'whole']),
  /** Pages that are written down, and how many there are. */
  done: z.number(),
  of: z.number(),
});
export type Sealing = z.infer<typeof Sealing>;

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
  source: z.enum(['page', 'chat', 'summary', 'until']),
  page: Id.nullable(),
  /** Of the page, from 1. */
  number: z.number().nullable(),
  before: z.string(),
  found: z.string(),
  after: z.string(),
});
export type Found = z.infer<typeof Found>;

/** The board of a record as it is now; `null` where it was taken out. */
export const GoesOn = z
  .object({
    board: Id,
    title: z.string(),
    /** Whether nothing was done to it since the lesson closed. */
    same: z.boolean(),
  })
  .nullable();
export type GoesOn = z.infer<typeof GoesOn>;

/** Who was in a lesson of a course, and for how long, in ms. */
export const Attended = z.object({
  lesson: z.string(),
  openedAt: z.number(),
  length: z.number(),
  people: z.array(z.object({ name: z.string(), length: z.number() })),
});
export type Attended = z.infer<typeof Attended>;

export const Figures = LessonFigures.nullable();
