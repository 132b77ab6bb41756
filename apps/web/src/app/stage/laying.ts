import {
  bounds,
  distance,
  distanceToSegment,
  MAX_CORNERS,
  MIN_FRAME,
  newId,
  thin,
} from '@cuaderno/core';
import type { Frame, Id, Item, MarkName, MarkSpec, Point, ShapeSpec } from '@cuaderno/core';
import { toBoard } from './camera';
import type { Camera } from './camera';
import type { Sample } from './gestures';
import type { Placed } from './layout';
import { pageUnder } from './pointer-tool';
import type { Lifted, PointerTool } from './pointer-tool';

/** A drag shorter than this, in CSS px, is a touch: then the thing has its usual size. */
const TOUCH = 6;
/** Usual sizes in points. */
const USUAL = { mark: 30, width: 120, height: 80 } as const;
/** How far a hand strays between two corners of a polygon, in CSS px. */
const CORNER = 9;
/** Degrees within which a line becomes level, upright or slanted by half. */
const NEAR_EVEN = 4;

/** What is laid by drawing it: a figure, or a mark. */
export type LayStyle =
  | {
      readonly kind: 'shape';
      readonly shape: ShapeSpec['shape'];
      readonly heads: NonNullable<ShapeSpec['heads']>;
      readonly outline: ShapeSpec['outline'];
      readonly fill: string | null;
      readonly layer: ShapeSpec['layer'];
    }
  | {
      readonly kind: 'mark';
      readonly mark: MarkName;
      readonly colour: string;
      readonly layer: MarkSpec['layer'];
    };

/** A thing that was drawn, without its place in the order. */
export type Laid = Omit<ShapeSpec, 'order'> | Omit<MarkSpec, 'order'>;

export interface LaySurface {
  camera(): Camera;
  seen(): readonly Placed[];
  style(): LayStyle;
}

export interface LayNews {
  laid(page: Id, thing: Laid): void;
  changed(): void;
}

const NONE: ReadonlySet<Id> = new Set();

/** Lays figures and marks where they are drawn. */
export class Laying implements PointerTool {
  private under: { placed: Placed; from: Point; points: Point[] } | null = null;
  /** What was laid last, until the board shows it. */
  private settling: Lifted | null = null;
  private readonly id = newId();

  constructor(
    private readonly surface: LaySurface,
    private readonly news: LayNews,
  ) {}

  lifted(): Lifted | null {
    const thing = this.under && this.thing(false);
    if (!thing) return this.settling;
    return { page: this.under!.placed.page.id, items: [this.asItem(thing)], ids: NONE };
  }

  settle(): void {
    this.settling = null;
  }

  down(sample: Sample): boolean {
    const found = pageUnder(this.surface.camera(), this.surface.seen(), sample);
    if (!found) return false;
    this.under = { placed: found.placed, from: found.p, points: [found.p] };
    return true;
  }

  move(samples: readonly Sample[]): void {
    const { under } = this;
    if (!under) return;
    const camera = this.surface.camera();
    for (const sample of samples) {
      const at = toBoard(camera, sample);
      under.points.push({ x: at.x - under.placed.x, y: at.y - under.placed.y });
    }
    this.news.changed();
  }

  up(): void {
    const { under } = this;
    const thing = under && this.thing(true);
    this.under = null;
    if (under && thing) {
      const page = under.placed.page.id;
      this.settling = { page, items: [this.asItem(thing)], ids: NONE };
      this.news.laid(page, thing);
    }
    this.news.changed();
  }

  lost(): void {
    this.under = null;
    this.news.changed();
  }

  private asItem(thing: Laid): Item {
    return { ...thing, id: this.id, order: 'a0', by: this.id, at: 0, lesson: null, removed: null };
  }

  /** What has been drawn so far. @param done whether the pointer has left: then a touch counts too */
  private thing(done: boolean): Laid | null {
    const { from, points } = this.under!;
    const to = points[points.length - 1]!;
    const { zoom } = this.surface.camera();
    const touch = points.every((p) => distance(p, from) * zoom < TOUCH);
    if (touch && !done) return null;
    const style = this.surface.style();
    if (style.kind === 'mark')
      return {
        ...style,
        frame: touch ? usual(from, USUAL.mark) : square(from, to),
      };
    const { shape, heads, outline, fill, layer } = style;
    const common = { kind: 'shape', shape, layer, outline, fill } as const;
    if (shape === 'line') {
      const end = touch ? { x: from.x + USUAL.width, y: from.y } : even(from, to);
      return { ...common, fill: null, heads, ...lineBetween([from, end]) };
    }
    if (shape === 'polygon') {
      const corners = cornersOf(points, zoom);
      return corners ? { ...common, ...lineBetween(corners) } : null;
    }
    const frame = touch
      ? { ...usual(from, USUAL.width), height: USUAL.height }
      : frameAround([from, to]);
    return { ...common, frame };
  }
}

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

function frameAround(points: readonly Point[]): Frame {
  const { x, y, width, height } = bounds(points)!;
  return { x, y, width: Math.max(MIN_FRAME, width), height: Math.max(MIN_FRAME, height), turn: 0 };
}

function usual({ x, y }: Point, side: number): Frame {
  return { x: x - side / 2, y: y - side / 2, width: side, height: side, turn: 0 };
}

function square(from: Point, to: Point): Frame {
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
function even(from: Point, to: Point): Point {
  const angle = (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI;
  const near = Math.round(angle / 45) * 45;
  if (Math.abs(angle - near) > NEAR_EVEN) return to;
  const length = distance(from, to);
  const exact = (near * Math.PI) / 180;
  return { x: from.x + length * Math.cos(exact), y: from.y + length * Math.sin(exact) };
}

/** Corners of an outline that was drawn round; `null` where it hasn't three yet. */
function cornersOf(points: readonly Point[], zoom: number): Point[] | null {
  // Thinned as ink is (Douglas and Peucker), but as coarsely as a hand means corners.
  const offset = (i: number, a: number, b: number): number =>
    distanceToSegment(points[i]!, points[a]!, points[b]!);
  let corners = thin(points.length, offset, CORNER / zoom).map((i) => points[i]!);
  const [first] = corners;
  while (corners.length > 3 && distance(corners[corners.length - 1]!, first!) * zoom < 24)
    corners = corners.slice(0, -1);
  return corners.length >= 3 ? corners.slice(0, MAX_CORNERS) : null;
}
