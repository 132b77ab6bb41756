import type { Audience, Id } from '@cuaderno/core';
import type { Lessons } from '../lessons/service.js';
import type { LiveLesson } from '../lessons/live-lesson.js';
import type { LiveConnection } from './connection.js';

/** A lesson's windows, and what its parts need of one another to tell them things. */
export interface Classroom {
  readonly lessons: Lessons;
  /** Everyone's on a board. */
  windows(board: Id): Iterable<LiveConnection>;
  /** Those of whom something is for. */
  windowsFor(board: Id, audience: Audience): Iterable<LiveConnection>;
  /** Whom a page is for. */
  audienceOf(board: Id, page: Id): Audience;
  /** Tells all, or some, who is here and what they have. */
  tellPeople(lesson: LiveLesson, audience?: Audience): void;
  /** What can't be kept is no reason to stop a lesson: it is logged. */
  keep(what: Promise<unknown>, words: string): void;
  /** Something could not be kept. */
  failed(error: unknown, words: string): void;
}
