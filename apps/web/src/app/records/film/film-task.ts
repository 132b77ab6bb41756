import type { PdfPaper } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import type { Stretch, Turn } from '@cuaderno/core/replay';

/** A font of the application, as a worker loads it. */
export interface FontSource {
  readonly family: string;
  /** `url(…)`, as in CSS. */
  readonly source: string;
  readonly weight: string;
  readonly style: string;
  readonly unicodeRange: string;
}

/** Who may be named beside what is drawn. */
export interface FilmPerson {
  readonly id: Id;
  readonly label: string;
  readonly colour: string;
}

export interface FilmTask {
  readonly kind: 'make';
  /** The lesson as the server keeps it: the board before it, and its log (MessagePack). */
  readonly log: Uint8Array;
  /** From the opening of the lesson to its close. */
  readonly whole: Stretch;
  /** When something happened beside the pages. */
  readonly beside: readonly Stretch[];
  /** Of who led, in the order of time. */
  readonly turns: readonly Turn[];
  readonly speed: number;
  readonly skipsIdle: boolean;
  /** Named while they write; nobody where it is empty. */
  readonly people: readonly FilmPerson[];
  /** The one person whose ink is shown; `null` for everyone's. */
  readonly only: Id | null;
  readonly fonts: readonly FontSource[];
  /** IANA time zone by whose clock its times are said: a worker only knows that of the machine. */
  readonly zone: string;
}

/** What the worker is told. */
export type FilmWord =
  | FilmTask
  /** A printed page that it asked for, or `null` where it can't be drawn. */
  | { readonly kind: 'paper'; readonly ask: number; readonly bitmap: ImageBitmap | null };

/** What it says. */
export type FilmNews =
  /** It needs what is printed on an imported page, so many pixels wide and high. */
  | {
      readonly kind: 'paper';
      readonly ask: number;
      readonly paper: PdfPaper;
      readonly width: number;
      readonly height: number;
      /** Pixels a point. */
      readonly scale: number;
    }
  | { readonly kind: 'progress'; readonly part: number }
  /** @property length of the film, in ms */
  | { readonly kind: 'done'; readonly film: Uint8Array; readonly length: number }
  | { readonly kind: 'fault'; readonly fault: 'no-encoder' | 'failed'; readonly why: string };
