import { corners, middle, transform, frameMatrix, turned } from '@cuaderno/core/geometry';
import type { Item } from '@cuaderno/core/board';
import type { Frame, Point } from '@cuaderno/core/geometry';
import type { ShapeSpec } from '@cuaderno/core/kinds';
import { mayStretch } from '../kinds/register';

/** How far the handle to turn by is from the frame, in CSS px. */
const TURN_AWAY = 30;
/** Sides of frames shorter than this, in CSS px, have no handle in their middle. */
const ROOM = 56;

/** Where something can be taken hold of, and what it does then. */
export type Handle =
  | { readonly kind: 'turn'; readonly at: Point }
  /** `across`, `down`: which side of the frame moves along; -1 is left or top, 0 neither. */
  | { readonly kind: 'size'; readonly at: Point; readonly across: number; readonly down: number }
  /** An end of a line. */
  | { readonly kind: 'end'; readonly at: Point; readonly index: number };

/** A line of two ends, which is taken hold of by them. */
export function isLine(items: readonly Item[]): items is [Item & ShapeSpec] {
  const [only] = items;
  return items.length === 1 && only?.kind === 'shape' && only.shape === 'line';
}

/**
 * Handles of what is chosen, in points on its page.
 * @param zoom CSS px a point
 * @param sides whether sides have handles also where they don't stretch
 */
export function handlesOf(
  items: readonly Item[],
  frame: Frame,
  zoom: number,
  sides = false,
): Handle[] {
  if (items.some((item) => item.kind !== 'ink' && item.fixed)) return [];
  if (isLine(items)) {
    const matrix = frameMatrix(items[0].frame);
    const points = items[0].points ?? [
      [0, 0],
      [1, 1],
    ];
    return points.map(([x, y], index) => ({ kind: 'end', at: transform(matrix, { x, y }), index }));
  }
  const at = corners(frame);
  const signs = [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ] as const;
  const list: Handle[] = signs.map(([across, down], i) => ({
    kind: 'size',
    at: at[i]!,
    across,
    down,
  }));
  if (sides || stretches(items)) {
    const half = (a: Point, b: Point): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
    const middles = [
      [0, -1],
      [1, 0],
      [0, 1],
      [-1, 0],
    ] as const;
    middles.forEach(([across, down], i) => {
      const length = (down === 0 ? frame.height : frame.width) * zoom;
      if (length >= ROOM)
        list.push({ kind: 'size', at: half(at[i]!, at[(i + 1) % 4]!), across, down });
    });
  }
  const top = { x: frame.x + frame.width / 2, y: frame.y - TURN_AWAY / zoom };
  list.push({ kind: 'turn', at: turned(top, middle(frame), frame.turn) });
  return list;
}

/** Whether width and height may change by themselves: not of pictures and marks, nor of several. */
export function stretches(items: readonly Item[]): boolean {
  return items.length === 1 && mayStretch(items[0]!);
}

/**
 * The frame after a handle was drawn to `p`; the side or corner across from it stays where it is.
 * @param even whether width and height grow alike
 */
export function sized(
  frame: Frame,
  { across, down }: { across: number; down: number },
  p: Point,
  even: boolean,
  smallest: number,
): Frame {
  const centre = middle(frame);
  const q = turned(p, centre, -frame.turn);
  const anchor = {
    x: centre.x - (across * frame.width) / 2,
    y: centre.y - (down * frame.height) / 2,
  };
  let width = across === 0 ? frame.width : Math.max(smallest, (q.x - anchor.x) * across);
  let height = down === 0 ? frame.height : Math.max(smallest, (q.y - anchor.y) * down);
  if (even) {
    const growth = Math.max(width / frame.width, height / frame.height);
    width = frame.width * growth;
    height = frame.height * growth;
  }
  // Where the middle of the new frame is, before it is turned about the old one.
  const flat = {
    x: across === 0 ? centre.x : anchor.x + (across * width) / 2,
    y: down === 0 ? centre.y : anchor.y + (down * height) / 2,
  };
  const at = turned(flat, centre, frame.turn);
  return { x: at.x - width / 2, y: at.y - height / 2, width, height, turn: frame.turn };
}

/** Degrees that turning keeps to where it comes near them. */
const EVEN_TURN = 15;
const NEAR_TURN = 3;

/** The angle at which a frame stands when its handle was drawn to `p`. */
export function turnTo(frame: Frame, p: Point): number {
  const { x, y } = middle(frame);
  const angle = (Math.atan2(p.y - y, p.x - x) * 180) / Math.PI + 90;
  const even = Math.round(angle / EVEN_TURN) * EVEN_TURN;
  const turn = Math.abs(angle - even) <= NEAR_TURN ? even : angle;
  return ((turn + 540) % 360) - 180;
}
