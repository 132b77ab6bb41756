import { itemsOn, pileAt, pileOf, sheetAt } from '../board/index.js';
import type { Item, Page } from '../board/index.js';
import { bounds, overlaps, frameBounds, inside, middle, MIN_FRAME } from '../geometry/index.js';
import type { Point, Rect, Frame } from '../geometry/index.js';
import type { Id } from '../id/index.js';
import { decodeStroke, strokeBounds, touches } from '../ink/index.js';
import type { Stroke } from '../ink/index.js';
import { isItemAt, outlinePoints } from '../kinds/index.js';

/*
 * What is meant by a touch, a box or a lasso on a page. Whole groups are meant by any of their
 * members; what is fixed is meant by a touch alone, to loosen it.
 */

const strokes = new WeakMap<Uint8Array, Stroke>();

/** A line's points; decoded once, since ink never changes. */
export function strokeOf(ink: Uint8Array): Stroke {
  let stroke = strokes.get(ink);
  if (!stroke) strokes.set(ink, (stroke = decodeStroke(ink)));
  return stroke;
}

/** The upright box around an item, in points. */
export function itemBounds(item: Item): Rect {
  return item.kind === 'ink' ? strokeBounds(strokeOf(item.ink)) : frameBounds(item.frame);
}

/** The topmost item at a place, or nearer to it than `slack` points. */
export function itemAt(page: Page, p: Point, slack: number): Item | null {
  const topDown = [...pileAt(page, p)]
    .reverse()
    .flatMap(({ ink, material }) => [...[...ink].reverse(), ...[...material].reverse()]);
  return (
    topDown.find((item) =>
      item.kind === 'ink' ? touches(strokeOf(item.ink), p, p, slack) : isItemAt(item, p, slack),
    ) ?? null
  );
}

/** Items that are in sight: their middle is under no cover sheet. The sheets themselves aren't among them. */
export function inSight(page: Page): Item[] {
  const pile = pileOf(page);
  if (pile.length === 1) return [...pile[0]!.material, ...pile[0]!.ink];
  return pile.flatMap(({ cover, material, ink }, i) =>
    [...material, ...ink].filter((item) => {
      const over = sheetAt(page, middle(itemBounds(item)));
      return over === cover || pile.findIndex((sheet) => sheet.cover === over) < i;
    }),
  );
}

/** Items that lie in a box with all they have. */
export function itemsInBox(page: Page, box: Rect): Id[] {
  return meantBy(page, (item) => {
    const own = itemBounds(item);
    return (
      own.x >= box.x &&
      own.y >= box.y &&
      own.x + own.width <= box.x + box.width &&
      own.y + own.height <= box.y + box.height
    );
  });
}

/** Items of which a lasso goes round all, or nearly all: nine points of ten. */
export function itemsInLasso(page: Page, lasso: readonly Point[]): Id[] {
  const around = bounds(lasso);
  if (!around || lasso.length < 3) return [];
  return meantBy(page, (item) => {
    if (!overlaps(around, itemBounds(item))) return false;
    const points = pointsOf(item);
    const caught = points.filter((p) => inside(lasso, p)).length;
    return caught >= points.length * 0.9;
  });
}

function pointsOf(item: Item): readonly Point[] {
  if (item.kind === 'ink') return strokeOf(item.ink).points;
  return outlinePoints(item);
}

function meantBy(page: Page, isMeant: (item: Item) => boolean): Id[] {
  const ids = inSight(page)
    .filter((item) => (item.kind === 'ink' || !item.fixed) && isMeant(item))
    .map(({ id }) => id);
  return wholeGroups(page, ids);
}

/** These items, and all that are in a group with one of them. */
export function wholeGroups(page: Page, ids: readonly Id[]): Id[] {
  const groups = new Set<Id>();
  for (const id of ids) {
    const item = page.items.get(id);
    if (item && item.kind !== 'ink' && item.group) groups.add(item.group);
  }
  const meant = new Set(ids);
  return itemsOn(page)
    .filter((item) => meant.has(item.id) || (item.kind !== 'ink' && groups.has(item.group ?? '')))
    .map(({ id }) => id);
}

/**
 * The frame around items, by which they are moved, sized and turned together: a single thing's own;
 * else upright around all. `null` where none is there.
 */
export function frameOf(page: Page, ids: readonly Id[]): Frame | null {
  const items = ids.flatMap((id) => {
    const item = page.items.get(id);
    return item && !item.removed ? [item] : [];
  });
  const [only] = items;
  if (!only) return null;
  if (items.length === 1 && only.kind !== 'ink') return only.frame;
  const boxes = items.map(itemBounds);
  const { x, y, width, height } = bounds(
    boxes.flatMap((b) => [b, { x: b.x + b.width, y: b.y + b.height }]),
  )!;
  return { x, y, width: Math.max(MIN_FRAME, width), height: Math.max(MIN_FRAME, height), turn: 0 };
}
