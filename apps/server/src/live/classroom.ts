import type { Audience, Board, Id } from '@cuaderno/core';
import type { Lessons } from '../lessons/service.js';
import type { LiveLesson } from '../lessons/live-lesson.js';
import type { LiveConnection } from './connection.js';

/** A lesson's windows, and what its parts need of one another to tell them things. */
export interface Classroom {
  readonly lessons: Lessons;
  /** Everyone's in a lesson. */
  windows(lesson: LiveLesson): Iterable<LiveConnection>;
  /** Those of whom something is for. */
  windowsFor(lesson: LiveLesson, audience: Audience): Iterable<LiveConnection>;
  /** Whom a page of a board is for. */
  audienceOf(lesson: LiveLesson, board: Id, page: Id): Audience;
  /** The board as it is this moment, to look at only; `undefined` where it isn't open. */
  boardOf(board: Id): Board | undefined;
  /** Tells all, or some, who is here and what they have. */
  tellPeople(lesson: LiveLesson, audience?: Audience): void;
  /** What can't be kept is no reason to stop a lesson: it is logged. */
  keep(what: Promise<unknown>, words: string): void;
  /** Something could not be kept. */
  failed(error: unknown, words: string): void;
}
