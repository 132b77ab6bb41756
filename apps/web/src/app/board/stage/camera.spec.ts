import { emptyBoard } from '@cuaderno/core/board';
import type { Page } from '@cuaderno/core/board';
import { clamp, MAX_ZOOM, toBoard, zoomAt, panToShow } from './camera';
import { GAP, layOut, pageAt, pagesBetween, pagesNear } from './layout';

const page = (id: string, width: number, height: number): Page => ({
  id,
  order: id,
  name: '',
  width,
  height,
  paper: { kind: 'plain' },
  removed: null,
  items: new Map(),
});

describe('the run of pages', () => {
  const run = layOut([page('a', 100, 200), page('b', 300, 100), page('c', 200, 200)]);

  it('lies below each other, each in the middle', () => {
    expect(run.width).toBe(300 + 2 * GAP);
    expect(run.pages.map(({ x }) => x)).toEqual([GAP + 100, GAP, GAP + 50]);
    expect(run.pages.map(({ y }) => y)).toEqual([GAP, 200 + 2 * GAP, 300 + 3 * GAP]);
  });

  it('gives the pages between two heights, and none that only touch', () => {
    const ids = (top: number, bottom: number) =>
      pagesBetween(run, top, bottom).map((p) => p.page.id);
    expect(ids(0, 50)).toEqual(['a']);
    expect(ids(150, 300)).toEqual(['a', 'b']);
    expect(ids(GAP + 200, 2 * GAP + 200)).toEqual([]);
  });

  it('gives the page at a height, or the nearest', () => {
    expect(pageAt(run, -50)?.page.id).toBe('a');
    expect(pageAt(run, 260)?.page.id).toBe('b');
    expect(pageAt(run, 9999)?.page.id).toBe('c');
    expect(pageAt(layOut([]), 5)).toBeUndefined();
    expect(emptyBoard('x').pages.size).toBe(0);
  });

  it('knows what comes into the window next, the nearest first, as far as there is room for it', () => {
    const long = layOut(Array.from({ length: 9 }, (_, i) => page(String(i), 100, 100)));
    const fourth = long.pages[4]!;
    const near = (area: number, above = 0): number[] =>
      pagesNear(long, fourth.y - above, fourth.y + 250, area).map(({ index }) => index);
    // Pages 4 to 6 show, the last of them in part.
    expect(near(Infinity)).toEqual([3, 7, 2, 8]);
    expect(near(20_000)).toEqual([3, 7]);
    expect(near(9_999)).toEqual([]);
  });

  it('of 5,000 pages is searched by halves', () => {
    const long = layOut(Array.from({ length: 5000 }, (_, i) => page(String(i), 100, 100)));
    expect(pagesBetween(long, long.height - 100, long.height).map((p) => p.index)).toEqual([4999]);
  });
});

describe('the camera', () => {
  const run = { width: 600, height: 5000 };
  const window = { width: 1000, height: 800 };

  it('keeps the place under the pointer where it is while zooming', () => {
    const before = { x: 40, y: 900, zoom: 1.2 };
    const at = { x: 333, y: 222 };
    const after = zoomAt(before, at, 3, 0.1);
    expect(toBoard(after, at).x).toBeCloseTo(toBoard(before, at).x, 9);
    expect(toBoard(after, at).y).toBeCloseTo(toBoard(before, at).y, 9);
  });

  it('stays over the pages, and puts what is narrow in the middle', () => {
    expect(clamp({ x: -500, y: -500, zoom: 2 }, run, window, 0.1)).toEqual({ x: 0, y: 0, zoom: 2 });
    expect(clamp({ x: 0, y: Infinity, zoom: 1 }, run, window, 0.1).y).toBe(4200);
    expect(clamp({ x: 77, y: 0, zoom: 1 }, run, window, 0.1).x).toBe(-200);
    expect(clamp({ x: 0, y: 0, zoom: 999 }, run, window, 0.1).zoom).toBe(MAX_ZOOM);
    expect(clamp({ x: 0, y: 0, zoom: 0.01 }, run, window, 0.1).zoom).toBe(0.1);
  });

  it('moves the board only as far as a place needs to be seen', () => {
    const size = { width: 800, height: 600 };
    expect(panToShow({ x: 400, y: 300 }, size)).toEqual({ x: 0, y: 0 });
    expect(panToShow({ x: 400, y: 590 }, size)).toEqual({ x: 0, y: -60 });
    expect(panToShow({ x: -30, y: 300 }, size)).toEqual({ x: 100, y: 0 });
  });
});
