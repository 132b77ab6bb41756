import type * as z from 'zod';
import type { DisplaySink } from '../display/index.js';
import type { Frame, Point } from '../geometry/index.js';
import type { FileHash } from '../id/index.js';

/**
 * All that the core knows of a kind of item that is laid on a page. A kind says each of it, and nothing else in the core
 * names kinds: what wants to know something of an item asks the register. All functions are pure.
 */
export interface ItemKind<Schema extends z.ZodObject, Spec = z.infer<Schema>> {
  /** What such an item is, closed: what isn't in it can't be stored. */
  readonly schema: Schema;

  /** What it has besides `COMMON_DEFAULTS` where it says nothing of it: undoing goes back to that. */
  readonly defaults: Partial<Spec>;

  /** What nobody changes about it, besides its kind and layer: it would be another. */
  readonly lasting: readonly (keyof Spec & string)[];

  /** Whether a student with a pen may lay one with what is written; else it is the tutor's alone to lay. */
  readonly isWriting: boolean;

  /** What it looks like, on the page: the same for screen, PDF and SVG. */
  draw(item: Spec, sink: DisplaySink): void;

  /** Whether a touch at `p` means it: on it, or nearer than `slack` points. */
  isAt(item: Spec, p: Point, slack: number): boolean;

  /** Whether an eraser of `radius` points, moved from `a` to `b`, touches it. */
  isTouched(item: Spec, a: Point, b: Point, radius: number): boolean;

  /** Points by which it is known whether something that is drawn around it has it inside. */
  points(item: Spec): readonly Point[];

  /** What changes about it when it is moved, sized or turned into this frame, the frame included. */
  place(item: Spec, frame: Frame): Partial<Spec>;

  /** Stored files that it is made of. */
  files(item: Spec): readonly FileHash[];

  /** Words that are found on it; empty for none. */
  words(item: Spec): string;

  /** What it is, in a few words for who can't see it. */
  spoken(item: Spec): string;
}

/** Only there to let each folder state its types once. */
export function itemKind<Schema extends z.ZodObject>(kind: ItemKind<Schema>): ItemKind<Schema> {
  return kind;
}
