import * as z from 'zod';
import { Frame } from '../geometry/index.js';
import { Id } from '../id/index.js';
import { OrderKey } from '../order/index.js';

/** `#rrggbb` */
export const Colour = z.string().regex(/^#[0-9a-f]{6}$/, 'a colour is written as #rrggbb');

/** What every item that is laid on a page has, whatever it is. */
export const commonTraits = {
  frame: Frame,
  /** Its place among the items of its page: what comes later lies on top. */
  order: OrderKey,
  /** Material lies under the ink; what is written with other tools than the pen lies with it. */
  layer: z.enum(['material', 'ink']),
  /** Fixed in place: it isn't moved or changed by accident. */
  fixed: z.boolean().optional(),
  /** Hidden: no student is sent it. */
  hidden: z.boolean().optional(),
  /** Things of one group are chosen and moved together. */
  group: Id.nullable().optional(),
  /** The cover sheet that it was written on; on the page itself where `null`. */
  on: Id.nullable().optional(),
};

/** What an item has where it says nothing of it, whatever it is. */
export const COMMON_DEFAULTS = { fixed: false, hidden: false, group: null, on: null } as const;

/** A part of something, from 0 to 1. */
export const Part = z.number().min(0).max(1);
