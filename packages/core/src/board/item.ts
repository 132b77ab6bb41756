import type { Id } from '../id/index.js';
import type { CoverSpec, ItemSpec } from '../kinds/index.js';

/** Who took something away, and when; what is taken away stays known, so that it can come back. */
export interface Removal {
  readonly by: Id;
  readonly at: number;
}

/** What the log knows of everything on a page. Its id is that of the operation that added it. */
export interface Origin {
  readonly id: Id;
  readonly by: Id;
  /** Milliseconds since 1970 by the server's clock; by one's own until confirmed. */
  readonly at: number;
  /** The lesson in which it was made; `null` when the board was being prepared. */
  readonly lesson: Id | null;
  readonly removed: Removal | null;
}

/** A line of ink on a page. */
export interface InkItem extends Origin {
  readonly kind: 'ink';
  /** The coded stroke: see `ink/codec.ts`. */
  readonly ink: Uint8Array;
  /** The line that this is a piece of, where a part of that was rubbed out. */
  readonly of?: Id | undefined;
  /** The cover sheet that it was written on; on the page itself where `null`. */
  readonly on?: Id | null | undefined;
}

/** An item laid on a page. */
export type PlacedItem = Origin & ItemSpec;

/** An empty sheet over a page. */
export type CoverItem = Origin & CoverSpec;

export type Item = InkItem | PlacedItem;

/** What an item is, without what the log knows of it. */
export function specOf(item: PlacedItem): ItemSpec {
  const spec: Partial<PlacedItem> = { ...item };
  for (const key of ['id', 'by', 'at', 'lesson', 'removed'] as const) delete spec[key];
  return spec as ItemSpec;
}

/** Whether it lies under the ink. */
export function isMaterial(item: Item): item is PlacedItem & { readonly layer: 'material' } {
  return item.kind !== 'ink' && item.layer === 'material';
}
