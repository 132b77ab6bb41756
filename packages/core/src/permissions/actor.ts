import * as z from 'zod';
import type { Id } from '../id/index.js';
import type { Rules } from './rules.js';

/** What a person may do on the page: watch, write, or hands on (also move what lies there). */
export const Trust = z.enum(['view', 'write', 'hands']);
export type Trust = z.infer<typeof Trust>;

export const Role = z.enum(['tutor', 'student']);
export type Role = z.infer<typeof Role>;

/** The person who makes an operation, as the server knows them. */
export interface Actor {
  readonly id: Id;
  readonly role: Role;
  /** What this person was trusted with; a board or a page may have less: see `appliesTo`. */
  readonly trust: Trust;
  /** What else is said for this person, and for the course. */
  readonly person?: Rules;
  readonly course?: Rules;
  /** Whether pages of a new file may be laid in: the server's import alone does that. */
  readonly imports?: boolean;
}
