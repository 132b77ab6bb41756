import { displayStretch } from '@cuaderno/core/display';
import type { Rect } from '@cuaderno/core/geometry';
import type { InkPoint, Stroke } from '@cuaderno/core/ink';
import { renderItemOf, paint } from '../drawing/render-items';

/** Points that are put on a line's picture together. */
const TOGETHER = 8;
/** Room that a picture gets on a side on which its line has run out of it, as a part of its size, and in px at least. */
const ROOM = 0.5;
const LEAST_ROOM = 48;
/** Pixels in one picture at most: a line that is larger is drawn whole in every frame. */
const MAX_PIXELS = 2_000_000;
/** How much wider than its pen a line may be, and the soft edge of a drawn line, in px. */
const SWELLS = 1.6;
const EDGE = 2;

interface Picture {
  readonly canvas: HTMLCanvasElement;
  /** Where it lies on the page, in device pixels. */
  readonly box: Rect;
  /** Device pixels a point. */
  readonly scale: number;
  /** The point up to which the line is on it. */
  upTo: number;
}

/**
 * Lines under way. Each has a picture of the part of it that no point to come will change, so that a frame
 * draws that and the newest points: eight pens cost no more at the end of their lines than at the beginning.
 */
export class WetInk {
  /** By the list of points, which stays the same while the line grows. */
  private readonly pictures = new WeakMap<readonly InkPoint[], Picture | 'too large'>();

  /**
   * @param context its units are points, and a whole number of device pixels lies between its corner and the page's
   * @param scale device pixels a point
   */
  draw(context: CanvasRenderingContext2D, stroke: Stroke, scale: number): void {
    const picture = this.upToDate(stroke, scale);
    if (picture) {
      const { canvas, box } = picture;
      context.drawImage(
        canvas,
        box.x / scale,
        box.y / scale,
        box.width / scale,
        box.height / scale,
      );
    }
    drawStretch(context, stroke, picture?.upTo ?? 0, stroke.points.length - 1);
  }

  /** The line's picture, with all on it that is worth it; `null` where there is none. */
  private upToDate(stroke: Stroke, scale: number): Picture | null {
    const { points } = stroke;
    let picture = this.pictures.get(points) ?? null;
    if (picture === 'too large') return null;
    if (picture?.scale !== scale) picture = null;
    const from = picture?.upTo ?? 0;
    // What ends before the last point stays as it is.
    const to = points.length - 2;
    if (to - from < TOGETHER) return picture;
    const needed = boxOf(stroke, from, to, scale);
    if (!picture || !holds(picture.box, needed)) {
      const before = picture;
      const box = before ? grown(before.box, needed) : roomy(needed);
      if (box.width * box.height > MAX_PIXELS) {
        this.pictures.set(points, 'too large');
        return null;
      }
      picture = { canvas: document.createElement('canvas'), box, scale, upTo: from };
      picture.canvas.width = box.width;
      picture.canvas.height = box.height;
      if (before)
        picture.canvas
          .getContext('2d')!
          .drawImage(before.canvas, before.box.x - box.x, before.box.y - box.y);
      this.pictures.set(points, picture);
    }
    const context = picture.canvas.getContext('2d')!;
    context.setTransform(scale, 0, 0, scale, -picture.box.x, -picture.box.y);
    drawStretch(context, stroke, from, to);
    picture.upTo = to;
    return picture;
  }
}

function drawStretch(
  context: CanvasRenderingContext2D,
  stroke: Stroke,
  from: number,
  to: number,
): void {
  for (const display of displayStretch(stroke, from, to)) paint(context, renderItemOf(display));
}

/** All that this part of the line may cover, in whole device pixels. */
function boxOf({ points, style }: Stroke, from: number, to: number, scale: number): Rect {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { x, y } of points.slice(Math.max(0, from - 1), to + 2)) {
    left = Math.min(left, x);
    top = Math.min(top, y);
    right = Math.max(right, x);
    bottom = Math.max(bottom, y);
  }
  const aside = (style.width * SWELLS * scale) / 2 + EDGE;
  const x = Math.floor(left * scale - aside);
  const y = Math.floor(top * scale - aside);
  return {
    x,
    y,
    width: Math.ceil(right * scale + aside) - x,
    height: Math.ceil(bottom * scale + aside) - y,
  };
}

function holds(outer: Rect, inner: Rect): boolean {
  return (
    outer.x <= inner.x &&
    outer.y <= inner.y &&
    outer.x + outer.width >= inner.x + inner.width &&
    outer.y + outer.height >= inner.y + inner.height
  );
}

const room = (size: number): number => Math.max(LEAST_ROOM, Math.round(size * ROOM));

/** With room on every side. */
function roomy({ x, y, width, height }: Rect): Rect {
  const [w, h] = [room(width), room(height)];
  return { x: x - w, y: y - h, width: width + 2 * w, height: height + 2 * h };
}

/** `box` and what is needed beyond it, with room on the sides on which it was too small. */
function grown(box: Rect, needed: Rect): Rect {
  const [w, h] = [room(box.width), room(box.height)];
  const left = needed.x < box.x ? needed.x - w : box.x;
  const top = needed.y < box.y ? needed.y - h : box.y;
  const [boxRight, boxBottom] = [box.x + box.width, box.y + box.height];
  const [right, bottom] = [needed.x + needed.width, needed.y + needed.height];
  return {
    x: left,
    y: top,
    width: (right > boxRight ? right + w : boxRight) - left,
    height: (bottom > boxBottom ? bottom + h : boxBottom) - top,
  };
}
