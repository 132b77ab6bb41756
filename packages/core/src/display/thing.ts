import { compose, distance } from '../geometry/index.js';
import type { Matrix, Point } from '../geometry/index.js';
import {
  corners,
  dashes,
  frameMatrix,
  headSize,
  outlineOf,
  writtenMark,
} from '../material/index.js';
import type {
  FormulaSpec,
  MarkSpec,
  PictureSpec,
  ShapeSpec,
  TextSpec,
  ThingSpec,
} from '../material/index.js';
import { eastAsianIn, plainText } from '../text/index.js';
import type { DisplaySink } from './display-list.js';
import { drawCover } from './cover.js';
import { drawMedia } from './media.js';
import { readPathData } from './path-data.js';
import { PathBuffer } from './path.js';

const WHOLE = { x: 0, y: 0, width: 1, height: 1 };

/** What a thing on a page looks like. */
export function drawThing(thing: ThingSpec, sink: DisplaySink): void {
  switch (thing.kind) {
    case 'picture':
      return drawPicture(thing, sink);
    case 'shape':
      return drawShape(thing, sink);
    case 'mark':
      return drawMark(thing, sink);
    case 'text':
      return drawText(thing, sink);
    case 'formula':
      return drawFormula(thing, sink);
    case 'media':
      return drawMedia(thing, sink);
    case 'cover':
      return drawCover(thing, sink);
  }
}

function drawFormula({ frame, outline, box, colour }: FormulaSpec, sink: DisplaySink): void {
  const own: Matrix = [1 / box.width, 0, 0, 1 / box.height, 0, 0];
  const matrix = compose(own, frameMatrix(frame));
  sink.outline({ kind: 'outline', path: readPathData(outline), colour, matrix });
}

function drawPicture({ file, frame, crop }: PictureSpec, sink: DisplaySink): void {
  sink.image({ kind: 'image', file, matrix: frameMatrix(frame), crop: crop ?? WHOLE });
}

function drawShape(shape: ShapeSpec, sink: DisplaySink): void {
  const { outline, fill, heads = 'none' } = shape;
  const { points, closed } = outlineOf(shape);
  const path = new PathBuffer();
  if (closed && fill) {
    run(path, points, true);
    sink.path(path, fill, 'normal', null);
  }
  if (!outline) return;
  const { colour, width } = outline;
  const along = [...points];
  const tips: [Point, Point][] = [];
  if (!closed && heads !== 'none') tips.push(shorten(along, width));
  if (!closed && heads === 'both') tips.push(shorten(along.reverse(), width));
  path.clear();
  for (const piece of outline.dashed ? dashes(along, closed, width) : [along])
    run(path, piece, closed && !outline.dashed);
  sink.path(path, colour, 'normal', width);
  for (const [tip, base] of tips) {
    path.clear();
    head(path, tip, base, width);
    sink.path(path, colour, 'normal', null);
  }
}

/** Ends a line within the head that is put on it; returns the head's tip and the middle of its base. */
function shorten(points: Point[], width: number): [tip: Point, base: Point] {
  const tip = points.pop()!;
  const { length } = headSize(width);
  // Short pieces at the end, as of a polyline, go into the head.
  while (points.length > 1 && distance(points[points.length - 1]!, tip) < length) points.pop();
  const from = points[points.length - 1]!;
  const far = distance(from, tip) || 1;
  const at = (back: number): Point => ({
    x: tip.x + ((from.x - tip.x) / far) * back,
    y: tip.y + ((from.y - tip.y) / far) * back,
  });
  points.push(at(Math.min(far, length * 0.8)));
  return [tip, at(length)];
}

function head(path: PathBuffer, tip: Point, base: Point, width: number): void {
  const { length, half } = headSize(width);
  const [ux, uy] = [(tip.x - base.x) / length, (tip.y - base.y) / length];
  run(
    path,
    [
      tip,
      { x: base.x - uy * half, y: base.y + ux * half },
      { x: base.x + uy * half, y: base.y - ux * half },
    ],
    true,
  );
}

function drawText(item: TextSpec, sink: DisplaySink): void {
  const { frame, slip, lines, font, size, colour } = item;
  const eastAsian = eastAsianIn(plainText(item.text));
  if (slip) {
    const path = new PathBuffer();
    run(path, corners(frame), true);
    sink.path(path, slip, 'normal', null);
  }
  const { width, height } = frame;
  const [a, b, c, d, e, f] = frameMatrix(frame);
  // Points along the frame's own sides.
  const along: Matrix = [a / width, b / width, c / height, d / height, e, f];
  for (const { y, runs } of lines)
    for (const { text, x, width: wide, bold, slant, rtl } of runs)
      sink.text({
        kind: 'text',
        text,
        font,
        bold: bold ?? false,
        slant: slant ?? false,
        size,
        colour,
        width: wide,
        rtl: rtl ?? false,
        ...(eastAsian.length > 0 ? { eastAsian } : {}),
        matrix: compose([1, 0, 0, 1, x, y], along),
      });
}

function drawMark(mark: MarkSpec, sink: DisplaySink): void {
  const { runs, pen } = writtenMark(mark);
  const path = new PathBuffer();
  for (const points of runs) run(path, points, pen === null);
  sink.path(path, mark.colour, 'normal', pen);
}

function run(path: PathBuffer, points: readonly Point[], closed: boolean): void {
  points.forEach(({ x, y }, i) => (i === 0 ? path.moveTo(x, y) : path.lineTo(x, y)));
  if (closed) path.closePath();
}
