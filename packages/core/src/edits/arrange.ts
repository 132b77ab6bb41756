import { itemsOn, pileOf, sheetAt } from '../board/index.js';
import type { Board, Item, Page, PlacedItem } from '../board/index.js';
import { compose, inverse, transform, frameMatrix, middle, MIN_FRAME } from '../geometry/index.js';
import type { Matrix, Frame } from '../geometry/index.js';
import { newId } from '../id/index.js';
import type { Id } from '../id/index.js';
import { transformInk } from '../ink/index.js';
import { placeTraits, traitNames } from '../kinds/index.js';
import { additionOf, changeItem } from '../ops/index.js';
import type { Change, ItemTraits } from '../ops/index.js';
import { keyBetween, keysBetween } from '../order/index.js';
import { frameOf, itemBounds } from './selection.js';

/*
 * What is done to items that were chosen, as the changes that do it. Items are on one page; what is
 * gone by now is passed over.
 */

/**
 * Items as they lie after their common frame went from one place to another.
 * @param alone whether nothing else is in that frame: then it is the item's own
 */
export function placed(
  items: readonly Item[],
  from: Frame,
  to: Frame,
  alone = items.length === 1,
): Item[] {
  const map = compose(inverse(frameMatrix(from)), frameMatrix(to));
  return items.map((item) => {
    if (item.kind === 'ink') return { ...item, ink: transformInk(item.ink, map) };
    const frame = alone ? to : carried(item.frame, map, from, to);
    return { ...item, ...placeTraits(item, frame) } as Item;
  });
}

/** Moves, sizes and turns items as their common frame goes from one place to another. */
export function placeItems(
  board: Board,
  page: Id,
  ids: readonly Id[],
  from: Frame,
  to: Frame,
): Change[] {
  const items = there(board, page, ids);
  return placed(items, from, to).flatMap((item) => putDown(board, page, item));
}

/** What is put down on a cover sheet, or beside one, lies there from now on. */
function putDown(board: Board, page: Id, item: Item): Change[] {
  const here = board.pages.get(page);
  const on = (here && sheetAt(here, middle(itemBounds(item)))?.id) ?? null;
  const change = changeItem(board, page, item.id, { ...placeOf(item), on });
  return change ? [change] : [];
}

function placeOf(item: Item): ItemTraits {
  if (item.kind === 'ink') return { ink: item.ink };
  return placeTraits(item, item.frame) as ItemTraits;
}

/** A frame within another that is moved, turned and sized evenly. */
function carried(frame: Frame, map: Matrix, from: Frame, to: Frame): Frame {
  const growth = Math.sqrt((to.width / from.width) * (to.height / from.height));
  const at = transform(map, middle(frame));
  const width = Math.max(MIN_FRAME, frame.width * growth);
  const height = Math.max(MIN_FRAME, frame.height * growth);
  const turn = normal(frame.turn + to.turn - from.turn);
  return { x: at.x - width / 2, y: at.y - height / 2, width, height, turn };
}

/** Degrees from -180 to 180. */
export function normal(degrees: number): number {
  const turn = ((degrees % 360) + 540) % 360;
  return turn - 180 || 0;
}

export type Edge = 'left' | 'middle' | 'right' | 'top' | 'centre' | 'bottom';

/** Lines items up along an edge of their common frame, or through its middle. */
export function alignItems(board: Board, page: Id, ids: readonly Id[], edge: Edge): Change[] {
  const here = board.pages.get(page);
  const all = here && frameOf(here, ids);
  if (!all) return [];
  return shifted(board, page, ids, (item) => {
    const box = itemBounds(item);
    switch (edge) {
      case 'left':
        return [all.x - box.x, 0];
      case 'middle':
        return [all.x + all.width / 2 - box.x - box.width / 2, 0];
      case 'right':
        return [all.x + all.width - box.x - box.width, 0];
      case 'top':
        return [0, all.y - box.y];
      case 'centre':
        return [0, all.y + all.height / 2 - box.y - box.height / 2];
      case 'bottom':
        return [0, all.y + all.height - box.y - box.height];
    }
  });
}

/** Makes the spaces between neighbours alike; the outermost stay where they are. */
export function distributeItems(
  board: Board,
  page: Id,
  ids: readonly Id[],
  along: 'across' | 'down',
): Change[] {
  const start = (item: Item): number => itemBounds(item)[along === 'across' ? 'x' : 'y'];
  const size = (item: Item): number => itemBounds(item)[along === 'across' ? 'width' : 'height'];
  const items = there(board, page, ids).sort((a, b) => start(a) - start(b));
  if (items.length < 3) return [];
  const end = Math.max(...items.map((item) => start(item) + size(item)));
  const total = items.reduce((sum, item) => sum + size(item), 0);
  const space = (end - start(items[0]!) - total) / (items.length - 1);
  const places = new Map<Id, number>();
  let at = start(items[0]!);
  for (const item of items) {
    places.set(item.id, at - start(item));
    at += size(item) + space;
  }
  return shifted(board, page, ids, (item) => {
    const by = places.get(item.id) ?? 0;
    return along === 'across' ? [by, 0] : [0, by];
  });
}

/** Moves items by so many points. */
export function nudgeItems(
  board: Board,
  page: Id,
  ids: readonly Id[],
  dx: number,
  dy: number,
): Change[] {
  return shifted(board, page, ids, () => [dx, dy]);
}

/** Brings material above or below all other on its page, keeping the order among itself. */
export function orderItems(
  board: Board,
  page: Id,
  ids: readonly Id[],
  where: 'front' | 'back',
): Change[] {
  const here = board.pages.get(page);
  if (!here) return [];
  return pileOf(here).flatMap(({ material }) => orderAmong(board, page, material, ids, where));
}

function orderAmong(
  board: Board,
  page: Id,
  all: readonly PlacedItem[],
  ids: readonly Id[],
  where: 'front' | 'back',
): Change[] {
  const chosen = all.filter(({ id }) => ids.includes(id));
  const others = all.filter(({ id }) => !ids.includes(id));
  if (chosen.length === 0 || others.length === 0) return [];
  const keys =
    where === 'front'
      ? keysBetween(others.at(-1)!.order, null, chosen.length)
      : keysBetween(null, others[0]!.order, chosen.length);
  return chosen.flatMap(({ id }, i) => changeItem(board, page, id, { order: keys[i]! }) ?? []);
}

/** Makes a group of things, or breaks up the groups they are in. Ink isn't grouped. */
export function groupItems(
  board: Board,
  page: Id,
  ids: readonly Id[],
  together: boolean,
): Change[] {
  return traitItems(board, page, ids, { group: together ? newId() : null });
}

/** Changes the same about all of the items that can have it. */
export function traitItems(board: Board, page: Id, ids: readonly Id[], to: ItemTraits): Change[] {
  return there(board, page, ids).flatMap((item) =>
    item.kind === 'ink' ? [] : (changeItem(board, page, item.id, fitting(item, to)) ?? []),
  );
}

/** What of these traits this kind of thing has. */
function fitting(item: PlacedItem, to: ItemTraits): ItemTraits {
  const has = traitNames(item.kind);
  return Object.fromEntries(Object.entries(to).filter(([name]) => has.includes(name)));
}

/** The place above all items of a page. */
export function topOrder(page: Page): string {
  return keyBetween(highest(page), null);
}

function highest(page: Page): string | null {
  return itemsOn(page).reduce<string | null>(
    (top, item) => (item.kind !== 'ink' && (top === null || item.order > top) ? item.order : top),
    null,
  );
}

/** Copies of items on a page, moved by so many points; ids of the copies, in order. */
export function layCopies(
  page: Page,
  items: readonly Item[],
  dx: number,
  dy: number,
): { changes: (Change & { id: Id })[]; ids: Id[] } {
  const placed = items.filter((item) => item.kind !== 'ink');
  const orders = keysBetween(highest(page), null, placed.length);
  const groups = new Map<Id, Id>();
  const changes = items.map((item) => {
    const moved = shiftItem(item, dx, dy);
    const id = newId();
    if (moved.kind === 'ink') return { ...additionOf(moved, page.id), id };
    const order = orders[placed.indexOf(item as PlacedItem)]!;
    let group = moved.group ?? null;
    if (group) {
      if (!groups.has(group)) groups.set(group, newId());
      group = groups.get(group)!;
    }
    return { ...additionOf({ ...moved, order, group }, page.id), id };
  });
  return { changes, ids: changes.map(({ id }) => id) };
}

function shiftItem<I extends Item>(item: I, dx: number, dy: number): I {
  if (item.kind === 'ink') return { ...item, ink: transformInk(item.ink, [1, 0, 0, 1, dx, dy]) };
  const { frame } = item as PlacedItem;
  return { ...item, frame: { ...frame, x: frame.x + dx, y: frame.y + dy } };
}

function shifted(
  board: Board,
  page: Id,
  ids: readonly Id[],
  by: (item: Item) => [dx: number, dy: number],
): Change[] {
  return there(board, page, ids).flatMap((item) => {
    const [dx, dy] = by(item);
    if (Math.abs(dx) < 1e-6 && Math.abs(dy) < 1e-6) return [];
    return putDown(board, page, shiftItem(item, dx, dy));
  });
}

function there(board: Board, page: Id, ids: readonly Id[]): Item[] {
  const here = board.pages.get(page);
  const meant = new Set(ids);
  return here ? itemsOn(here).filter(({ id }) => meant.has(id)) : [];
}
