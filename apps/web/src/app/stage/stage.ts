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
import type { Board, Frame, Id, InkStyle, Item, Point, View } from '@cuaderno/core';
import type { LiveInkEvent } from '../live/board-session';
import type { Tool } from '../tools/tool';
import { Gestures } from './gestures';
import type { GestureTarget } from './gestures';
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
import { Viewing } from './viewing';
import { Writing } from './writing';
import type { Erased, FinishedStroke, StrokePiece } from './writing';

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

  private readonly viewing = new Viewing(
    () => this.size(),
    () => this.refresh(),
    (page) => this.shown.emit(page),
  );
  /** CSS pixels a point. */
  readonly zoom = this.viewing.zoom.asReadonly();
  readonly page = this.viewing.page.asReadonly();
  /** Counts what moves the page in the window. */
  readonly moved = signal(0);

  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly cursor = viewChild.required<ElementRef<HTMLElement>>('cursor');
  private readonly live = new LiveStrokes();
  private readonly writing = new Writing(
    {
      camera: () => this.viewing.camera,
      seen: () => this.viewing.seen(),
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
      camera: () => this.viewing.camera,
      seen: () => this.viewing.seen(),
      page: (id) => this.viewing.placed(id)?.page,
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
    {
      camera: () => this.viewing.camera,
      seen: () => this.viewing.seen(),
      style: () => this.layStyle(),
    },
    {
      laid: (page, thing) => this.laid.emit({ page, thing }),
      changed: () => this.scene?.drawCarried(),
    },
  );
  private readonly pointing = new Pointing(
    { camera: () => this.viewing.camera, seen: () => this.viewing.seen() },
    (page, at, item) => this.wrote.emit({ page, at, item }),
  );
  private readonly resizing = new ResizeObserver(() => this.resize());
  private steering: Steering | null = null;
  private look: PointerLook | null = null;
  /** What the pointer that is down works with. */
  private inHand: PointerTool = this.writing;
  private scene: Scene | null = null;
  private gestures: Gestures | null = null;

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

  /** What the window shows; any other window can show the same. */
  get part(): View | null {
    return this.viewing.part;
  }

  /** Shows what another window shows from now on; `null` lets go of it. */
  follow(view: View | null): void {
    this.viewing.follow(view);
  }

  /** Shows what another window shows, once. */
  show(view: View): void {
    this.viewing.show(view);
  }

  /** Shows a page from its top, at the present zoom. */
  goTo(page: Id): void {
    this.viewing.goTo(page);
  }

  fitWidth(): void {
    this.viewing.fitWidth();
  }

  fitPage(): void {
    this.viewing.fitPage();
  }

  /** @param factor above 1 zooms in; around a place, or the middle of the window */
  zoomBy(factor: number, around?: Point): void {
    this.viewing.zoomBy(factor, around);
  }

  zoomTo(zoom: number): void {
    this.viewing.zoomTo(zoom);
  }

  /** Chooses items, or none; they are shown as chosen while the tool for it is in hand. */
  choose(selection: Selection | null): void {
    this.selecting.choose(selection);
    this.chose.emit(selection);
  }

  /** The middle of what the window shows of the page in view, in points on that page. */
  get middle(): { page: Id; at: Point } | null {
    return this.viewing.middle;
  }

  /** The page at a place of the screen, in CSS px from the window's corner, and where on it. */
  placeAt(client: Point): { page: Id; at: Point } | null {
    const corner = this.host().nativeElement.getBoundingClientRect();
    const sample = { x: client.x - corner.x, y: client.y - corner.y };
    const under = pageUnder(this.viewing.camera, this.viewing.seen(), sample);
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
    return this.viewing.locate(page, p);
  }

  /** Moves the board no more than it must for a place on a page to be in the window. */
  reveal(page: Id, p: Point): void {
    this.viewing.reveal(page, p);
  }

  private start(): void {
    const element = this.host().nativeElement;
    this.scene = new Scene(element as HTMLDivElement, {
      camera: () => this.viewing.camera,
      size: () => this.size(),
      seen: () => this.viewing.seen(),
      near: () => this.viewing.near(),
      underWay: () => [...this.live.all(), ...this.writing.underWay()],
      papers: () => this.papers(),
      lifted: () => this.selecting.lifted() ?? this.laying.lifted() ?? this.hiding(),
      selection: () => this.selecting.view(),
    });
    this.resizing.observe(element);
    this.gestures = new Gestures(element, this.target());
    this.steering = new Steering(element, {
      pan: (dx, dy) => this.viewing.pan(dx, dy),
      zoomBy: (factor, around) => this.viewing.zoomBy(factor, around),
      turn: (by) => this.viewing.turn(by),
      toStart: () => this.viewing.toStart(),
      toEnd: () => this.viewing.toEnd(),
      fitWidth: () => this.viewing.fitWidth(),
      fitPage: () => this.viewing.fitPage(),
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
    this.viewing.close();
    this.writing.close();
    this.scene?.close();
  }

  private setBoard(board: Board): void {
    this.viewing.lay(pagesInOrder(board));
    const isOn = (page: Id, stroke: Id): boolean =>
      board.pages.get(page)?.items.has(stroke) ?? false;
    this.writing.settle(board);
    this.selecting.settle();
    this.laying.settle();
    for (const { stroke, page } of this.live.all())
      if (isOn(page, stroke)) this.live.settle(stroke);
    this.refresh();
  }

  /** Of the window, in CSS px. */
  size(): { width: number; height: number } {
    const { clientWidth, clientHeight } = this.host().nativeElement;
    return { width: Math.max(1, clientWidth), height: Math.max(1, clientHeight) };
  }

  private resize(): void {
    this.scene?.resize();
    this.viewing.resized();
  }

  /** After anything moved or changed: says what is in view, and draws it. */
  private refresh(): void {
    if (!this.scene) return;
    this.moved.update((n) => n + 1);
    this.viewing.settle();
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
      pan: (dx, dy) => this.viewing.pan(dx, dy),
      pinch: (middle, dx, dy, factor) => this.viewing.pinch(middle, dx, dy, factor),
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
}
