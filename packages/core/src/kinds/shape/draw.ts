import { PathBuffer, polyline } from '../../display/index.js';
import type { DisplaySink } from '../../display/index.js';
import { distance } from '../../geometry/index.js';
import type { Point } from '../../geometry/index.js';
import { dashes, headSize, outlineOf } from './outline.js';
import type { ShapeSpec } from './spec.js';

/** Its inside, its outline, and the heads of a line. */
export function drawShape(shape: ShapeSpec, sink: DisplaySink): void {
  const { outline, fill, heads = 'none' } = shape;
  const { points, closed } = outlineOf(shape);
  const path = new PathBuffer();
  if (closed && fill) {
    polyline(path, points, true);
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
    polyline(path, piece, closed && !outline.dashed);
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
  polyline(
    path,
    [
      tip,
      { x: base.x - uy * half, y: base.y + ux * half },
      { x: base.x + uy * half, y: base.y - ux * half },
    ],
    true,
  );
}
