import { isMaterial } from '@cuaderno/core/board';
import { isLight, SIGNED_LINE } from '@cuaderno/core/drawing';
import { inSight, strokeOf } from '@cuaderno/core/edits';
import type { Item, Page } from '@cuaderno/core/board';
import type { Author } from '@cuaderno/core/drawing';
import type { Arrow, Lamp, Place, Overlay, View } from '@cuaderno/core/features';
import type { Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import { screenFont } from '../drawing/screen-font';

/** How long a dot's trail is, in ms, and its size in CSS px. */
const TRAIL = 380;
const DOT = 9;
/** Length of an arrow left standing, in CSS px. */
const ARROW = 46;
/** How dark it is beside the lamp: for all, and for who has lit it and wants to see the rest. */
const DIM = 0.72;
const DIM_OWN = 0.4;
/** A line that begins nearer than this to one that is signed already isn't signed again, in points. */
const SAME_PLACE = 40;
/** Most signatures on a page: what is beyond would hide more than it says. */
const MAX_SIGNED = 120;

/** What the layer draws, at the moment. */
export interface ShownView {
  shown(): Overlay;
  /** Whether this window lit the lamp, or may: then the rest stays readable. */
  lights(): boolean;
  authorOf(id: Id): Author | null;
  /** Whether every line says whose it is. */
  signed(): boolean;
  /** Others' strokes that are being drawn just now. */
  underWay(): readonly { readonly by: Id; readonly page: Id; readonly points: readonly Point[] }[];
  /** What the smallest window of those who follow shows, and whose it is. */
  frame(): { readonly view: View; readonly label: string } | null;
  pages(): readonly Page[];
  /** Where a place on a page is in the window, in CSS px; `null` where that page isn't laid out. */
  at(page: Id, p: Point): Point | null;
  /** CSS px a point. */
  zoom(): number;
  size(): { readonly width: number; readonly height: number };
}

interface Dot {
  readonly page: Id;
  readonly trail: { readonly x: number; readonly y: number; readonly at: number }[];
}

/**
 * What is shown over the pages and is on none of them: pointers with their trails, arrows left standing, the
 * lamp, whose line is whose, and what the smallest screen sees.
 */
export class ShownLayer {
  private readonly dots = new Map<Id, Dot>();

  constructor(
    private readonly view: ShownView,
    private readonly now: () => number = () => performance.now(),
  ) {}

  /** Somebody points, or no longer does. */
  point(by: Id, at: Place | null): void {
    const now = this.now();
    if (!at) {
      this.dots.delete(by);
      return;
    }
    const known = this.dots.get(by);
    const trail = known?.page === at.page ? known.trail.filter((p) => now - p.at < TRAIL) : [];
    trail.push({ x: at.x, y: at.y, at: now });
    this.dots.set(by, { page: at.page, trail });
  }

  /** Where each points, for tests. */
  get pointing(): ReadonlyMap<Id, Point> {
    return new Map([...this.dots].map(([by, { trail }]) => [by, trail[trail.length - 1]!]));
  }

  /** Whether there is anything to draw. */
  get isNeeded(): boolean {
    const { arrows, lamp } = this.view.shown();
    return (
      this.dots.size > 0 ||
      arrows.length > 0 ||
      lamp !== null ||
      this.view.signed() ||
      this.view.frame() !== null
    );
  }

  /** Whether a trail is fading: then the next frame looks different. */
  get isMoving(): boolean {
    const now = this.now();
    return [...this.dots.values()].some(
      ({ trail }) => trail.length > 1 && now - trail[0]!.at < TRAIL,
    );
  }

  /** The context's units are CSS px. */
  draw(context: CanvasRenderingContext2D): void {
    const { arrows, lamp } = this.view.shown();
    if (this.view.signed()) for (const page of this.view.pages()) this.sign(context, page);
    if (lamp) this.drawLamp(context, lamp);
    for (const arrow of arrows) this.drawArrow(context, arrow);
    for (const [by, dot] of this.dots) this.drawDot(context, by, dot);
    const frame = this.view.frame();
    if (frame) this.drawFrame(context, frame.view, frame.label);
  }

  /**
   * Initials where others' pens are writing just now, drawn with their lines: a canvas of their own would
   * have to be laid over the page in every frame.
   */
  signPens(context: CanvasRenderingContext2D): void {
    for (const { by, page, points } of this.view.underWay()) {
      const author = this.view.authorOf(by);
      const last = points[points.length - 1];
      const at = last && this.view.at(page, last);
      if (author && at) tag(context, author, at.x + 12, at.y - 22);
    }
  }

  private drawLamp(context: CanvasRenderingContext2D, lamp: Lamp): void {
    const from = this.view.at(lamp.page, lamp);
    // Who is elsewhere isn't left in the dark.
    if (!from || !this.view.pages().some(({ id }) => id === lamp.page)) return;
    const zoom = this.view.zoom();
    const { width, height } = this.view.size();
    const [w, h] = [lamp.width * zoom, lamp.height * zoom];
    context.save();
    context.beginPath();
    context.rect(0, 0, width, height);
    if (lamp.shape === 'round')
      context.ellipse(from.x + w / 2, from.y + h / 2, w / 2, h / 2, 0, 0, 2 * Math.PI);
    else context.roundRect(from.x, from.y, w, h, 6);
    context.fillStyle = `rgb(20 18 12 / ${this.view.lights() ? DIM_OWN : DIM})`;
    context.fill('evenodd');
    context.restore();
  }

  private drawDot(context: CanvasRenderingContext2D, by: Id, { page, trail }: Dot): void {
    const now = this.now();
    const author = this.view.authorOf(by);
    const places = trail.flatMap((p) => {
      const at = this.view.at(page, p);
      return at ? [{ ...at, age: (now - p.at) / TRAIL }] : [];
    });
    const last = places[places.length - 1];
    if (!last) return;
    const colour = author?.colour ?? '#d55e00';
    context.save();
    context.lineCap = 'butt';
    context.strokeStyle = colour;
    for (let i = 1; i < places.length; i++) {
      const [a, b] = [places[i - 1]!, places[i]!];
      const left = Math.max(0, 1 - a.age);
      context.globalAlpha = 0.7 * left;
      context.lineWidth = 2 + 2 * DOT * 0.7 * left;
      context.beginPath();
      context.moveTo(a.x, a.y);
      context.lineTo(b.x, b.y);
      context.stroke();
    }
    context.globalAlpha = 1;
    context.fillStyle = colour;
    context.strokeStyle = '#ffffff';
    context.lineWidth = 2.5;
    context.beginPath();
    context.arc(last.x, last.y, DOT, 0, 2 * Math.PI);
    context.fill();
    context.stroke();
    if (author) tag(context, author, last.x + DOT + 6, last.y - DOT - 4);
    context.restore();
  }

  /** Its tip is at the place, and it comes from above at the right. */
  private drawArrow(context: CanvasRenderingContext2D, arrow: Arrow): void {
    const tip = this.view.at(arrow.page, arrow);
    if (!tip) return;
    const author = this.view.authorOf(arrow.by);
    context.save();
    context.translate(tip.x, tip.y);
    context.rotate(-Math.PI / 4);
    context.beginPath();
    context.moveTo(0, 0);
    context.lineTo(18, -11);
    context.lineTo(15, -4.5);
    context.lineTo(ARROW, -4.5);
    context.lineTo(ARROW, 4.5);
    context.lineTo(15, 4.5);
    context.lineTo(18, 11);
    context.closePath();
    context.fillStyle = author?.colour ?? '#d55e00';
    context.strokeStyle = '#ffffff';
    context.lineWidth = 3;
    context.lineJoin = 'round';
    context.stroke();
    context.fill();
    context.restore();
    const far = (ARROW + 4) * Math.SQRT1_2;
    if (author) tag(context, author, tip.x + far, tip.y - far - 12);
  }

  /** A page’s lines, each on a ground of its writer’s colour, and initials where somebody begins. */
  private sign(context: CanvasRenderingContext2D, page: Page): void {
    const zoom = this.view.zoom();
    const signed: { by: Id; at: Point }[] = [];
    const corner = this.view.at(page.id, { x: 0, y: 0 });
    if (!corner) return;
    context.save();
    context.beginPath();
    context.rect(corner.x, corner.y, page.width * zoom, page.height * zoom);
    context.clip();
    for (const item of signable(page)) {
      const author = this.view.authorOf(item.by);
      if (!author) continue;
      let start: Point;
      context.strokeStyle = author.colour;
      context.globalAlpha = 0.34;
      context.lineCap = context.lineJoin = 'round';
      context.beginPath();
      if (item.kind === 'ink') {
        const { points, style } = strokeOf(item.ink);
        start = points[0]!;
        const marks = style.tool === 'highlighter';
        context.globalAlpha = marks ? 1 : 0.34;
        context.lineWidth = marks ? SIGNED_LINE * zoom : style.width * zoom + 9;
        along(context, points, (p) => ({ x: corner.x + p.x * zoom, y: corner.y + p.y * zoom }));
      } else {
        const { x, y, width, height } = item.frame;
        start = { x, y };
        context.lineWidth = 5;
        context.rect(corner.x + x * zoom, corner.y + y * zoom, width * zoom, height * zoom);
      }
      context.stroke();
      const near = signed.some(
        ({ by, at }) => by === item.by && Math.hypot(at.x - start.x, at.y - start.y) < SAME_PLACE,
      );
      if (!near) signed.push({ by: item.by, at: start });
    }
    context.globalAlpha = 1;
    for (const { by, at } of signed.slice(-MAX_SIGNED)) {
      const place = this.view.at(page.id, at)!;
      tag(context, this.view.authorOf(by)!, place.x - 10, place.y - 24);
    }
    context.restore();
  }

  private drawFrame(context: CanvasRenderingContext2D, view: View, label: string): void {
    const from = this.view.at(view.page, view);
    if (!from) return;
    const zoom = this.view.zoom();
    context.save();
    context.strokeStyle = '#8a5200';
    context.lineWidth = 1.5;
    context.setLineDash([7, 5]);
    context.strokeRect(from.x, from.y, view.width * zoom, view.height * zoom);
    context.setLineDash([]);
    context.font = screenFont(600, 12);
    const { width } = context.measureText(label);
    const x = Math.max(4, from.x + 6);
    const y = Math.max(4, from.y + 6);
    context.fillStyle = '#fff6e5';
    context.fillRect(x, y, width + 10, 20);
    context.fillStyle = '#8a5200';
    context.fillText(label, x + 5, y + 14);
    context.restore();
  }
}

/** The curve of a line of ink, as it is drawn: through the middles between its points. */
function along(
  context: CanvasRenderingContext2D,
  points: readonly Point[],
  at: (p: Point) => Point,
): void {
  const [first] = points;
  const last = points[points.length - 1];
  if (!first || !last) return;
  const start = at(first);
  context.moveTo(start.x, start.y);
  for (let i = 1; i < points.length - 1; i++) {
    const [a, b] = [at(points[i]!), at(points[i + 1]!)];
    context.quadraticCurveTo(a.x, a.y, (a.x + b.x) / 2, (a.y + b.y) / 2);
  }
  const end = at(last);
  // A dot is a line of no length, which is drawn as one of hardly any.
  context.lineTo(end.x + 0.1, end.y);
}

/** Initials on a small tag of somebody’s colour. */
function tag(context: CanvasRenderingContext2D, author: Author, x: number, y: number): void {
  context.save();
  context.font = screenFont(700, 12);
  const width = Math.max(20, context.measureText(author.initials).width + 10);
  context.fillStyle = author.colour;
  context.strokeStyle = '#ffffff';
  context.lineWidth = 1.5;
  context.beginPath();
  context.roundRect(x, y, width, 18, [9, 9, 9, 2]);
  context.fill();
  context.stroke();
  context.fillStyle = isLight(author.colour) ? '#1a1a1a' : '#ffffff';
  context.textAlign = 'center';
  context.fillText(author.initials, x + width / 2, y + 13.5);
  context.restore();
}

/** What says whose it is: all that is written and in sight. */
function signable(page: Page): Item[] {
  return inSight(page).filter((item) => !isMaterial(item));
}
