import * as z from 'zod';
import { Id } from '../id/index.js';
import { Rules } from '../permissions/index.js';
import type { Board } from './board.js';
import { PageSpec } from './page.js';
import { KIND_SCHEMAS } from '../kinds/index.js';
import type { Item } from './item.js';
import type { Page } from './page.js';
import { Sheet } from './paper.js';

const bytes = z.custom<Uint8Array>((value) => value instanceof Uint8Array, 'bytes are expected');
export const RemovalSnapshot = z.object({ by: Id, at: z.number() }).nullable();

const origin = { id: Id, by: Id, at: z.number(), lesson: Id.nullable(), removed: RemovalSnapshot };
const inkSnapshot = z.object({
  kind: z.literal('ink'),
  ink: bytes,
  of: Id.optional(),
  on: Id.nullable().optional(),
  ...origin,
});

/** An item as plain data. */
export const ItemSnapshot = z.discriminatedUnion('kind', [
  inkSnapshot,
  ...KIND_SCHEMAS.map((schema) => schema.extend(origin)),
] as never) as unknown as z.ZodType<Item>;

/** A page and its items as plain data: what a checkpoint keeps and a browser is sent. */
export const PageSnapshot = PageSpec.extend({
  removed: RemovalSnapshot,
  unreadable: z.number().int().min(1).optional(),
  items: z.array(ItemSnapshot),
});
export type PageSnapshot = z.infer<typeof PageSnapshot>;

/** A whole board as plain data, as it was after operation number `seq` of its log. */
export const BoardSnapshot = z.object({
  id: Id,
  title: z.string(),
  sheet: Sheet.nullable(),
  rules: Rules,
  seq: z.number().int().min(0),
  pages: z.array(PageSnapshot),
});
export type BoardSnapshot = z.infer<typeof BoardSnapshot>;

export function pageSnapshot(page: Page): PageSnapshot {
  return { ...page, items: [...page.items.values()] };
}

export function boardSnapshot(board: Board, seq: number): BoardSnapshot {
  return {
    id: board.id,
    title: board.title,
    sheet: board.sheet,
    rules: board.rules,
    seq,
    pages: [...board.pages.values()].map(pageSnapshot),
  };
}

export function pageFromSnapshot(snapshot: PageSnapshot): Page {
  const items = new Map<Id, Item>(snapshot.items.map((item) => [item.id, item]));
  return { ...snapshot, items };
}

export function boardFromSnapshot(snapshot: BoardSnapshot): Board {
  return {
    id: snapshot.id,
    title: snapshot.title,
    sheet: snapshot.sheet,
    rules: snapshot.rules,
    pages: new Map(snapshot.pages.map((page) => [page.id, pageFromSnapshot(page)])),
  };
}
