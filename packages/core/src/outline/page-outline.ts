import { drawnOn } from '../board/index.js';
import type { Item, Page } from '../board/index.js';
import { itemBounds } from '../edits/index.js';
import type { Rect } from '../geometry/index.js';
import type { Id } from '../id/index.js';
import { spokenItem } from '../kinds/index.js';

/** Something on a page, in words for who can't see it. */
export interface OutlinePart {
  /** Stays the same while it is the same thing, so that who reads it isn't thrown off it. */
  readonly id: string;
  readonly words: string;
}

/** Items whose tops are no further apart, in points, stand in one line and are read from left to right. */
const LINE = 12;
const DOWN = ['top', 'middle', 'bottom'];
const ACROSS = ['left', 'centre', 'right'];

/** Where an item lies never changes: another one takes its place when it is moved. */
const known = new WeakMap<Item, Rect>();

function boundsOf(item: Item): Rect {
  const rect = known.get(item) ?? itemBounds(item);
  known.set(item, rect);
  return rect;
}

interface Part extends OutlinePart {
  readonly x: number;
  readonly y: number;
}

/** “Ida wrote 12 lines, top left”: ink says nothing of itself, but whose it is, how much and where. */
function writing(page: Page, lines: readonly Item[], nameOf: (by: Id) => string | null): Part[] {
  const places = new Map<
    string,
    Part & { readonly by: Id; readonly where: string; count: number }
  >();
  for (const line of lines) {
    const { x, y, width, height } = boundsOf(line);
    const part = (at: number, size: number): number =>
      Math.min(2, Math.max(0, Math.floor((3 * at) / size)));
    const [across, down] = [part(x + width / 2, page.width), part(y + height / 2, page.height)];
    const id = `${line.by} ${down} ${across}`;
    const before = places.get(id);
    places.set(id, {
      ...{ id, by: line.by, words: '', where: `${DOWN[down]} ${ACROSS[across]}` },
      ...{ x: Math.min(x, before?.x ?? x), y: Math.min(y, before?.y ?? y) },
      count: (before?.count ?? 0) + 1,
    });
  }
  return [...places.values()].map(({ by, where, count, ...part }) => ({
    ...part,
    words: `${nameOf(by) ?? 'Someone'} wrote ${count === 1 ? 'one line' : `${count} lines`}, ${where}`,
  }));
}

/**
 * What lies on a page besides what is printed on it, in reading order: from top to bottom and, in a line, from left to
 * right. Ink is gathered by who wrote it and where: in thirds of the page, down and across.
 *
 * @param nameOf who somebody is; `null` where that isn't known
 */
export function pageOutline(page: Page, nameOf: (by: Id) => string | null): OutlinePart[] {
  const items = drawnOn(page);
  const placed = items.flatMap((item): Part[] => {
    if (item.kind === 'ink') return [];
    const { x, y } = boundsOf(item);
    return [{ id: item.id, words: spokenItem(item), x, y }];
  });
  const written = writing(
    page,
    items.filter(({ kind }) => kind === 'ink'),
    nameOf,
  );
  const all = [...placed, ...written].sort((a, b) => a.y - b.y);
  // Lines are begun by their topmost part, so that the order is one whatever stands close together.
  const rows: Part[][] = [];
  for (const part of all) {
    const row = rows.at(-1);
    if (row && part.y - row[0]!.y <= LINE) row.push(part);
    else rows.push([part]);
  }
  return rows.flatMap((row) =>
    row.sort((a, b) => a.x - b.x).map(({ id, words }) => ({ id, words })),
  );
}
