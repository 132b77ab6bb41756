import * as z from 'zod';
import { Id } from '../id/index.js';
import { DoorState, Role, Rules, Trust } from '../permissions/index.js';
import { Signal } from './talk.js';
import { View, WindowSize } from './view.js';

/** Longest name a person may have, in characters as people count them. */
export const MAX_NAME = 60;

/** Left out of names: controls, and what turns or hides other text. Joiners stay: scripts need them. */
const UNSEEN = /[\p{Cc}\u2028\u2029\u200e\u200f\u202a-\u202e\u2066-\u2069\ufeff]/gu;

/** A first name in any script: trimmed, composed (Unicode NFC), without characters nobody sees. */
export const PersonName = z
  .string()
  .max(10 * MAX_NAME, `That name is too long. Use at most ${MAX_NAME} letters.`)
  .transform((name) => name.normalize('NFC').replace(UNSEEN, '').replace(/\s+/g, ' ').trim())
  .refine((name) => name.length > 0, 'Please write your first name.')
  .refine(
    (name) => [...name].length <= MAX_NAME,
    `That name is too long. Use at most ${MAX_NAME} letters.`,
  );

/** The kind of machine a window is on. */
export const Machine = z.enum(['phone', 'tablet', 'computer']);
export type Machine = z.infer<typeof Machine>;

/** Someone in a lesson, as everyone there sees them. */
export const Person = z.object({
  id: Id,
  name: z.string(),
  /** Tells two people of one name apart: 1 for the first, 2 for the second … */
  nth: z.number().int().min(1),
  role: Role,
  trust: Trust,
  /** Whether a window of theirs is connected just now. */
  here: z.boolean(),
  /** The page they look at. */
  page: Id.nullable(),
  /** What is said for this person besides their pen. */
  rules: Rules,
  /** Which place they have among those with a hand up, from 1; `null` where it is down. */
  hand: z.number().int().min(1).nullable(),
  /** What they signal just now; only the tutor and they themselves are told. */
  signal: Signal.nullable(),
  /** To whoever leads or teaches: what machine they have, how long a word takes there and back, what they see, and of what size their
   * window is. */
  machine: Machine.nullable(),
  roundTrip: z.number().min(0).nullable(),
  view: View.nullable(),
  size: WindowSize.nullable(),
});
export type Person = z.infer<typeof Person>;

/** Someone who is not in the lesson: at its door, or sent out. Only the tutor is told of them. */
export const Arrival = z.object({
  id: Id,
  name: z.string(),
  nth: z.number().int().min(1),
  state: DoorState,
  /** When they came to the door, in ms since 1970. */
  since: z.number(),
  /** Whether this browser was let into the course before, and under which name it was then. */
  known: z.string().nullable(),
  /** Whose link for a guest they came by, if they did. */
  guest: z.string().nullable(),
});
export type Arrival = z.infer<typeof Arrival>;

/** Who waits for a course: at the door of its open lesson, or for its lesson to open. */
export const Waiting = z.object({
  course: Id,
  courseName: z.string(),
  /** The board of the open lesson at whose door they are; `null` where none is open. */
  board: Id.nullable(),
  /** Their names; `null` for somebody who hasn't said. */
  names: z.array(z.string().nullable()),
});
export type Waiting = z.infer<typeof Waiting>;
