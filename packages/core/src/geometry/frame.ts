import * as z from 'zod';
import { bounds } from './rect.js';
import type { Matrix } from './matrix.js';
import type { Point } from './point.js';
import type { Rect } from './rect.js';

/** Farthest that anything may lie from a page's corner, in points: a page of 200 inches, and as much again. */
const FAR = 30_000;
const place = z.number().min(-FAR).max(FAR);
/** Smallest side of a frame, in points. */
export const MIN_FRAME = 1;
const length = z.number().min(MIN_FRAME).max(FAR);

/** Where an item lies on its page: a box in points, turned clockwise about its middle by degrees. */
export const Frame = z.strictObject({
  x: place,
  y: place,
  width: length,
  height: length,
  turn: z.number().min(-360).max(360),
});
export type Frame = z.infer<typeof Frame>;

export function middle({ x, y, width, height }: Rect): Point {
  return { x: x + width / 2, y: y + height / 2 };
}

/** Takes the unit square, its corner at the top left, to the frame. */
export function frameMatrix(frame: Frame): Matrix {
  const { width, height, turn } = frame;
  const angle = (turn * Math.PI) / 180;
  const cos = Math.cos(angle);
  const sin = Math.sin(angle);
  const { x, y } = middle(frame);
  return [
    width * cos,
    width * sin,
    -height * sin,
    height * cos,
    x - (width * cos - height * sin) / 2,
    y - (width * sin + height * cos) / 2,
  ];
}

/** `p` turned clockwise about `about`. */
export function turned(p: Point, about: Point, degrees: number): Point {
  const angle = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const [dx, dy] = [p.x - about.x, p.y - about.y];
  return { x: about.x + dx * cos - dy * sin, y: about.y + dx * sin + dy * cos };
}

/** Corners clockwise from the one that is at the top left before the frame is turned. */
export function corners(frame: Frame): [Point, Point, Point, Point] {
  const { x, y, width, height, turn } = frame;
  const about = middle(frame);
  const at = (px: number, py: number): Point => turned({ x: px, y: py }, about, turn);
  return [at(x, y), at(x + width, y), at(x + width, y + height), at(x, y + height)];
}

/** The upright box around a frame. */
export function frameBounds(frame: Frame): Rect {
  return frame.turn % 360 === 0
    ? { x: frame.x, y: frame.y, width: frame.width, height: frame.height }
    : bounds(corners(frame))!;
}

/** Whether a place is in the frame, or nearer to it than `slack` points. */
export function frameContains(frame: Frame, p: Point, slack = 0): boolean {
  const q = turned(p, middle(frame), -frame.turn);
  return (
    q.x >= frame.x - slack &&
    q.y >= frame.y - slack &&
    q.x <= frame.x + frame.width + slack &&
    q.y <= frame.y + frame.height + slack
  );
}
