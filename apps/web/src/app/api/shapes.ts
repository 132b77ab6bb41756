import type { DoorRule, Rules } from '@cuaderno/core';
import type { LessonFigures } from '@cuaderno/core/replay';

/** What the server answers; described there, and at /api/docs. */
export interface Slot {
  readonly weekday: number;
  readonly startsAt: string;
  readonly minutes: number;
  readonly zone: string;
}

export interface GuestLink {
  readonly id: string;
  readonly token: string;
  /** Whom it was made for. */
  readonly guest: string;
  readonly madeAt: number;
  /** Whether somebody came by it already. */
  readonly used: boolean;
}

export interface Course {
  readonly id: string;
  readonly name: string;
  readonly linkToken: string;
  readonly joinCode: string;
  /** What students may do when a lesson begins. */
  readonly rules: Rules;
  /** The next lesson that is planned, from when to when. */
  readonly nextAt: number | null;
  readonly nextUntil: number | null;
  /** Who comes in without being let in. */
  readonly door: DoorRule;
  /** When it was retired, in ms since 1970. */
  readonly retiredAt: number | null;
  readonly lesson: { readonly id: string; readonly board: string } | null;
}

export interface BoardInfo {
  readonly id: string;
  readonly course: string;
  readonly title: string;
  readonly createdAt: number;
}

export interface RecordInfo {
  readonly lesson: string;
  readonly course: string;
  readonly courseName: string;
  readonly title: string;
  readonly openedAt: number;
  readonly closedAt: number;
  readonly pageCount: number;
  readonly people: readonly string[];
}

/** How far a record is written down. */
export interface Sealing {
  readonly state: 'waits' | 'goes-on' | 'failed' | 'whole';
  readonly done: number;
  readonly of: number;
}

export type NoteKind = 'summary' | 'until';

/** One version of what the tutor wrote of a lesson. */
export interface Note {
  readonly id: string;
  readonly kind: NoteKind;
  readonly text: string;
  readonly at: number;
  /** The version that it amends. */
  readonly follows: string | null;
}

/** Where words were found in a record. */
export interface Found {
  readonly source: 'page' | 'chat' | 'summary' | 'until';
  readonly page: string | null;
  readonly number: number | null;
  readonly before: string;
  readonly found: string;
  readonly after: string;
}

export interface FoundRecord {
  readonly record: RecordInfo;
  readonly places: readonly Found[];
}

/** A record as it is opened. */
export interface RecordOpened {
  readonly record: RecordInfo;
  readonly attendance: readonly Attendance[];
  readonly sealing: Sealing;
  readonly figures: LessonFigures | null;
  /** Its board as it is now. */
  readonly goesOn: {
    readonly board: string;
    readonly title: string;
    readonly same: boolean;
  } | null;
}

/** Who was in a lesson of a course, and for how long, in ms. */
export interface LessonAttended {
  readonly lesson: string;
  readonly openedAt: number;
  readonly length: number;
  readonly people: readonly { readonly name: string; readonly length: number }[];
}

/** What happened beside the pages of a lesson; times in ms since 1970. */
export interface Timeline {
  readonly chat: readonly {
    readonly by: string;
    readonly to: string;
    readonly text: string;
    readonly at: number;
  }[];
  /** `hand`, `hand.down`, a signal, or `signal.none`. */
  readonly gestures: readonly { readonly by: string; readonly what: string; readonly at: number }[];
  readonly turns: readonly { readonly by: string; readonly page: string; readonly at: number }[];
}

export interface Attendance {
  readonly id: string;
  readonly name: string;
  readonly nth: number;
  readonly role: 'tutor' | 'student';
  readonly spans: readonly { readonly from: number; readonly to: number }[];
}

/**
 * How many annotations of a PDF that was brought can be written on like ink, how many comments came on slips, how many
 * of what is seen stay part of its pages, and how many attached files stay in it.
 */
export interface Lifted {
  readonly count: number;
  readonly comments: number;
  readonly stayed: number;
  readonly attached: number;
}
