import { coversOn, sheetAt } from '../board/index.js';
import type { Board, Page } from '../board/index.js';
import { frameBounds, middle } from '../geometry/index.js';
import type { CoverSpec } from '../kinds/index.js';
import type { Frame } from '../geometry/index.js';
import type { Id } from '../id/index.js';
import { changeItem } from '../ops/index.js';
import type { Change, Operation } from '../ops/index.js';
import { keysBetween } from '../order/index.js';
import { strokeOf } from './selection.js';
import { topOrder } from './arrange.js';

/** How a page is covered: by one sheet, or by two that are lifted each by itself. */
export type Covering = 'whole' | 'beside' | 'above';

/** How much of the page shows around a sheet, in points: so one sees that it is one. */
const RIM = 8;

/** Lays cover sheets on a page. @param tint `#rrggbb` */
export function layCover(page: Page, covering: Covering, tint: string): Change[] {
  const frames = framesOf(page, covering);
  const orders = keysBetween(topOrder(page), null, frames.length);
  return frames.map((frame, i) => {
    const item: CoverSpec = { kind: 'cover', frame, order: orders[i]!, layer: 'ink', tint };
    return { kind: 'item.add', page: page.id, item };
  });
}

function framesOf({ width, height }: Page, covering: Covering): Frame[] {
  // A very small page is covered all the same.
  const rim = Math.min(RIM, width / 10, height / 10);
  const whole = { x: rim, y: rim, width: width - 2 * rim, height: height - 2 * rim, turn: 0 };
  if (covering === 'whole') return [whole];
  if (covering === 'beside') {
    const half = (whole.width - rim) / 2;
    return [
      { ...whole, width: half },
      { ...whole, width: half, x: rim + half + rim },
    ];
  }
  const half = (whole.height - rim) / 2;
  return [
    { ...whole, height: half },
    { ...whole, height: half, y: rim + half + rim },
  ];
}

/**
 * What is added to a page says which cover sheet it is written on: the one where a line begins, or
 * where the middle of an item is. What says so already is left alone.
 */
export function onItsSheet<C extends Change | Operation>(board: Board, change: C): C {
  if (change.kind !== 'ink.add' && change.kind !== 'item.add') return change;
  const page = board.pages.get(change.page);
  if (!page) return change;
  if (change.kind === 'ink.add') {
    if (change.on !== undefined) return change;
    const on = sheetAt(page, strokeOf(change.ink).points[0]!)?.id;
    return on ? { ...change, on } : change;
  }
  const { item } = change;
  if (item.kind === 'cover' || item.on !== undefined) return change;
  const on = sheetAt(page, middle(frameBounds(item.frame)))?.id;
  return on ? { ...change, item: { ...item, on } } : change;
}

/** Lifts cover sheets off a page, or lays them on it again, with what is written on them. */
export function liftCovers(board: Board, page: Id, ids: readonly Id[], lifted: boolean): Change[] {
  const here = board.pages.get(page);
  if (!here) return [];
  const meant = coversOn(here).filter(({ id }) => ids.includes(id));
  // What is laid again comes to lie on top, in the order in which it lay.
  const orders = keysBetween(topOrder(here), null, meant.length);
  return meant.flatMap(({ id }, i) => {
    const to = lifted ? { lifted } : { lifted, order: orders[i]! };
    return changeItem(board, page, id, to) ?? [];
  });
}

/** Where on its page a sheet lies. */
export type CoverPlace = 'whole' | 'left' | 'right' | 'top' | 'bottom';

export function coverPlace(page: Page, { frame }: CoverSpec): CoverPlace {
  const { x, y } = middle(frame);
  if (frame.width < page.width * 0.7) return x < page.width / 2 ? 'left' : 'right';
  if (frame.height < page.height * 0.7) return y < page.height / 2 ? 'top' : 'bottom';
  return 'whole';
}
