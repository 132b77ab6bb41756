import { z } from 'zod';
import { Id } from '../id/index.js';
import { DoorState, Role, Trust } from '../permissions/index.js';

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
