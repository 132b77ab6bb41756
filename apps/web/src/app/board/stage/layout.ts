import type { Page } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';

/** Space between pages and around them, in points. */
export const GAP = 18;

/** A page's place in the run of pages, in points from the top left of the whole run. */
export interface Placed {
  readonly page: Page;
  readonly index: number;
  readonly x: number;
  readonly y: number;
}

/** All pages below each other, each in the middle. */
export interface PageRun {
  readonly pages: readonly Placed[];
  readonly width: number;
  readonly height: number;
}

export function layOut(pages: readonly Page[]): PageRun {
  const width = Math.max(1, ...pages.map((page) => page.width)) + 2 * GAP;
  let y = GAP;
  const placed = pages.map((page, index) => {
    const here = { page, index, x: (width - page.width) / 2, y };
    y += page.height + GAP;
    return here;
  });
  return { pages: placed, width, height: Math.max(1, y) };
}

/** Index of the first page that ends below `y`; found by halves, for boards of thousands of pages. */
function firstBelow(run: PageRun, y: number): number {
  let low = 0;
  let high = run.pages.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    const { y: top, page } = run.pages[middle]!;
    if (top + page.height <= y) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Pages that show between two heights. */
export function pagesBetween(run: PageRun, top: number, bottom: number): Placed[] {
  const shown: Placed[] = [];
  for (let i = firstBelow(run, top); i < run.pages.length; i++) {
    const placed = run.pages[i]!;
    if (placed.y >= bottom) break;
    shown.push(placed);
  }
  return shown;
}

/**
 * Pages that come next, above or below what shows between two heights, the nearest first.
 * @param area of them all, in square points, at most
 */
export function pagesNear(run: PageRun, top: number, bottom: number, area: number): Placed[] {
  const room = bottom - top;
  const away = ({ y, page }: Placed): number => Math.max(y - bottom, top - (y + page.height));
  const near: Placed[] = [];
  let left = area;
  for (const placed of pagesBetween(run, top - room, bottom + room)
    .filter((one) => away(one) >= 0)
    .sort((a, b) => away(a) - away(b))) {
    left -= placed.page.width * placed.page.height;
    if (left < 0) break;
    near.push(placed);
  }
  return near;
}

/** The page at a place, or the nearest one above or below. */
export function pageAt(run: PageRun, y: number): Placed | undefined {
  return run.pages[Math.min(firstBelow(run, y - GAP / 2), run.pages.length - 1)];
}

export function placeOf(run: PageRun, page: Id): Placed | undefined {
  return run.pages.find((placed) => placed.page.id === page);
}
