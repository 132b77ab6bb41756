import {
  drawThing,
  Extent,
  frameMatrix,
  highlightColour,
  inkColour,
  InkColumns,
  isRtl,
  outlineOf,
  plainText,
  readStroke,
  transform,
} from '@cuaderno/core';
import type {
  InkStyle,
  Item,
  Matrix,
  PdfRect,
  Point,
  Rect,
  ShapeSpec,
  TextSpec,
  ThingSpec,
} from '@cuaderno/core';
import { rgbOf, round } from './annotation.js';
import type { Annotation, Rgb } from './annotation.js';

/** A line with pressure is drawn so much wider than its pen at most: see `display/ink.ts`. */
const HEAVIEST = 1.55;
/** How far a highlighter's line may stray from a straight one to be a highlight of words, in parts of its width. */
const STRAIGHT = 0.25;
/** Corners by which an ellipse that is turned is told. */
const ROUND = 48;

const columns = new InkColumns();
const extent = new Extent();

/** What is told of every annotation unless it is said otherwise. */
const PLAIN = {
  contents: '',
  colour: null,
  interior: null,
  width: 0,
  dashed: false,
  inset: 0,
  runs: [],
  endings: null,
  words: null,
} as const;

/**
 * What is written on a page in the words of the standard.
 * @param map from points on the page to the PDF's user space
 */
export function describe(item: Item, map: Matrix): Annotation {
  return item.kind === 'ink' ? ofStroke(readStroke(item.ink, columns), map) : ofThing(item, map);
}

function ofStroke(style: InkStyle, map: Matrix): Annotation {
  const scale = scaleOf(map);
  const width = round(style.width * scale);
  const rect = rectOf(inkBounds(style.width), map);
  if (style.tool === 'highlighter') {
    const colour = rgbOf(highlightColour(style.ink));
    const quad = quadOf(style.width);
    if (quad) return { ...PLAIN, kind: 'Highlight', rect, colour, runs: [mapped(quad, map)] };
    return { ...PLAIN, kind: 'Ink', rect, colour, width, runs: [mapped(curve(), map)] };
  }
  const colour = rgbOf(inkColour(style.ink));
  return { ...PLAIN, kind: 'Ink', rect, colour, width, runs: [mapped(curve(), map)] };
}

/** Points that lie on the curve as it is drawn: its ends, and the middle of each of its bends. */
function curve(): number[] {
  const { x, y, count } = columns;
  const run = [x[0]!, y[0]!];
  // A dot is a line too.
  if (count === 1) run.push(x[0]!, y[0]!);
  for (let i = 1; i < count - 1; i++)
    run.push((x[i - 1]! + 6 * x[i]! + x[i + 1]!) / 8, (y[i - 1]! + 6 * y[i]! + y[i + 1]!) / 8);
  if (count > 1) run.push(x[count - 1]!, y[count - 1]!);
  return run;
}

/** Corners of a straight line of the highlighter, in the order in which they are told; `null` where it bends. */
function quadOf(width: number): number[] | null {
  const { x, y, count } = columns;
  let [ax, ay, bx, by] = [x[0]!, y[0]!, x[count - 1]!, y[count - 1]!];
  const length = Math.hypot(bx - ax, by - ay);
  if (length < width) return null;
  for (let i = 1; i < count - 1; i++) {
    const off = Math.abs((bx - ax) * (y[i]! - ay) - (by - ay) * (x[i]! - ax)) / length;
    const along = ((x[i]! - ax) * (bx - ax) + (y[i]! - ay) * (by - ay)) / length;
    if (off > width * STRAIGHT || along < -width || along > length + width) return null;
  }
  // Words are read from the left.
  if (bx < ax) [ax, ay, bx, by] = [bx, by, ax, ay];
  const [nx, ny] = [(-(by - ay) / length) * (width / 2), ((bx - ax) / length) * (width / 2)];
  // Upper left, upper right, lower left, lower right: as programs have it, whatever 12.5.6.10 says of the order
  // (common practice, no source).
  return [ax - nx, ay - ny, bx - nx, by - ny, ax + nx, ay + ny, bx + nx, by + ny];
}

function inkBounds(width: number): Rect {
  const { x, y, count } = columns;
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < count; i++) {
    left = Math.min(left, x[i]!);
    right = Math.max(right, x[i]!);
    top = Math.min(top, y[i]!);
    bottom = Math.max(bottom, y[i]!);
  }
  const reach = (width * HEAVIEST) / 2 + 0.5;
  return {
    x: left - reach,
    y: top - reach,
    width: right - left + 2 * reach,
    height: bottom - top + 2 * reach,
  };
}

function ofThing(thing: ThingSpec, map: Matrix): Annotation {
  drawThing(thing, extent);
  const whole = extent.take();
  const rect = rectOf(whole ?? thing.frame, map);
  switch (thing.kind) {
    case 'text':
      return ofText(thing, rect, scaleOf(map));
    case 'shape':
      return ofShape(thing, rect, map);
    case 'cover':
      return { ...PLAIN, kind: 'Square', rect, interior: rgbOf(thing.tint) };
    case 'mark':
      return { ...PLAIN, kind: 'Stamp', rect, contents: thing.mark };
    case 'formula':
      return { ...PLAIN, kind: 'Stamp', rect, contents: thing.source };
    case 'picture':
      return { ...PLAIN, kind: 'Stamp', rect, contents: thing.alt ?? '' };
    case 'media':
      return { ...PLAIN, kind: 'Stamp', rect, contents: thing.name };
  }
}

function ofText(item: TextSpec, rect: PdfRect, scale: number): Annotation {
  const contents = plainText(item.text);
  const ends = { start: 0, middle: 1, end: 2 } as const;
  const align = ends[item.align];
  return {
    ...PLAIN,
    kind: 'FreeText',
    rect,
    contents,
    colour: item.slip ? rgbOf(item.slip) : null,
    words: {
      size: round(item.size * scale),
      colour: rgbOf(item.colour),
      align: isRtl(contents) && align !== 1 ? ((2 - align) as 0 | 2) : align,
    },
  };
}

function ofShape(shape: ShapeSpec, rect: PdfRect, map: Matrix): Annotation {
  const { outline, fill, heads = 'none' } = shape;
  const width = outline ? round(outline.width * scaleOf(map)) : 0;
  const colour: Rgb | null = outline ? rgbOf(outline.colour) : null;
  const interior = fill ? rgbOf(fill) : null;
  const common = { ...PLAIN, rect, colour, interior, width, dashed: outline?.dashed ?? false };
  const upright = shape.frame.turn % 90 === 0;
  switch (shape.shape) {
    case 'line': {
      const { points } = outlineOf(shape);
      const endings = [
        heads === 'both' ? 'ClosedArrow' : 'None',
        heads === 'none' ? 'None' : 'ClosedArrow',
      ] as const;
      const runs = [mapped(flat(points), map)];
      // The inside of a line is that of its heads.
      const inside = heads === 'none' ? null : colour;
      return {
        ...common,
        kind: points.length === 2 ? 'Line' : 'PolyLine',
        interior: inside,
        runs,
        endings,
      };
    }
    case 'box':
      if (upright) return { ...common, kind: 'Square', inset: round(width / 2) };
      break;
    case 'ellipse': {
      if (upright) return { ...common, kind: 'Circle', inset: round(width / 2) };
      const matrix = frameMatrix(shape.frame);
      const points = Array.from({ length: ROUND }, (_, i) => {
        const angle = (2 * Math.PI * i) / ROUND;
        return transform(matrix, { x: 0.5 + Math.cos(angle) / 2, y: 0.5 + Math.sin(angle) / 2 });
      });
      return { ...common, kind: 'Polygon', runs: [mapped(flat(points), map)] };
    }
    default:
  }
  return { ...common, kind: 'Polygon', runs: [mapped(flat(outlineOf(shape).points), map)] };
}

function flat(points: readonly Point[]): number[] {
  return points.flatMap(({ x, y }) => [x, y]);
}

/** The same run in the PDF's user space, rounded as it is written. */
function mapped(run: readonly number[], [a, b, c, d, e, f]: Matrix): number[] {
  const out: number[] = [];
  for (let i = 0; i < run.length; i += 2) {
    const [x, y] = [run[i]!, run[i + 1]!];
    out.push(round(a * x + c * y + e), round(b * x + d * y + f));
  }
  return out;
}

function rectOf({ x, y, width, height }: Rect, map: Matrix): PdfRect {
  const [ax, ay, bx, by] = mapped([x, y, x + width, y + height], map) as [
    number,
    number,
    number,
    number,
  ];
  return [Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by)];
}

/** Units of user space in a point. */
function scaleOf([a, b]: Matrix): number {
  return Math.hypot(a, b);
}
