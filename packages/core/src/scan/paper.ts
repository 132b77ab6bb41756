import { distance } from '../geometry/index.js';
import type { Point } from '../geometry/index.js';
import type { Quad } from './homography.js';
import { lightness, threshold } from './raster.js';
import type { Lightness, Raster } from './raster.js';
import { skewOf } from './skew.js';

/** Longer side of the picture in which paper is looked for, in pixels. */
const SIDE = 480;
/** Paper takes up at least so much of a picture, and at most: else there is no table around it. */
const LEAST = 0.12;
const MOST = 0.97;
/** How much of what is light four corners must enclose, and be filled by, to be a sheet. */
const SQUARE = 0.9;
/** How far corners are drawn in, in pixels of the picture in which they are looked for. */
const EDGE = 2;
/** Corners of a hull that are tried. */
const TRIED = 60;

/**
 * Corners of the sheet of paper on a picture, in its pixels: the largest light part, where that is a
 * quadrangle on darker ground; else the whole picture, turned so that its lines run level.
 */
export function findPaper(picture: Raster): Quad {
  const small = lightness(picture, SIDE);
  const sheet = sheetOf(small);
  if (!sheet) return turned(picture, skewOf(small));
  const { scale } = small;
  const middle = middleOf(sheet);
  return sheet.map((corner) => {
    // Its edge is somewhere in the last pixel: a little of the paper goes rather than some table stays.
    const away = distance(corner, middle);
    const part = Math.max(0, 1 - EDGE / away);
    return {
      x: (middle.x + (corner.x - middle.x) * part) * scale,
      y: (middle.y + (corner.y - middle.y) * part) * scale,
    };
  }) as unknown as Quad;
}

function sheetOf(small: Lightness): Quad | null {
  const { width, height } = small;
  const part = largestLight(small, threshold(small));
  const share = part.area / (width * height);
  if (share < LEAST || share > MOST) return null;
  const hull = thinned(hullOf(part.edge), TRIED);
  const corners = largestQuad(hull);
  if (!corners) return null;
  const area = areaOf(corners);
  if (area / (width * height) > MOST) return null;
  // Words on it are dark: what they take away from the light part isn't much.
  const isSheet = area / areaOf(hull) > SQUARE && part.area / area > SQUARE - 0.25;
  return isSheet ? clockwise(corners) : null;
}

/** The largest connected light part: how many pixels it has, and the ends of its rows. */
function largestLight(
  { width, height, data }: Lightness,
  above: number,
): { area: number; edge: Point[] } {
  const seen = new Uint8Array(width * height);
  const stack = new Int32Array(width * height);
  let best = { area: 0, seed: -1 };
  const flood = (seed: number, mark: number): number => {
    let [top, area] = [0, 0];
    stack[top++] = seed;
    seen[seed] = mark;
    const visit = (at: number): void => {
      if (seen[at] === mark || data[at]! <= above) return;
      seen[at] = mark;
      stack[top++] = at;
    };
    while (top > 0) {
      const at = stack[--top]!;
      area++;
      const x = at % width;
      if (x > 0) visit(at - 1);
      if (x < width - 1) visit(at + 1);
      if (at >= width) visit(at - width);
      if (at < width * (height - 1)) visit(at + width);
    }
    return area;
  };
  for (let at = 0; at < seen.length; at++) {
    if (seen[at] || data[at]! <= above) continue;
    const area = flood(at, 1);
    if (area > best.area) best = { area, seed: at };
  }
  const edge: Point[] = [];
  if (best.seed >= 0) {
    flood(best.seed, 2);
    for (let y = 0; y < height; y++) {
      const row = seen.subarray(y * width, (y + 1) * width);
      const [first, last] = [row.indexOf(2), row.lastIndexOf(2)];
      if (first < 0) continue;
      // A pixel is as wide as it is.
      edge.push(
        { x: first, y },
        { x: last + 1, y },
        { x: first, y: y + 1 },
        { x: last + 1, y: y + 1 },
      );
    }
  }
  return { area: best.area, edge };
}

/** The convex hull, by Andrew's monotone chain (Inf. Process. Lett. 9(5), 1979). */
function hullOf(points: readonly Point[]): Point[] {
  const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y);
  const half = (list: readonly Point[]): Point[] => {
    const chain: Point[] = [];
    for (const point of list) {
      while (chain.length > 1 && cross(chain.at(-2)!, chain.at(-1)!, point) <= 0) chain.pop();
      chain.push(point);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
}

/** Leaves out corners that take the least away, until so many are left. */
function thinned(hull: readonly Point[], count: number): Point[] {
  const left = [...hull];
  while (left.length > count) {
    let [least, at] = [Infinity, 0];
    for (let i = 0; i < left.length; i++) {
      const before = left[(i + left.length - 1) % left.length]!;
      const loss = Math.abs(cross(before, left[i]!, left[(i + 1) % left.length]!));
      if (loss < least) [least, at] = [loss, i];
    }
    left.splice(at, 1);
  }
  return left;
}

/** The four corners of a hull that enclose most: the farthest to both sides of each diagonal. */
function largestQuad(hull: readonly Point[]): Point[] | null {
  const n = hull.length;
  let best: { area: number; corners: Point[] } | null = null;
  for (let i = 0; i < n; i++)
    for (let k = i + 2; k < n; k++) {
      const farthest = (from: number, to: number): [number, Point | null] => {
        let most: [number, Point | null] = [0, null];
        for (let j = from; j < to; j++) {
          const area = Math.abs(cross(hull[i]!, hull[k]!, hull[j % n]!));
          if (area > most[0]) most = [area, hull[j % n]!];
        }
        return most;
      };
      const [one, j] = farthest(i + 1, k);
      const [other, l] = farthest(k + 1, i + n);
      if (j && l && one + other > (best?.area ?? 0))
        best = { area: one + other, corners: [hull[i]!, j, hull[k]!, l] };
    }
  return best?.corners ?? null;
}

function middleOf(corners: readonly Point[]): Point {
  return {
    x: corners.reduce((sum, { x }) => sum + x, 0) / corners.length,
    y: corners.reduce((sum, { y }) => sum + y, 0) / corners.length,
  };
}

/** From the top left clockwise, as they are seen. */
function clockwise(corners: readonly Point[]): Quad {
  const middle = middleOf(corners);
  const angle = ({ x, y }: Point): number => Math.atan2(y - middle.y, x - middle.x);
  const round = [...corners].sort((a, b) => angle(a) - angle(b));
  let first = 0;
  for (let i = 1; i < 4; i++)
    if (round[i]!.x + round[i]!.y < round[first]!.x + round[first]!.y) first = i;
  return [0, 1, 2, 3].map((i) => round[(first + i) % 4]!) as unknown as Quad;
}

/** The whole picture, turned about its middle by an angle in radians. */
function turned({ width, height }: Raster, angle: number): Quad {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ].map(([x, y]) => {
    const [dx, dy] = [x! - width / 2, y! - height / 2];
    return { x: width / 2 + dx * cos - dy * sin, y: height / 2 + dx * sin + dy * cos };
  }) as unknown as Quad;
}

function cross(a: Point, b: Point, c: Point): number {
  return (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
}

function areaOf(corners: readonly Point[]): number {
  let sum = 0;
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length]!;
    sum += a.x * b.y - b.x * a.y;
  });
  return Math.abs(sum) / 2;
}
