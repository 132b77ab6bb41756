import { highlightColour, InkColumns, inkColour, NO_PRESSURE } from '../ink/index.js';
import type { InkStyle, Stroke } from '../ink/index.js';
import { DisplayListBuilder } from './display-list.js';
import type { DisplayPath, DisplaySink } from './display-list.js';
import { PathBuffer } from './path.js';

/** Width at no pressure and at full pressure, as parts of the pen's width; half pressure is all of it. */
const LIGHTEST = 0.45;
const HEAVIEST = 1.55;
/** Steps in a point, in which a line swells: each an eighth of a screen pixel at full size. */
const WIDTH_STEPS = 10;
/** Pressure nearer than this to a device's that has none is none. */
const SLACK = 0.02;

const columns = new InkColumns();
const buffer = new PathBuffer();

/** What a stroke looks like, as a list. */
export function displayStroke({ style, points }: Stroke): DisplayPath[] {
  const list = new DisplayListBuilder();
  drawStroke(style, columns.fill(points), list);
  // Ink is paths and nothing else.
  return list.done() as DisplayPath[];
}

/**
 * What a stroke looks like: lines along a smooth curve with a round pen. Without pressure it is one
 * line; with pressure, pieces of one curve, each a little wider or narrower than its neighbour,
 * whose round ends lie in each other. No outline is computed, so none can cross itself.
 */
export function drawStroke(style: InkStyle, points: InkColumns, sink: DisplaySink): void {
  stretch(style, points, 0, points.count - 1, sink);
}

/** The curve of a stroke in another colour and width, as it is needed to mark it. */
export function drawLine(
  points: InkColumns,
  colour: string,
  blend: 'normal' | 'multiply',
  width: number,
  sink: DisplaySink,
): void {
  piece(points, 0, points.count - 1, colour, blend, width, sink);
}

/**
 * A part of what `displayStroke` gives, from point `from` to point `to`. Parts that follow one another look
 * like the whole. Points that come later change nothing about a part that ends before the last one, so a
 * stroke under way need not be drawn anew for each of them.
 */
export function displayStretch({ style, points }: Stroke, from: number, to: number): DisplayPath[] {
  const list = new DisplayListBuilder();
  // The point before tells where the curve comes from, the one after where it goes.
  const before = Math.max(0, from - 1);
  columns.fill(points.slice(before, to + 2));
  stretch(style, columns, from - before, to - before, list);
  return list.done() as DisplayPath[];
}

function stretch(
  style: InkStyle,
  points: InkColumns,
  start: number,
  end: number,
  sink: DisplaySink,
): void {
  const { width } = style;
  if (style.tool === 'highlighter') {
    piece(points, start, end, highlightColour(style.ink), 'multiply', width, sink);
    return;
  }
  const colour = inkColour(style.ink);
  if (!swells(points, start)) {
    piece(points, start, end, colour, 'normal', width, sink);
    return;
  }
  let from = start;
  let current = widthAt(points, start, width);
  for (let i = start + 1; i < end; i++) {
    const next = widthAt(points, i, width);
    if (next === current) continue;
    piece(points, from, i, colour, 'normal', current / WIDTH_STEPS, sink);
    from = i;
    current = next;
  }
  piece(points, from, end, colour, 'normal', current / WIDTH_STEPS, sink);
}

/** Whether the pen felt pressure, from this point on. */
function swells({ pressure, count }: InkColumns, from: number): boolean {
  for (let i = from; i < count; i++) if (Math.abs(pressure[i]! - NO_PRESSURE) > SLACK) return true;
  return false;
}

/** Width of the stretch from point `i` to the next, in whole steps. */
function widthAt({ pressure, count }: InkColumns, i: number, width: number): number {
  const mean = (pressure[i]! + pressure[i + 1 < count ? i + 1 : i]!) / 2;
  const exact = width * (LIGHTEST + (HEAVIEST - LIGHTEST) * mean);
  return Math.max(1, Math.round(exact * WIDTH_STEPS));
}

/**
 * The part of the stroke's curve from point `from` to point `to`. The whole curve goes through the
 * middles of neighbours, with the points as control points; parts begin and end in such middles, so
 * that they follow one another without a bend.
 */
function piece(
  { x, y, count }: InkColumns,
  from: number,
  to: number,
  colour: string,
  blend: 'normal' | 'multiply',
  width: number,
  sink: DisplaySink,
): void {
  const last = count - 1;
  const path = buffer;
  path.clear();
  if (from === 0) {
    const second = last > 0 ? 1 : 0;
    path.moveTo(x[0]!, y[0]!);
    if (last !== 1) path.lineTo((x[0]! + x[second]!) / 2, (y[0]! + y[second]!) / 2);
  } else {
    path.moveTo((x[from - 1]! + x[from]!) / 2, (y[from - 1]! + y[from]!) / 2);
  }
  for (let i = Math.max(1, from); i < to; i++)
    path.quadraticCurveTo(x[i]!, y[i]!, (x[i]! + x[i + 1]!) / 2, (y[i]! + y[i + 1]!) / 2);
  if (to === last && last > 0) path.lineTo(x[last]!, y[last]!);
  sink.path(path, colour, blend, width);
}
