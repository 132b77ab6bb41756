import { z } from 'zod';
import type { Id } from '../id/index.js';

/** What a person may do on the page: look on, write, or hands on (also move what lies there). */
export const Trust = z.enum(['look', 'write', 'hands']);
export type Trust = z.infer<typeof Trust>;

export const Role = z.enum(['tutor', 'student']);
export type Role = z.infer<typeof Role>;

/** Whoever makes an operation, as the server knows them. */
export interface Actor {
  readonly id: Id;
  readonly role: Role;
  readonly trust: Trust;
  /** Whether pages of a new file may be laid in: the server's import alone does that. */
  readonly imports?: boolean;
}

/** Whether this person holds a pen. A tutor always does. */
export function mayWrite(actor: Actor): boolean {
  return actor.role === 'tutor' || actor.trust !== 'look';
}
