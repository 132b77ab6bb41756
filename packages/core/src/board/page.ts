import * as z from 'zod';
import { Id } from '../id/index.js';
import { OrderKey } from '../order/index.js';
import { Rules } from '../permissions/index.js';
import { RichText } from '../text/index.js';
import type { Item, Removal } from './item.js';
import { Paper, Side } from './paper.js';

/** A page as it is laid into a board. Sizes in points, as the page is shown. */
export const PageSpec = z.strictObject({
  id: Id,
  order: OrderKey,
  name: z.string().max(200),
  width: Side,
  height: Side,
  paper: Paper,
  /** Hidden: no student is sent the page or anything on it. */
  hidden: z.boolean().optional(),
  /** What students may do on it, at most. */
  rules: Rules.optional(),
  /** Private notes beside the page. No student is ever sent them. */
  privateNotes: RichText.optional(),
});
export type PageSpec = z.infer<typeof PageSpec>;

/** A page and everything on it. `items` is in the order of drawing, what was removed included. */
export interface Page extends PageSpec {
  readonly removed: Removal | null;
  /** How many things were done on it that can't be read any more, if any. */
  readonly unreadable?: number | undefined;
  readonly items: ReadonlyMap<Id, Item>;
}
