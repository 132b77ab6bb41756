import { bounds, distance, distanceToSegment, MIN_FRAME, thin } from '@cuaderno/core/geometry';
import { MAX_CORNERS } from '@cuaderno/core/kinds';
import type { Frame, Point } from '@cuaderno/core/geometry';

/** What a hand drew with a tool that lays something: points on the page, in points. */
export interface Drawn {
  readonly from: Point;
  readonly points: readonly Point[];
  /** CSS px in a point. */
  readonly zoom: number;
  /** It was only a touch: then what is laid has its usual size. */
  readonly touch: boolean;
}

/** How far a hand strays between two corners of a polygon, in CSS px. */
const CORNER = 9;
/** Degrees within which a line becomes level, upright or slanted by half. */
const NEAR_EVEN = 4;

/** A frame around points, and the points in parts of it. */
export function lineBetween(points: readonly Point[]): {
  frame: Frame;
  points: [number, number][];
} {
  const frame = frameAround(points);
  const part = (at: number, from: number, size: number): number =>
    Math.min(1, Math.max(0, (at - from) / size));
  return {
    frame,
    points: points.map(({ x, y }) => [
      part(x, frame.x, frame.width),
      part(y, frame.y, frame.height),
    ]),
  };
}

export function frameAround(points: readonly Point[]): Frame {
  const { x, y, width, height } = bounds(points)!;
  return { x, y, width: Math.max(MIN_FRAME, width), height: Math.max(MIN_FRAME, height), turn: 0 };
}

export function usual({ x, y }: Point, side: number): Frame {
  return { x: x - side / 2, y: y - side / 2, width: side, height: side, turn: 0 };
}

export function square(from: Point, to: Point): Frame {
  const side = Math.max(4, Math.abs(to.x - from.x), Math.abs(to.y - from.y));
  return {
    x: to.x < from.x ? from.x - side : from.x,
    y: to.y < from.y ? from.y - side : from.y,
    width: side,
    height: side,
    turn: 0,
  };
}

/** The end of a line, made level, upright or slanted by half a right angle where it nearly is. */
export function even(from: Point, to: Point): Point {
  const angle = (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI;
  const near = Math.round(angle / 45) * 45;
  if (Math.abs(angle - near) > NEAR_EVEN) return to;
  const length = distance(from, to);
  const exact = (near * Math.PI) / 180;
  return { x: from.x + length * Math.cos(exact), y: from.y + length * Math.sin(exact) };
}

/** Corners of an outline that was drawn round; `null` where it hasn't three yet. */
export function cornersOf(points: readonly Point[], zoom: number): Point[] | null {
  // Thinned as ink is (Douglas and Peucker), but as coarsely as a hand means corners.
  const offset = (i: number, a: number, b: number): number =>
    distanceToSegment(points[i]!, points[a]!, points[b]!);
  let corners = thin(points.length, offset, CORNER / zoom).map((i) => points[i]!);
  const [first] = corners;
  while (corners.length > 3 && distance(corners[corners.length - 1]!, first!) * zoom < 24)
    corners = corners.slice(0, -1);
  return corners.length >= 3 ? corners.slice(0, MAX_CORNERS) : null;
}
