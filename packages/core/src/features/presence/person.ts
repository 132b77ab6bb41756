import * as z from 'zod';
import { Id } from '../../id/index.js';
import { Role, Rules, Trust } from '../../permissions/index.js';
import { View, WindowSize } from '../in-step/index.js';
import { Signal } from '../talk/index.js';

/** The kind of machine a window is on. */
export const Machine = z.enum(['phone', 'tablet', 'computer']);
export type Machine = z.infer<typeof Machine>;

/** A window in a lesson: one person may have several, on several machines. */
export const LessonWindow = z.object({
  id: Id,
  person: Id,
  /** Only tutors are told; `null` also before it has said so. */
  machine: Machine.nullable(),
});
export type LessonWindow = z.infer<typeof LessonWindow>;

/** Someone in a lesson, as everyone there sees them. */
export const Person = z.object({
  id: Id,
  name: z.string(),
  /** Tells two people of one name apart: 1 for the first, 2 for the second … */
  nameOrdinal: z.number().int().min(1),
  role: Role,
  trust: Trust,
  /** Whether a window of theirs is connected just now. */
  here: z.boolean(),
  /** The board they look at, and its page. */
  board: Id.nullable(),
  page: Id.nullable(),
  /** What is said for this person besides their pen. */
  rules: Rules,
  /** Which place they have among those with a hand up, from 1; `null` where it is down. */
  hand: z.number().int().min(1).nullable(),
  /** What they signal just now; only the tutor and they themselves are told. */
  signal: Signal.nullable(),
  /** To the tutor and the person who leads: what machine they have, how long a word takes there and back, what they see, and of what size their
   * window is. */
  machine: Machine.nullable(),
  roundTrip: z.number().min(0).nullable(),
  view: View.nullable(),
  size: WindowSize.nullable(),
});
export type Person = z.infer<typeof Person>;
