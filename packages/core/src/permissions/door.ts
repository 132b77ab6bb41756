import * as z from 'zod';

/**
 * Where someone stands who came to a lesson: waiting at its door, in it, told that it isn't the
 * moment, sent out (and free to knock again), or kept out of this lesson.
 */
export const DoorState = z.enum(['waiting', 'in', 'not-now', 'out', 'barred']);
export type DoorState = z.infer<typeof DoorState>;

/**
 * Who comes in without being let in: nobody; browsers that were let into this course before; or
 * everyone who has its link.
 */
export const DoorRule = z.enum(['ask', 'known', 'all']);
export type DoorRule = z.infer<typeof DoorRule>;

/** What a tutor says at the door. */
export const DoorWord = z.enum(['in', 'not-now', 'out', 'barred']);
export type DoorWord = z.infer<typeof DoorWord>;

/** Where someone stands who knocks: anyone who is in stays in, anyone who is kept out stays out. */
export function knocked(state: DoorState): DoorState {
  return state === 'in' || state === 'barred' ? state : 'waiting';
}

/**
 * Where someone stands after the tutor's word, or `null` where it doesn't apply to them: one can be
 * let in from wherever one stands, told "not now" only at the door, and sent out only from inside.
 */
export function afterWord(state: DoorState, word: DoorWord): DoorState | null {
  if (word === 'not-now') return state === 'waiting' ? 'not-now' : null;
  if (word === 'in') return state === 'in' ? null : 'in';
  // Anyone who was kept out may be given a way back, and anyone who was sent out may lose it.
  const was = state === 'in' || state === 'out' || state === 'barred';
  return was && state !== word ? word : null;
}

/** Whether someone comes in by themselves. */
export function comesIn(rule: DoorRule, known: boolean): boolean {
  return rule === 'all' || (rule === 'known' && known);
}
