import type { InkItem } from '../board/index.js';
import { bounds, distance, distanceToSegment, thin, MIN_FRAME, turned } from '../geometry/index.js';
import type { Point, Frame } from '../geometry/index.js';
import { inkColour } from '../ink/index.js';
import type { ShapeSpec } from '../kinds/index.js';
import { strokeOf } from './selection.js';

/** How far a hand strays from a straight line, as part of its length. */
const STRAY = 0.055;
/** How near the end comes to the start where a shape was meant, as part of the way round. */
const CLOSED = 0.2;
/** How far a corner may be from a right angle, and a side from level, in degrees. */
const RIGHT = 22;
const LEVEL = 12;
/** How far a drawn ellipse strays from a true one, as part of its radius, on the average. */
const ROUND = 0.12;
/** Longest head of an arrow, as part of its length. */
const HEAD = 0.4;
/** Shortest line that is tidied, in points. */
const LEAST = 8;

/**
 * The true line, arrow, box, triangle or ellipse that a line of ink was meant to be; `null` where it
 * is none of these. Highlighter isn't tidied. The measures are our own, tried on drawn samples.
 */
export function recognizeShape(item: InkItem): Omit<ShapeSpec, 'order'> | null {
  const { style, points } = strokeOf(item.ink);
  const size = bounds(points);
  if (style.tool !== 'pen' || !size || Math.hypot(size.width, size.height) < LEAST) return null;
  const found = isClosed(points)
    ? (box(points) ?? triangle(points) ?? ellipse(points))
    : line(points);
  return (
    found && {
      kind: 'shape',
      layer: 'material',
      outline: { colour: inkColour(style.ink), width: Math.max(0.25, style.width) },
      fill: null,
      ...found,
    }
  );
}

type RecognizedShape = Pick<ShapeSpec, 'shape' | 'frame' | 'points' | 'heads'>;

function length(points: readonly Point[]): number {
  return points.slice(1).reduce((sum, p, i) => sum + distance(points[i]!, p), 0);
}

function isClosed(points: readonly Point[]): boolean {
  return distance(points[0]!, points[points.length - 1]!) < CLOSED * length(points);
}

function isStraight(points: readonly Point[], a: Point, b: Point): boolean {
  const stray = STRAY * distance(a, b) + 1.5;
  return points.every((p) => distanceToSegment(p, a, b) <= stray);
}

/** A line, or an arrow whose head was drawn without lifting the pen. */
function line(points: readonly Point[]): RecognizedShape | null {
  const from = points[0]!;
  const last = points[points.length - 1]!;
  if (isStraight(points, from, last)) return between(from, last, 'none');
  // The tip is where the pen came first as far as it ever did; the head may come back to it.
  const far = Math.max(...points.map((p) => distance(p, from)));
  const at = points.findIndex((p) => distance(p, from) > 0.98 * far);
  const tip = points[at]!;
  const long = distance(from, tip);
  const head = points.slice(at);
  const isHead =
    head.length >= 3 &&
    head.every((p) => distance(p, tip) < HEAD * long) &&
    head.some((p) => distance(p, tip) > 0.06 * long);
  return isHead && isStraight(points.slice(0, at + 1), from, tip)
    ? between(from, tip, 'end')
    : null;
}

/** A line, level or upright where it nearly is. */
function between(a: Point, b: Point, heads: 'none' | 'end'): RecognizedShape {
  const angle = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
  const even = Math.round(angle / 90) * 90;
  const end =
    Math.abs(angle - even) > LEVEL / 2
      ? b
      : even % 180 === 0
        ? { x: b.x, y: a.y }
        : { x: a.x, y: b.y };
  const { x, y, width, height } = bounds([a, end])!;
  const frame = upright(x, y, width, height);
  const part = (p: Point): [number, number] => [
    Math.min(1, (p.x - x) / frame.width),
    Math.min(1, (p.y - y) / frame.height),
  ];
  return { shape: 'line', frame, points: [part(a), part(end)], heads };
}

function upright(x: number, y: number, width: number, height: number): Frame {
  return { x, y, width: Math.max(MIN_FRAME, width), height: Math.max(MIN_FRAME, height), turn: 0 };
}

/** Corners of a closed shape, found as ink is thinned, but coarsely. */
function cornersOf(points: readonly Point[]): Point[] {
  const { width, height } = bounds(points)!;
  const coarse = 0.09 * Math.hypot(width, height);
  // Begun where it is farthest from its middle, which is a corner if there are any.
  const centre = middleOf(points);
  let start = 0;
  points.forEach((p, i) => {
    if (distance(p, centre) > distance(points[start]!, centre)) start = i;
  });
  const round = [...points.slice(start), ...points.slice(0, start + 1)];
  const offset = (i: number, a: number, b: number): number =>
    distanceToSegment(round[i]!, round[a]!, round[b]!);
  const kept = thin(round.length, offset, coarse).map((i) => round[i]!);
  const corners: Point[] = [];
  for (const p of kept.slice(0, -1))
    if (corners.every((q) => distance(p, q) > 1.5 * coarse)) corners.push(p);
  return corners;
}

function middleOf(points: readonly Point[]): Point {
  const { x, y, width, height } = bounds(points)!;
  return { x: x + width / 2, y: y + height / 2 };
}

function angleAt(a: Point, b: Point, c: Point): number {
  const one = Math.atan2(a.y - b.y, a.x - b.x);
  const two = Math.atan2(c.y - b.y, c.x - b.x);
  const apart = (Math.abs(one - two) * 180) / Math.PI;
  return apart > 180 ? 360 - apart : apart;
}

function strays(points: readonly Point[], corners: readonly Point[], most: number): boolean {
  return points.some(
    (p) =>
      Math.min(
        ...corners.map((c, i) => distanceToSegment(p, c, corners[(i + 1) % corners.length]!)),
      ) > most,
  );
}

function box(points: readonly Point[]): RecognizedShape | null {
  const corners = cornersOf(points);
  const [a, b, c, d] = corners as [Point, Point, Point, Point];
  if (corners.length !== 4) return null;
  const right = [angleAt(d, a, b), angleAt(a, b, c), angleAt(b, c, d), angleAt(c, d, a)];
  if (right.some((angle) => Math.abs(angle - 90) > RIGHT)) return null;
  const width = (distance(a, b) + distance(d, c)) / 2;
  const height = (distance(b, c) + distance(a, d)) / 2;
  if (strays(points, corners, 0.12 * Math.min(width, height) + 1.5)) return null;
  const tilt = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
  const even = Math.round(tilt / 90) * 90;
  if (Math.abs(tilt - even) <= LEVEL) {
    const around = bounds(corners)!;
    return { shape: 'box', frame: upright(around.x, around.y, around.width, around.height) };
  }
  const centre = {
    x: (a.x + b.x + c.x + d.x) / 4,
    y: (a.y + b.y + c.y + d.y) / 4,
  };
  const frame = upright(centre.x - width / 2, centre.y - height / 2, width, height);
  return { shape: 'box', frame: { ...frame, turn: tilt } };
}

function triangle(points: readonly Point[]): RecognizedShape | null {
  const corners = cornersOf(points);
  if (corners.length !== 3) return null;
  const shortest = Math.min(...corners.map((c, i) => distance(c, corners[(i + 1) % 3]!)));
  if (strays(points, corners, 0.1 * shortest + 1.5)) return null;
  const { x, y, width, height } = bounds(corners)!;
  const frame = upright(x, y, width, height);
  const parts = corners.map((p): [number, number] => [
    Math.min(1, (p.x - x) / frame.width),
    Math.min(1, (p.y - y) / frame.height),
  ]);
  return { shape: 'polygon', frame, points: parts };
}

/** An ellipse, level or turned as it was drawn: the one of seven turns that fits best. */
function ellipse(points: readonly Point[]): RecognizedShape | null {
  let best: { frame: Frame; error: number } | null = null;
  for (let turn = 0; turn < 90; turn += 15) {
    const centre = middleOf(points);
    const flat = points.map((p) => turned(p, centre, -turn));
    const { x, y, width, height } = bounds(flat)!;
    if (width < 2 || height < 2) continue;
    const [cx, cy] = [x + width / 2, y + height / 2];
    const error =
      flat.reduce(
        (sum, p) =>
          sum + Math.abs(Math.hypot((p.x - cx) / (width / 2), (p.y - cy) / (height / 2)) - 1),
        0,
      ) / flat.length;
    // A turned one must fit clearly better: most are meant level.
    if (!best || error < best.error * (turn === 0 ? 1 : 0.7)) {
      const at = turned({ x: cx, y: cy }, centre, turn);
      const frame = { ...upright(at.x - width / 2, at.y - height / 2, width, height), turn };
      best = { frame, error };
    }
  }
  return best && best.error < ROUND ? { shape: 'ellipse', frame: best.frame } : null;
}
