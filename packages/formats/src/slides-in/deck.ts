import type { RichText } from '@cuaderno/core';

/*
 * What is read from a deck itself, because turning it into pages loses it.
 */

/** A sound or film on a slide. */
export interface DeckMedia {
  /** Where it is in the archive; `null` where it lies elsewhere, and isn't had. */
  readonly path: string | null;
  readonly name: string;
  /** Where it lies, in points from the slide's top left; degrees clockwise. */
  readonly frame: {
    readonly x: number;
    readonly y: number;
    readonly width: number;
    readonly height: number;
    readonly turn: number;
  };
  /** A picture of it in the archive. */
  readonly poster: string | null;
}

export interface Slide {
  readonly title: string;
  /** What the speaker has noted. */
  readonly notes: RichText;
  /** Shown to nobody unless it is asked for. */
  readonly hidden: boolean;
  /** Whether anything on it moves or appears one after the other, or it comes in moving. */
  readonly animated: boolean;
  readonly media: readonly DeckMedia[];
  /** Fonts that it asks for, by name. */
  readonly fonts: readonly string[];
  /** Letters that are written on it beyond plain ASCII, each once. */
  readonly letters: string;
}

/** Letters of words beyond plain ASCII, each once. */
export function lettersOf(words: string): string {
  return [...new Set(words)].filter((letter) => letter > '~').join('');
}

export interface Deck {
  /** In points. */
  readonly width: number;
  readonly height: number;
  readonly slides: readonly Slide[];
}

/** Why a deck isn't brought in. */
export type DeckFault =
  /** Damaged, cut off, or something else. */
  | 'broken'
  /** Locked with a password. */
  | 'locked'
  | 'too-large'
  | 'unsafe';

export class DeckError extends Error {
  override readonly name = 'DeckError';
  constructor(readonly fault: DeckFault) {
    super(fault);
  }
}
