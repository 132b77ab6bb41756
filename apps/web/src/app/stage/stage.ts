import type { ElementRef } from '@angular/core';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { pagesInOrder } from '@cuaderno/core';
import type { Board, Frame, Id, InkStyle, Item, Point } from '@cuaderno/core';
import type { LiveInkEvent } from '../live/board-session';
import type { Tool } from '../tools/tool';
import { clamp, panToShow, zoomAt } from './camera';
import type { Camera } from './camera';
import { Gestures } from './gestures';
import type { GestureTarget } from './gestures';
import { GAP, layOut, pageAt, pagesBetween, pagesNear, placeOf } from './layout';
import type { Placed, Run } from './layout';
import { Laying } from './laying';
import type { Laid, LayStyle } from './laying';
import { LiveStrokes } from './live-strokes';
import { PaperSource } from './paper-source';
import { pageUnder } from './pointer-tool';
import type { Lifted, PointerTool } from './pointer-tool';
import { PointerLook } from './pointer-look';
import { Pointing } from './pointing';
import { Scene } from './scene';
import { Selecting } from './selecting';
import type { Selection } from './selecting';
import { Steering } from './steering';
import { Writing } from './writing';
import type { Erased, FinishedStroke, StrokePiece } from './writing';

/**
 * The sheet of glass under everyone's pens: draws a board, and turns what a pointer does into
 * strokes. It knows nothing of courses, lessons or the network.
 */
/** Pixels of pages that are drawn before they come into the window, at most. */
const NEAR_PIXELS = 8_000_000;

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

  /** How figures and marks are laid. */
  readonly layStyle = input<LayStyle>({ kind: 'mark', mark: 'tick', colour: '#c22f2f' });
  /** Whether a drag over nothing draws a lasso, and not a box. */
  readonly lasso = input(false);
  /** Whether the sides of the picture that is chosen cut it. */
  readonly cropping = input(false);
  /** What is being written in place, and so isn't drawn. */
  readonly hiding = input<Lifted | null>(null);
  readonly drawn = output<FinishedStroke>();
  /** A text is to be written: a new one at this place, or one that is there. */
  readonly wrote = output<{ readonly page: Id; readonly at: Point; readonly item: Item | null }>();
  /** A figure or a mark was drawn. */
  readonly laid = output<{ readonly page: Id; readonly thing: Laid }>();
  readonly chose = output<Selection | null>();
  /** What is chosen was moved, sized or turned. */
  readonly placed = output<{
    readonly selection: Selection;
    readonly from: Frame;
    readonly to: Frame;
  }>();
  /** The ends of the line that is chosen were moved, or the picture was cropped. */
  readonly redrawn = output<{ readonly selection: Selection; readonly to: object }>();
  readonly piece = output<StrokePiece>();
  /** A line under way was given up. */
  readonly givenUp = output<Id>();
  readonly erased = output<Erased>();
  /** The page in the middle of the window. */
  readonly shown = output<Id>();

  /** CSS pixels a point. */
  readonly zoom = signal(1);
  readonly page = signal<Id | null>(null);
  /** Counts what moves the page in the window. */
  readonly moved = signal(0);

  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly cursor = viewChild.required<ElementRef<HTMLElement>>('cursor');
  private run: Run = layOut([]);
  private camera: Camera = { x: 0, y: 0, zoom: 1 };
  private fit: 'width' | 'page' | null = 'width';
  private readonly live = new LiveStrokes();
  private readonly writing = new Writing(
    {
      camera: () => this.camera,
      seen: () => this.seen(),
      tool: () => this.tool(),
      style: () => this.style(),
      mayErase: () => this.mayErase(),
    },
    {
      drawn: (stroke) => this.drawn.emit(stroke),
      piece: (piece) => this.piece.emit(piece),
      givenUp: (stroke) => this.givenUp.emit(stroke),
      erased: (what) => this.erased.emit(what),
      changed: () => this.drawLive(),
    },
  );
  private readonly selecting = new Selecting(
    {
      camera: () => this.camera,
      seen: () => this.seen(),
      page: (id) => placeOf(this.run, id)?.page,
      lasso: () => this.lasso(),
      cropping: () => this.cropping(),
    },
    {
      chose: (selection) => this.chose.emit(selection),
      placed: (selection, from, to) => this.placed.emit({ selection, from, to }),
      drawn: (selection, to) => this.redrawn.emit({ selection, to }),
      changed: () => this.scene?.drawCarried(),
    },
  );
  private readonly laying = new Laying(
    { camera: () => this.camera, seen: () => this.seen(), style: () => this.layStyle() },
    {
      laid: (page, thing) => this.laid.emit({ page, thing }),
      changed: () => this.scene?.drawCarried(),
    },
  );
  private readonly pointing = new Pointing(
    { camera: () => this.camera, seen: () => this.seen() },
    (page, at, item) => this.wrote.emit({ page, at, item }),
  );
  private readonly resizing = new ResizeObserver(() => this.resize());
  private steering: Steering | null = null;
  private look: PointerLook | null = null;
  /** What the pointer that is down works with. */
  private inHand: PointerTool = this.writing;
  private scene: Scene | null = null;
  private gestures: Gestures | null = null;
  private waiting: Id | null = null;

  constructor() {
    afterNextRender(() => this.start());
    effect(() => {
      const board = this.board();
      untracked(() => this.setBoard(board));
    });
    effect(() => {
      this.cropping();
      this.hiding();
      untracked(() => this.scene?.drawCarried());
    });
    effect(() => {
      if (!this.mayWrite()) untracked(() => this.gestures?.interrupt());
    });
    effect(() => {
      const tool = this.tool();
      const writes = this.mayWrite();
      untracked(() => {
        this.look?.show(tool, writes);
        if (tool !== 'select') this.choose(null);
      });
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

  /** @param factor above 1 zooms in; around a place, or the middle of the window */
  zoomBy(factor: number, around?: Point): void {
    const { width, height } = this.size();
    this.zoomAround(around ?? { x: width / 2, y: height / 2 }, this.camera.zoom * factor);
  }

  zoomTo(zoom: number): void {
    const { width, height } = this.size();
    this.zoomAround({ x: width / 2, y: height / 2 }, zoom);
  }

  /** Chooses items, or none; they are shown as chosen while the tool for it is in hand. */
  choose(selection: Selection | null): void {
    this.selecting.choose(selection);
    this.chose.emit(selection);
  }

  /** The middle of what the window shows of the page in view, in points on that page. */
  get middle(): { page: Id; at: Point } | null {
    const placed = placeOf(this.run, this.page() ?? '');
    if (!placed) return null;
    const { width, height } = this.size();
    const { x, y, zoom } = this.camera;
    const { page } = placed;
    const between = (at: number, most: number): number => Math.min(most, Math.max(0, at));
    return {
      page: page.id,
      at: {
        x: between(x + width / zoom / 2 - placed.x, page.width),
        y: between(y + height / zoom / 2 - placed.y, page.height),
      },
    };
  }

  /** The page at a place of the screen, in CSS px from the window's corner, and where on it. */
  placeAt(client: Point): { page: Id; at: Point } | null {
    const corner = this.host().nativeElement.getBoundingClientRect();
    const sample = { x: client.x - corner.x, y: client.y - corner.y };
    const under = pageUnder(this.camera, this.seen(), sample);
    return under && { page: under.placed.page.id, at: under.p };
  }

  /** Someone else's stroke under way. */
  take(event: LiveInkEvent): void {
    this.live.take(event);
    this.drawLive();
  }

  /** Whether the page in view is drawn sharp; for tests and benchmarks. */
  get isSharp(): boolean {
    return this.scene?.isSharp ?? false;
  }

  /** Where a place on a page is in the window, in CSS px from the stage's corner. */
  locate(page: Id, p: Point): Point | null {
    const placed = placeOf(this.run, page);
    if (!placed) return null;
    const { x, y, zoom } = this.camera;
    return { x: (placed.x + p.x - x) * zoom, y: (placed.y + p.y - y) * zoom };
  }

  /** Moves the board no more than it must for a place on a page to be in the window. */
  reveal(page: Id, p: Point): void {
    const at = this.locate(page, p);
    if (!at) return;
    const { x, y } = panToShow(at, this.size());
    this.pan(x, y);
  }

  private start(): void {
    const element = this.host().nativeElement;
    this.scene = new Scene(element as HTMLDivElement, {
      camera: () => this.camera,
      size: () => this.size(),
      seen: () => this.seen(),
      near: () => this.near(),
      underWay: () => [...this.live.all(), ...this.writing.underWay()],
      papers: () => this.papers(),
      lifted: () => this.selecting.lifted() ?? this.laying.lifted() ?? this.hiding(),
      selection: () => this.selecting.view(),
    });
    this.resizing.observe(element);
    this.gestures = new Gestures(element, this.target());
    this.steering = new Steering(element, {
      pan: (dx, dy) => this.pan(dx, dy),
      zoomBy: (factor, around) => this.zoomBy(factor, around),
      turn: (by) => this.turn(by),
      toStart: () => this.setCamera({ ...this.camera, y: 0 }),
      toEnd: () => this.setCamera({ ...this.camera, y: Infinity }),
      fitWidth: () => this.fitWidth(),
      fitPage: () => this.fitPage(),
      height: () => this.size().height,
      keepsArrows: () => this.selecting.view() !== null,
    });
    element.addEventListener('dblclick', (event) => {
      const corner = element.getBoundingClientRect();
      const sample = { x: event.clientX - corner.x, y: event.clientY - corner.y };
      if (this.tool() === 'select' && this.mayWrite()) this.pointing.open(sample);
    });
    this.look = new PointerLook(element, this.cursor().nativeElement);
    this.look.show(this.tool(), this.mayWrite());
    (element as unknown as { cuaStage: Stage }).cuaStage = this;
    this.resize();
  }

  private stop(): void {
    // Taken off the screen its size changes once more, and nobody is there to be told.
    this.resizing.disconnect();
    this.gestures?.close();
    this.steering?.stop();
    this.writing.close();
    this.scene?.close();
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
    const isOn = (page: Id, stroke: Id): boolean =>
      board.pages.get(page)?.items.has(stroke) ?? false;
    this.writing.settle(board);
    this.selecting.settle();
    this.laying.settle();
    for (const { stroke, page } of this.live.all())
      if (isOn(page, stroke)) this.live.settle(stroke);
    if (this.waiting) this.goTo(this.waiting);
    this.refresh();
  }

  /** Of the window, in CSS px. */
  size(): { width: number; height: number } {
    const { clientWidth, clientHeight } = this.host().nativeElement;
    return { width: Math.max(1, clientWidth), height: Math.max(1, clientHeight) };
  }

  private resize(): void {
    this.scene?.resize();
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

  private near(): Placed[] {
    const { height } = this.size();
    const { y, zoom } = this.camera;
    const area = NEAR_PIXELS / (zoom * devicePixelRatio) ** 2;
    return pagesNear(this.run, y, y + height / zoom, area);
  }

  /** After anything moved or changed: says what is in view, and draws it. */
  private refresh(): void {
    if (!this.scene) return;
    this.moved.update((n) => n + 1);
    const { height } = this.size();
    const { y, zoom } = this.camera;
    const middle = pageAt(this.run, y + Math.min(height / zoom / 2, this.run.height));
    if (middle && middle.page.id !== this.page()) {
      this.page.set(middle.page.id);
      this.shown.emit(middle.page.id);
    }
    this.scene.refresh();
  }

  private drawLive(): void {
    this.scene?.drawLive();
  }

  private target(): GestureTarget {
    return {
      writes: () => this.mayWrite() && this.tool() !== 'hand',
      penDown: (sample) => {
        this.inHand = this.handTool();
        return this.inHand.down(sample);
      },
      penMove: (samples) => this.inHand.move(samples),
      penUp: () => this.inHand.up(),
      penLost: () => this.inHand.lost(),
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
      fling: (vx, vy) => this.steering?.fling(vx, vy),
      touched: () => this.steering?.stop(),
    };
  }

  private handTool(): PointerTool {
    const tool = this.tool();
    if (tool === 'select') return this.selecting;
    if (tool === 'text' || tool === 'slip' || tool === 'formula') return this.pointing;
    return tool === 'shape' || tool === 'mark' ? this.laying : this.writing;
  }

  private pan(dx: number, dy: number): void {
    const { x, y, zoom } = this.camera;
    if (dx !== 0 && this.fit === 'width' && Math.abs(dx) > Math.abs(dy)) this.fit = null;
    this.setCamera({ x: x - dx / zoom, y: y - dy / zoom, zoom });
  }
}
