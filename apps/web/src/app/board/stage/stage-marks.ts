import type { Author } from '@cuaderno/core/drawing';
import type { Overlay, View } from '@cuaderno/core/features';
import type { Id } from '@cuaderno/core/id';

/** How people are shown on the stage. What is asked are signals or is made of them. */
export interface StageMarks {
  /** Arrows and the lamp. */
  shown(): Overlay;
  /** Who somebody is, to sign what they do; `null` for somebody who isn't known. */
  authorOf(): (id: Id) => Author | null;
  /** Whether every line says whose it is. */
  signed(): boolean;
  /** What the smallest window of those who follow shows, and whose it is. */
  frame(): { readonly view: View; readonly label: string } | null;
}

const NOTHING_SHOWN: Overlay = { arrows: [], lamp: null };

/** Nobody is shown. */
export const NO_MARKS: StageMarks = {
  shown: () => NOTHING_SHOWN,
  authorOf: () => () => null,
  signed: () => false,
  frame: () => null,
};
