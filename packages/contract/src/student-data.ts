import { SAID_SOURCES } from '@cuaderno/core/features';
import { Id } from '@cuaderno/core/id';
import * as z from 'zod';

/** How many pieces of what was said are by somebody, or for them alone, by where they are. */
const SaidCounts = z.partialRecord(z.enum(SAID_SOURCES), z.number());

/** One student in one lesson. */
export const Seat = z.object({
  person: Id,
  /** Which of those of the name in that lesson. */
  nameOrdinal: z.number(),
  lesson: Id,
  course: Id,
  courseName: z.string(),
  openedAt: z.number(),
  /** Whether the lesson goes on: nothing of it can be deleted before it is closed. */
  open: z.boolean(),
  /** Lines, texts and shapes that they put on boards in it, removed ones included. */
  ink: z.number(),
  said: SaidCounts,
});
export type Seat = z.infer<typeof Seat>;

export const StudentData = z.object({
  seats: z.array(Seat),
  /** Links to records that were made for them or name them. */
  links: z.number(),
  /** Browsers by which they are known at a course's door. */
  browsers: z.number(),
  /** How often the tutor named them in chat, notes, plans, reasons and letters. */
  named: z.number(),
});
export type StudentData = z.infer<typeof StudentData>;

export const DeletionWish = z.object({
  name: z.string().min(1).max(200),
  /** The student in these lessons: all of them, or those of one of two who have the same name. */
  people: z.array(Id).min(1).max(5000),
  /** Whether what they drew and typed on boards goes too, or stays without their name. */
  ink: z.enum(['keep', 'take-out']),
  /** Whether their name is replaced where the tutor wrote it: see `Mentions`. */
  named: z.boolean(),
});
export type DeletionWish = z.infer<typeof DeletionWish>;

export const DeletionReport = z.object({
  /** What stands in place of the name. */
  alias: z.string(),
  courses: z.array(z.string()),
  /** Lessons in which the name was replaced. */
  lessons: z.number(),
  ink: z.enum(['keep', 'take-out']),
  /** Boards from which ink was taken out, and in how many places of their logs. */
  boards: z.number(),
  entries: z.number(),
  said: SaidCounts,
  /** Links to records that were removed with the list of who opened them, and letters that brought them. */
  links: z.number(),
  letters: z.number(),
  /** Links by which they came in as a guest: they lead nowhere any more. */
  guestLinks: z.number(),
  browsers: z.number(),
  /** Texts of the tutor's in which the name was replaced. */
  renamed: z.number(),
  /** Where the name still stands, because only its tutor can say what is to stand there instead. */
  left: z.array(
    z.object({
      where: z.enum(['page', 'board', 'record', 'material']),
      /** Of what it is about, with the name replaced. */
      title: z.string(),
      /** From 1; of a page only. */
      pages: z.array(z.number()),
    }),
  ),
});
export type DeletionReport = z.infer<typeof DeletionReport>;

export const Deletion = z.object({ id: Id, at: z.number(), report: DeletionReport });
export type Deletion = z.infer<typeof Deletion>;
