import type { Signal, Type } from '@angular/core';
import type {
  ClientMessage,
  FeatureName,
  KeptName,
  Person,
  RecordPart,
  SaidSourceOf,
  ServerMessageOf,
} from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';

/** Hands a message to the network. Returns whether it could be. */
export type Send = (message: ClientMessage) => boolean;

/** Says what is meant to hold: it isn't lost with the line. See `StandingWishes`. */
export type Stand = (message: ClientMessage, isSo: () => boolean) => void;

/** One for each kind of message that the server sends of a feature: none can be left out. */
export type ServerHandlers<Name extends FeatureName> = {
  readonly [Kind in ServerMessageOf<Name>['kind'] & string]: (
    message: Extract<ServerMessageOf<Name>, { kind: Kind }>,
  ) => void;
};

/**
 * A part of a live lesson, in a window: what it knows of it, as signals that screens read, and what may be said. All of it
 * is the server's to decide; what its messages are stands in its twin in `packages/core/src/features/`.
 */
export interface LessonFeature<Name extends FeatureName> {
  readonly handlers: ServerHandlers<Name>;
  /**
   * The line is there, also again: what was put out meanwhile isn't told, what still stands comes.
   * @param lesson the one that is open on it
   */
  begin(lesson: Id | null): void;
  /** No lesson is open on the board any more: nothing is left of the one that was. */
  clear(): void;
  /**
   * This window is out of the lesson, or closed. What is known stays in sight; nothing goes out or comes any more, and what
   * it has of the machine is given back.
   */
  leave(): void;
}

/** The lesson that a component of a feature is in: who is here, and its own feature's state, of all there are. */
export interface LessonWith<Features> {
  /** Who looks through this window; `null` before the server has said so. */
  readonly me: Signal<Id | null>;
  readonly people: Signal<readonly Person[]>;
  readonly features: Features;
}

/** Fetches a component when a screen has a place for it. */
type Lazy = () => Promise<Type<unknown>>;

/**
 * Components in which a feature shows itself, by where that is; `null` where it has its place on a screen already. Those of
 * a lesson are given its `session`, that of a replay the `timeline` of the record and the `time` that is seen.
 */
export interface FeatureComponents {
  /** Below the page, in every window of the lesson. */
  readonly belowPage: Lazy | null;
  /** Among what one does by one touch, in every window of the lesson. */
  readonly controls: Lazy | null;
  /** Beside the board of the tutor, under who is there. */
  readonly aside: Lazy | null;
  /** Below the page of a replay. */
  readonly replay: Lazy | null;
}

/** Something that happened beside the pages, in words. */
export interface Happening {
  /** In ms since 1970. */
  readonly at: number;
  readonly by: string;
  /** What stands for it on a line of time. */
  readonly sign: HappeningSign;
  readonly words: string;
}

export interface HappeningSign {
  /** In ECharts, a path in a box of its own; its size in CSS px. */
  readonly symbol: string;
  readonly size: number;
  /** What it is, said beside a letter that looks like it. */
  readonly legend: string;
}

/** What sentences about a lesson need to know of it. */
export interface LessonNames {
  name(person: string): string;
  /** From 1; `null` for a page that was removed since. */
  pageNumber(page: string): number | null;
}

/** How screens show what was said there. */
export interface SaidWords {
  /** Its name in a choice, and above where its words were found: "Chat". */
  readonly label: string;
  /** One piece of it, and several. */
  readonly one: string;
  readonly many: string;
  /** The file that is made of it. */
  readonly file: { readonly name: string; readonly label: string; readonly words: string };
}

/** What the screens of a record tell of a feature; its twin on the server is `KeptPart`. */
export interface InRecord<Name extends KeptName> {
  happenings(part: RecordPart<Name>, lesson: LessonNames): readonly Happening[];
  readonly signs: readonly HappeningSign[];
  readonly said: { readonly [Source in SaidSourceOf<Name>]: SaidWords };
}
