import { z } from 'zod';
import { Id } from '../id/index.js';
import { OrderKey } from '../order/index.js';
import { RichText } from '../text/index.js';
import { Paper, Side } from './paper.js';

/** A page as it is laid into a board. Sizes in points, as the page is shown. */
export const PageSpec = z.object({
  id: Id,
  order: OrderKey,
  name: z.string().max(200),
  width: Side,
  height: Side,
  paper: Paper,
  /** Held back: no student is sent the page or anything on it. */
  held: z.boolean().optional(),
  /** Private notes beside the page. No student is ever sent them. */
  margin: RichText.optional(),
});
export type PageSpec = z.infer<typeof PageSpec>;

/** Who took something away, and when; what is taken away stays known, so that it can come back. */
export interface Removal {
  readonly by: Id;
  readonly at: number;
}

/** A line of ink on a page. Its id is that of the operation that added it. */
export interface InkItem {
  readonly kind: 'ink';
  readonly id: Id;
  /** The coded stroke: see `ink/codec.ts`. */
  readonly ink: Uint8Array;
  readonly by: Id;
  /** Milliseconds since 1970 by the server's clock; by one's own until confirmed. */
  readonly at: number;
  /** The lesson in which it was written; `null` when the board was being prepared. */
  readonly lesson: Id | null;
  readonly removed: Removal | null;
}

export type Item = InkItem;

/** A page and everything on it. `items` is in the order of drawing, what was removed included. */
export interface Page extends PageSpec {
  readonly removed: Removal | null;
  readonly items: ReadonlyMap<Id, Item>;
}
