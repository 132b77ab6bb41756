import { hasPressure, highlightColour, inkColour } from '../ink/index.js';
import type { InkPoint, Stroke } from '../ink/index.js';
import type { DisplayPath } from './display-list.js';
import { PathBuilder } from './path.js';
import type { Path } from './path.js';

/** Width at no pressure and at full pressure, as parts of the pen's width; half pressure is all of it. */
const LIGHTEST = 0.45;
const HEAVIEST = 1.55;
/** Steps, in points, in which a line swells: an eighth of a screen pixel at full size. */
const WIDTH_STEP = 0.1;

/**
 * What a stroke looks like: lines along a smooth curve with a round pen. Without pressure it is one
 * line; with pressure, pieces of one curve, each a little wider or narrower than its neighbour,
 * whose round ends lie in each other. No outline is computed, so none can cross itself.
 */
export function displayStroke({ style, points }: Stroke): DisplayPath[] {
  const { width } = style;
  if (style.tool === 'highlighter') {
    const colour = highlightColour(style.ink);
    const path = curve(points, 0, points.length - 1);
    return [{ kind: 'path', path, colour, blend: 'multiply', paint: { width } }];
  }
  const colour = inkColour(style.ink);
  const piece = (from: number, to: number, w: number): DisplayPath => ({
    kind: 'path',
    path: curve(points, from, to),
    colour,
    blend: 'normal',
    paint: { width: w },
  });
  const last = points.length - 1;
  if (last === 0 || !hasPressure(points)) {
    const only = hasPressure(points) ? widthAt(points, 0, width) : width;
    return [piece(0, last, only)];
  }
  const pieces: DisplayPath[] = [];
  let from = 0;
  let current = widthAt(points, 0, width);
  for (let i = 1; i < last; i++) {
    const next = widthAt(points, i, width);
    if (next === current) continue;
    pieces.push(piece(from, i, current));
    from = i;
    current = next;
  }
  pieces.push(piece(from, last, current));
  return pieces;
}

/** Width of the stretch from point `i` to the next, in whole steps. */
function widthAt(points: readonly InkPoint[], i: number, width: number): number {
  const pressure = (points[i]!.pressure + points[Math.min(i + 1, points.length - 1)]!.pressure) / 2;
  const exact = width * (LIGHTEST + (HEAVIEST - LIGHTEST) * pressure);
  return Math.max(1, Math.round(exact / WIDTH_STEP)) * WIDTH_STEP;
}

/**
 * The part of the stroke's curve from point `from` to point `to`. The whole curve goes through the
 * middles of neighbours, with the points as control points; parts begin and end in such middles, so
 * that they follow one another without a bend.
 */
function curve(points: readonly InkPoint[], from: number, to: number): Path {
  const path = new PathBuilder();
  const first = points[from]!;
  const last = points.length - 1;
  if (from === 0) {
    const second = points[1] ?? first;
    path.moveTo(first.x, first.y);
    if (last !== 1) path.lineTo((first.x + second.x) / 2, (first.y + second.y) / 2);
  } else {
    const before = points[from - 1]!;
    path.moveTo((before.x + first.x) / 2, (before.y + first.y) / 2);
  }
  for (let i = Math.max(1, from); i < to; i++) {
    const p = points[i]!;
    const next = points[i + 1]!;
    path.quadraticCurveTo(p.x, p.y, (p.x + next.x) / 2, (p.y + next.y) / 2);
  }
  if (to === last && last > 0) path.lineTo(points[last]!.x, points[last]!.y);
  return path.done();
}
