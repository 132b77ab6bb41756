import * as z from 'zod';
import type { Id } from '../id/index.js';
import type { Rules } from './rules.js';

/** What a person may do on the page: watch, write, or hands on (also move what lies there). */
export const Trust = z.enum(['view', 'write', 'hands']);
export type Trust = z.infer<typeof Trust>;

/**
 * What somebody is in a lesson, from the least to the most that a role may do: a watcher sees what students see and
 * does nothing; a helper does all that the tutor does in a lesson, but closes, shares and deletes nothing and gives no
 * roles; the tutor is the one of its course.
 */
export const Role = z.enum(['watcher', 'student', 'helper', 'tutor']);
export type Role = z.infer<typeof Role>;

/** What the tutor lets somebody in as. */
export const GivenRole = Role.exclude(['tutor']);
export type GivenRole = z.infer<typeof GivenRole>;

const RANKS: readonly Role[] = Role.options;

/** Whether somebody may do what needs at least that role. */
export function isAtLeast(role: Role, least: Role): boolean {
  return RANKS.indexOf(role) >= RANKS.indexOf(least);
}

/** Whether somebody teaches in a lesson: its tutor, or one who helps. */
export function teaches(role: Role): boolean {
  return isAtLeast(role, 'helper');
}

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
