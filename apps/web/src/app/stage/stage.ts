import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import {
  displayStroke,
  encodePoints,
  encodeStroke,
  itemsOn,
  MAX_POINTS,
  newId,
  pagesInOrder,
  thinPoints,
  touches,
} from '@cuaderno/core';
import type { Board, Id, InkPoint, InkStyle, Item, Page, Point } from '@cuaderno/core';
import Konva from 'konva/lib/Core';
import { Shape } from 'konva/lib/Shape';
import type { LiveInkEvent } from '../live/board-session';
import type { Tool } from '../tools/tool';
import { clamp, toBoard, zoomAt } from './camera';
import type { Camera } from './camera';
import { Gestures } from './gestures';
import type { GestureTarget, Sample } from './gestures';
import { paint, pathOf, strokeOf } from './ink-painter';
import { GAP, layOut, pageAt, pagesBetween, placeOf } from './layout';
import type { Placed, Run } from './layout';
import { LiveStrokes } from './live-strokes';
import { PagePicture } from './page-picture';
import { PaperSource } from './paper-source';

/** A finished line, ready to be an operation. */
export interface FinishedStroke {
  readonly id: Id;
  readonly page: Id;
  readonly ink: Uint8Array;
}

/** The next points of a line under way; `start` comes with the first. */
export interface StrokePiece {
  readonly stroke: Id;
  readonly start?: { readonly page: Id; readonly style: InkStyle };
  readonly points: Uint8Array;
}

/** What the eraser has touched; all of one sweep have the same `gesture`. */
export interface Erased {
  readonly page: Id;
  readonly items: Id[];
  readonly gesture: object;
}

interface OwnStroke {
  readonly id: Id;
  readonly placed: Placed;
  readonly style: InkStyle;
  readonly points: InkPoint[];
  readonly began: number;
  sent: number;
}

/** Radius of the eraser, in CSS px. */
const ERASER = 9;
/** Longest line in one piece; a longer one goes on as the next. */
const PIECE = MAX_POINTS / 4;
/** Slowing of a page that was let go while moving, per ms. */
const FRICTION = 0.996;

/**
 * The sheet of glass under everyone's pens: draws a board, and turns what a pointer does into
 * strokes. It knows nothing of courses, lessons or the network.
 */
@Component({
  selector: 'cua-stage',
  template: `<div
      #host
      class="host"
      tabindex="0"
      role="application"
      aria-label="Board. Arrow keys move it, Page Up and Page Down turn pages, plus and minus zoom."
    ></div>
    <div class="cursor" #cursor aria-hidden="true"></div>`,
  styleUrl: './stage.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Stage {
  readonly board = input.required<Board>();
  /** Whether this person holds a pen. */
  readonly mayWrite = input(false);
  readonly tool = input<Tool>('hand');
  readonly style = input<InkStyle>({ tool: 'pen', ink: 'midnight', width: 2.4 });
  /** Whether this person may erase an item. */
  readonly mayErase = input<(item: Item) => boolean>(() => false);
  readonly papers = input<PaperSource>(new PaperSource());

  readonly drawn = output<FinishedStroke>();
  readonly piece = output<StrokePiece>();
  /** A line under way was given up. */
  readonly givenUp = output<Id>();
  readonly erased = output<Erased>();
  /** The page in the middle of the window. */
  readonly shown = output<Id>();

  /** CSS pixels a point. */
  readonly zoom = signal(1);
  readonly page = signal<Id | null>(null);

  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly cursor = viewChild.required<ElementRef<HTMLElement>>('cursor');
  private run: Run = layOut([]);
  private camera: Camera = { x: 0, y: 0, zoom: 1 };
  private fit: 'width' | 'page' | null = 'width';
  private readonly pictures = new Map<Id, { picture: PagePicture; page: Page }>();
  private readonly live = new LiveStrokes();
  private own: OwnStroke | null = null;
  /** Lines of one's own that are finished, but not on the board yet: the board is a frame behind. */
  private drying: OwnStroke[] = [];
  private sweep: { gesture: object; last: Point; gone: Set<Id> } | null = null;
  private sendFrame = 0;
  private glide = 0;
  private konva: Konva.Stage | null = null;
  private readonly pagesLayer = new Konva.Layer({ listening: false });
  private readonly highlightLayer = new Konva.Layer({ listening: false });
  private readonly penLayer = new Konva.Layer({ listening: false });
  private gestures: Gestures | null = null;
  private waiting: Id | null = null;

  constructor() {
    afterNextRender(() => this.start());
    effect(() => {
      const board = this.board();
      untracked(() => this.setBoard(board));
    });
    effect(() => {
      if (!this.mayWrite()) untracked(() => this.gestures?.interrupt());
    });
    effect(() => {
      this.tool();
      this.mayWrite();
      untracked(() => this.showCursor());
    });
    inject(DestroyRef).onDestroy(() => this.stop());
  }

  /** Shows a page from its top, at the present zoom. */
  goTo(page: Id): void {
    const placed = placeOf(this.run, page);
    // A page that was added this moment is laid out with the next change of the board.
    if (!placed) {
      this.waiting = page;
      return;
    }
    this.waiting = null;
    const { width, height } = this.size();
    const zoom =
      this.fit === 'page'
        ? Math.min(width / (placed.page.width + 2 * GAP), height / (placed.page.height + 2 * GAP))
        : this.camera.zoom;
    const shownWidth = width / zoom;
    const inside = this.camera.x >= placed.x - GAP && this.camera.x <= placed.x + placed.page.width;
    const x =
      shownWidth >= placed.page.width || !inside
        ? placed.x + (placed.page.width - shownWidth) / 2
        : this.camera.x;
    this.setCamera({ x, y: placed.y - GAP, zoom });
  }

  /** Goes so many pages on or back. */
  turn(by: number): void {
    const here = this.run.pages.find((placed) => placed.page.id === this.page());
    const next = this.run.pages[(here?.index ?? 0) + by];
    if (next) this.goTo(next.page.id);
  }

  fitWidth(): void {
    this.fit = 'width';
    this.applyFit();
  }

  fitPage(): void {
    this.fit = 'page';
    const page = this.page();
    if (page) this.goTo(page);
  }

  /** @param factor above 1 zooms in; around the middle of the window */
  zoomBy(factor: number): void {
    const { width, height } = this.size();
    this.zoomAround({ x: width / 2, y: height / 2 }, this.camera.zoom * factor);
  }

  zoomTo(zoom: number): void {
    const { width, height } = this.size();
    this.zoomAround({ x: width / 2, y: height / 2 }, zoom);
  }

  /** Someone else's stroke under way. */
  take(event: LiveInkEvent): void {
    this.live.take(event);
    this.drawLive();
  }

  /** Whether the page in view is drawn sharp; for tests and benchmarks. */
  get isSharp(): boolean {
    const seen = this.seen();
    return seen.length > 0 && seen.every(({ page }) => this.pictures.get(page.id)?.picture.sharp);
  }

  /** Where a place on a page is in the window, in CSS px from the stage's corner. */
  locate(page: Id, p: Point): Point | null {
    const placed = placeOf(this.run, page);
    if (!placed) return null;
    const { x, y, zoom } = this.camera;
    return { x: (placed.x + p.x - x) * zoom, y: (placed.y + p.y - y) * zoom };
  }

  private start(): void {
    const element = this.host().nativeElement;
    this.konva = new Konva.Stage({
      container: element as HTMLDivElement,
      width: 1,
      height: 1,
      listening: false,
    });
    this.konva.add(this.pagesLayer, this.highlightLayer, this.penLayer);
    // A highlighter under way mixes with the page below it, as it will when it is dry.
    this.highlightLayer.getNativeCanvasElement().style.mixBlendMode = 'multiply';
    this.pagesLayer.add(new Shape({ sceneFunc: (context) => this.drawPages(native(context)) }));
    for (const [layer, blend] of [
      [this.highlightLayer, 'multiply'],
      [this.penLayer, 'normal'],
    ] as const)
      layer.add(new Shape({ sceneFunc: (context) => this.drawUnderWay(native(context), blend) }));
    new ResizeObserver(() => this.resize()).observe(element);
    this.gestures = new Gestures(element, this.target());
    element.addEventListener('wheel', (event) => this.wheel(event), { passive: false });
    element.addEventListener('keydown', (event) => this.key(event));
    element.addEventListener('pointermove', (event) => this.moveCursor(event));
    element.addEventListener('pointerleave', () =>
      this.cursor().nativeElement.classList.remove('on'),
    );
    (element as unknown as { cuaStage: Stage }).cuaStage = this;
    this.resize();
  }

  private stop(): void {
    this.gestures?.close();
    cancelAnimationFrame(this.glide);
    cancelAnimationFrame(this.sendFrame);
    for (const { picture } of this.pictures.values()) picture.close();
    this.konva?.destroy();
  }

  private setBoard(board: Board): void {
    const pages = pagesInOrder(board);
    const same =
      pages.length === this.run.pages.length &&
      pages.every((page, i) => this.run.pages[i]!.page.id === page.id);
    if (same) {
      // Only ink has changed: pages lie where they lay.
      (this.run as { pages: readonly Placed[] }).pages = this.run.pages.map((placed, i) =>
        placed.page === pages[i] ? placed : { ...placed, page: pages[i]! },
      );
    } else {
      const anchor = placeOf(this.run, this.page() ?? '');
      const wasEmpty = this.run.pages.length === 0;
      this.run = layOut(pages);
      const now = anchor && placeOf(this.run, anchor.page.id);
      // What is being looked at stays where it is while pages come before it.
      if (now)
        this.camera = {
          ...this.camera,
          x: this.camera.x + now.x - anchor.x,
          y: this.camera.y + now.y - anchor.y,
        };
      if (wasEmpty || this.fit === 'width') this.applyFit();
    }
    const there = new Set(pages.map(({ id }) => id));
    for (const [id, { picture }] of this.pictures)
      if (!there.has(id)) {
        picture.close();
        this.pictures.delete(id);
      }
    const isOn = (page: Id, stroke: Id): boolean =>
      board.pages.get(page)?.items.has(stroke) ?? false;
    this.drying = this.drying.filter(({ id, placed }) => !isOn(placed.page.id, id));
    for (const { stroke, page } of this.live.all())
      if (isOn(page, stroke)) this.live.settle(stroke);
    if (this.waiting) this.goTo(this.waiting);
    this.refresh();
  }

  private size(): { width: number; height: number } {
    const { clientWidth, clientHeight } = this.host().nativeElement;
    return { width: Math.max(1, clientWidth), height: Math.max(1, clientHeight) };
  }

  private resize(): void {
    const size = this.size();
    this.konva?.size(size);
    if (this.fit) this.applyFit();
    else this.setCamera(this.camera);
  }

  private applyFit(): void {
    const { width, height } = this.size();
    if (this.fit === 'page' && this.page()) return this.goTo(this.page()!);
    const zoom = width / this.run.width;
    // Phones held upright would show a wide page tiny, screens would blow a narrow one up.
    const bounded = Math.min(zoom, Math.max(2.2, height / 500));
    this.setCamera({ x: 0, y: this.camera.y, zoom: bounded });
  }

  private setCamera(camera: Camera): void {
    this.camera = clamp(camera, this.run, this.size());
    this.zoom.set(this.camera.zoom);
    this.refresh();
  }

  private zoomAround(at: Point, zoom: number): void {
    this.fit = null;
    this.setCamera(zoomAt(this.camera, at, zoom));
  }

  private seen(): Placed[] {
    const { height } = this.size();
    const { y, zoom } = this.camera;
    return pagesBetween(this.run, y, y + height / zoom);
  }

  /** After anything moved or changed: says what is in view, and draws it. */
  private refresh(): void {
    if (!this.konva) return;
    const { width, height } = this.size();
    const { x, y, zoom } = this.camera;
    const scale = zoom * devicePixelRatio;
    const seen = this.seen();
    const near = new Set(seen.map(({ page }) => page.id));
    for (const placed of seen) {
      const { page } = placed;
      let known = this.pictures.get(page.id);
      if (!known) {
        known = {
          picture: new PagePicture(page, this.papers(), () => this.pagesLayer.batchDraw()),
          page,
        };
        this.pictures.set(page.id, known);
      }
      known.picture.update(page);
      const left = Math.max(0, x - placed.x);
      const top = Math.max(0, y - placed.y);
      const right = Math.min(page.width, x + width / zoom - placed.x);
      const bottom = Math.min(page.height, y + height / zoom - placed.y);
      if (right > left && bottom > top)
        known.picture.want({ x: left, y: top, width: right - left, height: bottom - top }, scale);
    }
    for (const [id, { picture }] of this.pictures)
      if (!near.has(id)) {
        picture.close();
        this.pictures.delete(id);
      }
    const middle = pageAt(this.run, y + Math.min(height / zoom / 2, this.run.height));
    if (middle && middle.page.id !== this.page()) {
      this.page.set(middle.page.id);
      this.shown.emit(middle.page.id);
    }
    this.pagesLayer.batchDraw();
    this.drawLive();
  }

  private drawLive(): void {
    this.highlightLayer.batchDraw();
    this.penLayer.batchDraw();
  }

  private drawPages(context: CanvasRenderingContext2D): void {
    const { x, y, zoom } = this.camera;
    for (const { page, x: px, y: py } of this.seen()) {
      context.save();
      context.scale(zoom, zoom);
      context.translate(px - x, py - y);
      context.shadowColor = 'rgb(40 30 10 / 22%)';
      context.shadowBlur = 14;
      context.shadowOffsetY = 3;
      context.fillStyle = '#ffffff';
      context.fillRect(0, 0, page.width, page.height);
      context.shadowColor = 'transparent';
      context.beginPath();
      context.rect(0, 0, page.width, page.height);
      context.clip();
      this.pictures.get(page.id)?.picture.draw(context);
      context.restore();
    }
  }

  private drawUnderWay(context: CanvasRenderingContext2D, blend: 'normal' | 'multiply'): void {
    const own = [...this.drying, ...(this.own ? [this.own] : [])].map((stroke) => ({
      ...stroke,
      page: stroke.placed.page.id,
    }));
    for (const { page, style, points } of [...this.live.all(), ...own]) {
      const placed = placeOf(this.run, page);
      if (!placed || points.length === 0) continue;
      const display = displayStroke({ style, points });
      if (display.blend !== blend) continue;
      const { x, y, zoom } = this.camera;
      context.save();
      context.scale(zoom, zoom);
      context.translate(placed.x - x, placed.y - y);
      context.beginPath();
      context.rect(0, 0, placed.page.width, placed.page.height);
      context.clip();
      paint(context, display, pathOf(display));
      context.restore();
    }
  }

  private target(): GestureTarget {
    return {
      writes: () => this.mayWrite() && this.tool() !== 'hand',
      penDown: (sample) => this.penDown(sample),
      penMove: (samples) => this.penMove(samples),
      penUp: () => this.penUp(),
      penLost: () => this.penLost(),
      pan: (dx, dy) => this.pan(dx, dy),
      pinch: (middle, dx, dy, factor) => {
        const { zoom } = this.camera;
        const moved = {
          ...this.camera,
          x: this.camera.x - dx / zoom,
          y: this.camera.y - dy / zoom,
        };
        this.fit = null;
        this.setCamera(zoomAt(moved, middle, zoom * factor));
      },
      fling: (vx, vy) => this.fling(vx, vy),
      touched: () => cancelAnimationFrame(this.glide),
    };
  }

  private pan(dx: number, dy: number): void {
    const { x, y, zoom } = this.camera;
    if (dx !== 0 && this.fit === 'width' && Math.abs(dx) > Math.abs(dy)) this.fit = null;
    this.setCamera({ x: x - dx / zoom, y: y - dy / zoom, zoom });
  }

  private fling(vx: number, vy: number): void {
    let last = performance.now();
    const step = (now: number): void => {
      const dt = now - last;
      last = now;
      this.pan(vx * dt, vy * dt);
      const slower = FRICTION ** dt;
      vx *= slower;
      vy *= slower;
      if (Math.hypot(vx, vy) > 0.02) this.glide = requestAnimationFrame(step);
    };
    this.glide = requestAnimationFrame(step);
  }

  private onPage(sample: Point): { placed: Placed; at: Point } | null {
    const p = toBoard(this.camera, sample);
    const placed = this.seen().find(
      ({ page, x, y }) => p.x >= x && p.y >= y && p.x <= x + page.width && p.y <= y + page.height,
    );
    return placed ? { placed, at: { x: p.x - placed.x, y: p.y - placed.y } } : null;
  }

  private penDown(sample: Sample): boolean {
    const hit = this.onPage(sample);
    if (this.tool() === 'eraser') {
      this.sweep = { gesture: {}, last: toBoard(this.camera, sample), gone: new Set() };
      this.sweepTo(sample);
      return true;
    }
    if (!hit) return false;
    this.own = {
      id: newId(),
      placed: hit.placed,
      style: this.style(),
      points: [{ ...hit.at, pressure: sample.pressure, time: 0 }],
      began: sample.time,
      sent: 0,
    };
    this.sendSoon();
    this.drawLive();
    return true;
  }

  private penMove(samples: readonly Sample[]): void {
    if (this.sweep) {
      for (const sample of samples) this.sweepTo(sample);
      return;
    }
    const { own } = this;
    if (!own) return;
    for (const sample of samples) {
      const p = toBoard(this.camera, sample);
      const last = own.points[own.points.length - 1]!;
      const next: InkPoint = {
        x: p.x - own.placed.x,
        y: p.y - own.placed.y,
        pressure: sample.pressure,
        time: Math.max(last.time, Math.round(sample.time - own.began)),
      };
      if (next.x !== last.x || next.y !== last.y) own.points.push(next);
    }
    this.sendSoon();
    this.drawLive();
    if (own.points.length >= PIECE) {
      this.penUp();
      const end = own.points[own.points.length - 1]!;
      this.own = {
        ...own,
        id: newId(),
        points: [{ ...end, time: 0 }],
        began: own.began + end.time,
        sent: 0,
      };
    }
  }

  private penUp(): void {
    this.sweep = null;
    const { own } = this;
    if (!own) return;
    this.own = null;
    cancelAnimationFrame(this.sendFrame);
    this.sendFrame = 0;
    const points = thinPoints(own.points, own.style.width);
    const ink = encodeStroke({ style: own.style, points });
    this.drying.push(own);
    this.drawn.emit({ id: own.id, page: own.placed.page.id, ink });
  }

  private penLost(): void {
    this.sweep = null;
    const { own } = this;
    if (!own) return;
    this.own = null;
    cancelAnimationFrame(this.sendFrame);
    this.sendFrame = 0;
    this.givenUp.emit(own.id);
    this.drawLive();
  }

  /** New points go out once a frame. */
  private sendSoon(): void {
    if (this.sendFrame !== 0) return;
    this.sendFrame = requestAnimationFrame(() => {
      this.sendFrame = 0;
      const { own } = this;
      if (!own || own.sent === own.points.length) return;
      const points = encodePoints(own.points.slice(own.sent));
      const first = own.sent === 0;
      own.sent = own.points.length;
      this.piece.emit({
        stroke: own.id,
        points,
        ...(first ? { start: { page: own.placed.page.id, style: own.style } } : {}),
      });
    });
  }

  private sweepTo(sample: Sample): void {
    const { sweep } = this;
    if (!sweep) return;
    const to = toBoard(this.camera, sample);
    const from = sweep.last;
    sweep.last = to;
    const mayErase = this.mayErase();
    const radius = ERASER / this.camera.zoom;
    for (const { page, x, y } of this.seen()) {
      const a = { x: from.x - x, y: from.y - y };
      const b = { x: to.x - x, y: to.y - y };
      const hit = itemsOn(page).filter(
        (item) =>
          !sweep.gone.has(item.id) && mayErase(item) && touches(strokeOf(item), a, b, radius),
      );
      if (hit.length === 0) continue;
      const items = hit.map(({ id }) => id);
      for (const id of items) sweep.gone.add(id);
      this.erased.emit({ page: page.id, items, gesture: sweep.gesture });
    }
  }

  private wheel(event: WheelEvent): void {
    event.preventDefault();
    const unit = event.deltaMode === 1 ? 20 : event.deltaMode === 2 ? this.size().height : 1;
    const dx = event.deltaX * unit;
    const dy = event.deltaY * unit;
    if (event.ctrlKey || event.metaKey) {
      const corner = this.host().nativeElement.getBoundingClientRect();
      const at = { x: event.clientX - corner.x, y: event.clientY - corner.y };
      this.zoomAround(at, this.camera.zoom * Math.exp(-dy * 0.0022));
    } else if (event.shiftKey && dx === 0) this.pan(-dy, 0);
    else this.pan(-dx, -dy);
  }

  private key(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    const { width, height } = this.size();
    const step = 60;
    const moves: Record<string, () => void> = {
      ArrowUp: () => this.pan(0, step),
      ArrowDown: () => this.pan(0, -step),
      ArrowLeft: () => this.pan(step, 0),
      ArrowRight: () => this.pan(-step, 0),
      PageUp: () => this.turn(-1),
      PageDown: () => this.turn(1),
      Home: () => this.setCamera({ ...this.camera, y: 0 }),
      End: () => this.setCamera({ ...this.camera, y: Infinity }),
      '+': () => this.zoomAround({ x: width / 2, y: height / 2 }, this.camera.zoom * 1.25),
      '=': () => this.zoomAround({ x: width / 2, y: height / 2 }, this.camera.zoom * 1.25),
      '-': () => this.zoomAround({ x: width / 2, y: height / 2 }, this.camera.zoom / 1.25),
      w: () => this.fitWidth(),
      f: () => this.fitPage(),
    };
    const move = moves[event.key];
    if (!move) return;
    event.preventDefault();
    move();
  }

  private showCursor(): void {
    const element = this.host().nativeElement;
    const writing = this.mayWrite() && this.tool() !== 'hand';
    element.classList.toggle('writing', writing);
    element.classList.toggle('erasing', writing && this.tool() === 'eraser');
    if (this.tool() !== 'eraser' || !writing) this.cursor().nativeElement.classList.remove('on');
  }

  private moveCursor(event: PointerEvent): void {
    if (this.tool() !== 'eraser' || !this.mayWrite() || event.pointerType === 'touch') return;
    const corner = this.host().nativeElement.getBoundingClientRect();
    const { nativeElement: ring } = this.cursor();
    ring.classList.add('on');
    ring.style.transform = `translate(${event.clientX - corner.x - ERASER}px, ${event.clientY - corner.y - ERASER}px)`;
  }
}

function native(context: unknown): CanvasRenderingContext2D {
  return (context as { _context: CanvasRenderingContext2D })._context;
}
