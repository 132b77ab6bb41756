import type { Id } from '@cuaderno/core';

/** Late lines of one student of one lesson that wait for the tutor; times in ms since 1970. */
export interface LateLines {
  readonly lesson: Id;
  readonly person: Id;
  readonly name: string;
  readonly nth: number;
  readonly course: Id;
  readonly courseName: string;
  readonly board: Id;
  readonly title: string;
  readonly openedAt: number;
  readonly closedAt: number | null;
  readonly count: number;
  readonly at: number;
}

/** What became of what was written in this browser, lesson by lesson, since its student was told last. */
export interface OwnLateLines {
  readonly lesson: Id;
  readonly courseName: string;
  readonly openedAt: number;
  readonly waiting: number;
  readonly added: number;
  readonly left: number;
}

/** What the server did with what was offered, by ids. */
export interface LateAnswer {
  readonly waiting: readonly Id[];
  readonly kept: readonly Id[];
  readonly refused: readonly Id[];
}

/** Where late lines go. */
export type LateWay = 'page' | 'record' | 'nowhere';
