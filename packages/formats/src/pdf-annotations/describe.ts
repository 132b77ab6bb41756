import {
  drawItem,
  Extent,
  highlightColour,
  inkColour,
  InkColumns,
  readStroke,
} from '@cuaderno/core';
import type { InkStyle, Item, ItemSpec, Matrix, Rect } from '@cuaderno/core';
import { rgbOf, round } from './annotation.js';
import type { Annotation } from './annotation.js';
import { describeItem } from './kinds/index.js';
import { mapped, rectOf, scaleOf } from './mapping.js';
import { PLAIN } from './plain.js';

/** A line with pressure is drawn so much wider than its pen at most: see `display/ink.ts`. */
const HEAVIEST = 1.55;
/** How far a highlighter's line may stray from a straight one to be a highlight of words, in parts of its width. */
const STRAIGHT = 0.25;

const columns = new InkColumns();
const extent = new Extent();

/**
 * What is written on a page in the words of the standard.
 * @param map from points on the page to the PDF's user space
 */
export function describe(item: Item, map: Matrix): Annotation {
  return item.kind === 'ink' ? ofStroke(readStroke(item.ink, columns), map) : ofItem(item, map);
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

function ofItem(item: ItemSpec, map: Matrix): Annotation {
  drawItem(item, extent);
  const whole = extent.take();
  return describeItem(item, rectOf(whole ?? item.frame, map), map);
}
