import type { ElementRef } from '@angular/core';
import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { pagesInOrder } from '@cuaderno/core/board';
import type { Board, Item } from '@cuaderno/core/board';
import type { Author } from '@cuaderno/core/drawing';
import type { Lamp, Place, Overlay, View } from '@cuaderno/core/features';
import type { Frame, Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { InkStyle } from '@cuaderno/core/ink';
import type { Drawing } from '@cuaderno/core/replay';
import type { LiveInkEvent } from '../../live/live-ink';
import type { Tool } from '../tool/tool';
import { Gestures } from './gestures';
import type { FingerUse, GestureTarget } from './gestures';
import { Hand } from './hand';
import { KeyCursor } from './key-cursor';
import type { Drawn } from '../kinds/drawn';
import type { Laid } from '../kinds/kind';
import type { Placed } from './layout';
import { LiveStrokes } from './live-strokes';
import { PaperSource } from '../drawing/paper-source';
import { PRINT_WORDS } from '../drawing/print-words';
import type { PrintWords } from '../drawing/print-words';
import type { DragPreview, PointerTool } from './pointer-tool';
import { CursorShape } from './cursor-shape';
import type { Cut } from './rubbing';
import { Scene } from './scene';
import type { Selection } from './selecting';
import { ShownLayer } from './shown-layer';
import { spokenAt } from './spoken-at';
import { Steering } from './steering';
import { Viewing } from './viewing';
import type { Erased, FinishedStroke, StrokePiece } from './writing';

/** By which one's own dot is known here. */
const OWN: Id = 'own';

/**
 * The sheet of glass under everyone's pens: draws a board, and turns what a pointer does into
 * strokes. It knows nothing of courses, lessons or the network.
 */
@Component({
  selector: 'cua-stage',
  templateUrl: './stage.html',
  styleUrl: './stage.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Stage {
  readonly board = input.required<Board>();
  /** Whether this person may write on a page. */
  readonly mayWriteOn = input<(page: Id) => boolean>(() => false);
  /** Whether they may move the lamp, and point on a page. */
  readonly mayLight = input(false);
  readonly mayPoint = input<(page: Id) => boolean>(() => false);
  /** Whether they may choose an item, to change it. */
  readonly mayChange = input<(item: Item) => boolean>(() => true);
  readonly tool = input<Tool>('hand');
  readonly style = input<InkStyle>({ tool: 'pen', ink: 'midnight', width: 2.4 });
  /** Whether this person may erase an item. */
  readonly mayErase = input<(item: Item) => boolean>(() => false);
  readonly papers = input<PaperSource>(new PaperSource());
  /** What one finger does. */
  readonly fingerUse = input<FingerUse>('auto');

  /** The only page that is laid out, where this person doesn't turn pages alone. */
  readonly only = input<Id | null>(null);
  /** Arrows and the lamp. */
  readonly shownHere = input<Overlay>({ arrows: [], lamp: null });
  /** Who somebody is, to sign what they do. */
  readonly authorOf = input<(id: Id) => Author | null>(() => null);
  /** Lines that are being drawn in a lesson that is seen again, as far as they have come. */
  readonly drawing = input<readonly Drawing[]>([]);
  /** Whether every line says whose it is. */
  readonly signed = input(false);
  /** What the smallest window of those who follow shows. */
  readonly frame = input<{ readonly view: View; readonly label: string } | null>(null);
  /** Whether the eraser takes parts of lines. */
  readonly rubs = input(false);
  /** Whether the pointer leaves an arrow where it touches. */
  readonly leavesArrow = input(false);
  readonly lampShape = input<Lamp['shape']>('round');
  /** What is laid where the tool in hand has drawn so far. */
  readonly lay = input<(drawn: Drawn) => Laid | null>(() => null);
  /** Whether a drag over nothing draws a lasso, and not a box. */
  readonly lasso = input(false);
  /** Whether the sides of the picture that is chosen cut it. */
  readonly cropping = input(false);
  /** What is being written in place, and so isn't drawn. */
  readonly hiding = input<DragPreview | null>(null);
  /** A pen has come, or has been away for a while. */
  readonly penInUse = output<boolean>();
  readonly drawn = output<FinishedStroke>();
  /** A text is to be written: a new one at this place, or one that is there. */
  readonly wrote = output<{ readonly page: Id; readonly at: Point; readonly item: Item | null }>();
  /** Something was laid by drawing it. */
  readonly laid = output<{ readonly page: Id; readonly item: Laid }>();
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
  readonly lineCut = output<Cut>();
  /** Where this person points; `null` where they no longer do. */
  readonly pointed = output<Place | null>();
  readonly arrowed = output<Place>();
  readonly lit = output<{ readonly lamp: Lamp; readonly final: boolean }>();
  /** The page in the middle of the window. */
  readonly shown = output<Id>();

  protected readonly printWords = PRINT_WORDS;
  protected readonly print = signal<PrintWords>('here');

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

  /** Whether this person may write on the page in view. */
  readonly mayWrite = computed(() => this.mayWriteOn()(this.viewing.page() ?? ''));
  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly cursor = viewChild.required<ElementRef<HTMLElement>>('cursor');
  private readonly live = new LiveStrokes();
  private readonly overlay = new ShownLayer({
    shown: () => this.shownHere(),
    lights: () => this.mayLight(),
    authorOf: (id) => this.authorOf()(id),
    signed: () => this.signed(),
    underWay: () => [...this.live.all(), ...this.drawing()],
    frame: () => this.frame(),
    pages: () => this.viewing.seen().map(({ page }) => page),
    at: (page, p) => this.viewing.locate(page, p),
    zoom: () => this.viewing.camera.zoom,
    size: () => this.size(),
  });
  private readonly hand = new Hand(
    {
      camera: () => this.viewing.camera,
      lightable: () => (this.mayLight() ? this.viewing.seen() : []),
      writable: () => this.writable(),
      pointable: () => this.viewing.seen().filter(({ page }) => this.mayPoint()(page.id)),
      page: (id) => this.viewing.placed(id)?.page,
      tool: () => this.tool(),
      style: () => this.style(),
      lay: (drawn) => this.lay()(drawn),
      mayErase: () => this.mayErase(),
      mayChange: (item) => this.mayChange()(item),
      rubs: () => this.rubs(),
      lasso: () => this.lasso(),
      cropping: () => this.cropping(),
      leavesArrow: () => this.leavesArrow(),
      lamp: () => this.shownHere().lamp,
      lampShape: () => this.lampShape(),
      hiding: () => this.hiding(),
    },
    {
      drawn: (stroke) => this.drawn.emit(stroke),
      piece: (piece) => this.piece.emit(piece),
      givenUp: (stroke) => this.givenUp.emit(stroke),
      erased: (what) => this.erased.emit(what),
      cut: (cut) => this.lineCut.emit(cut),
      pointed: (at) => {
        this.point(OWN, at);
        this.pointed.emit(at);
      },
      arrowed: (at) => this.arrowed.emit(at),
      lit: (lamp, final) => this.lit.emit({ lamp, final }),
      chose: (selection) => this.chose.emit(selection),
      placed: (selection, from, to) => this.placed.emit({ selection, from, to }),
      redrawn: (selection, to) => this.redrawn.emit({ selection, to }),
      laid: (page, item) => this.laid.emit({ page, item }),
      wrote: (page, at, item) => this.wrote.emit({ page, at, item }),
      liveChanged: () => this.drawLive(),
      carriedChanged: () => this.scene?.drawCarried(),
    },
  );
  protected readonly keys = new KeyCursor({
    ...this.target(),
    tool: () => this.tool(),
    size: () => this.size(),
    keepsArrows: () => this.hand.selection() !== null,
    partOf: (at) => this.viewing.partOf(at),
    under: (at) => spokenAt(this.viewing, at),
  });
  private readonly resizing = new ResizeObserver(() => this.resize());
  private steering: Steering | null = null;
  private look: CursorShape | null = null;
  /** What the pointer that is down works with. */
  private inHand: PointerTool = this.hand.inHand;
  private scene: Scene | null = null;
  private gestures: Gestures | null = null;

  constructor() {
    afterNextRender(() => this.start());
    effect(() => {
      const board = this.board();
      this.only();
      untracked(() => this.setBoard(board));
    });
    effect(() => {
      this.cropping();
      this.hiding();
      untracked(() => this.scene?.drawCarried());
    });
    effect(() => {
      this.drawing();
      untracked(() => this.drawLive());
    });
    effect(() => {
      this.shownHere();
      this.signed();
      this.authorOf();
      this.frame();
      untracked(() => this.scene?.drawShown());
    });
    effect(() => {
      // Nothing that was begun with a pen goes on without it.
      if (!this.mayWrite() && !this.hand.shows) untracked(() => this.gestures?.interrupt());
    });
    effect(() => {
      const use = this.fingerUse();
      if (this.gestures) this.gestures.fingerUse = use;
    });
    effect(() => {
      const tool = this.tool();
      const writes = this.mayWrite();
      untracked(() => {
        this.look?.show(tool, writes);
        this.keys.toolChanged();
        if (tool !== 'select') this.choose(null);
        if (tool !== 'pointer') this.hand.off();
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

  /** Goes so many pages on or back. */
  turn(by: number): void {
    this.viewing.turn(by);
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
    this.hand.choose(selection);
    this.chose.emit(selection);
  }

  /** The middle of what the window shows of the page in view, in points on that page. */
  get middle(): { page: Id; at: Point } | null {
    return this.viewing.middle;
  }

  /** The page at a place of the screen, in CSS px from the window's corner, and where on it. */
  placeAt(client: Point): { page: Id; at: Point } | null {
    const { x, y } = this.host().nativeElement.getBoundingClientRect();
    return this.viewing.placeAt({ x: client.x - x, y: client.y - y });
  }

  /** Someone else's stroke under way. */
  receiveInk(event: LiveInkEvent): void {
    this.live.receive(event);
    this.drawLive();
  }

  /** Somebody else points, or no longer does. */
  point(by: Id, at: Place | null): void {
    this.overlay.point(by, at);
    this.scene?.drawShown();
  }

  /** Where each points, for tests. */
  get dots(): ReadonlyMap<Id, Point> {
    return this.overlay.pointing;
  }

  /** Whether the page in view is drawn sharp; for tests and benchmarks. */
  get isSharp(): boolean {
    return this.scene?.isSharp ?? false;
  }

  /** Where a place on a page is in the window, in CSS px from the stage's corner. */
  locate(page: Id, p: Point): Point | null {
    return this.viewing.locate(page, p);
  }

  /** Whether some of a page is in the window. */
  sees(page: Id): boolean {
    return this.viewing.seen().some((placed) => placed.page.id === page);
  }

  /** Moves the board no more than it must for a place on a page to be in the window. */
  reveal(page: Id, p: Point): void {
    this.viewing.reveal(page, p);
  }

  private start(): void {
    const element = this.host().nativeElement;
    this.scene = new Scene(
      element as HTMLDivElement,
      {
        camera: () => this.viewing.camera,
        size: () => this.size(),
        seen: () => this.viewing.seen(),
        near: () => this.viewing.near(),
        underWay: () => [...this.live.all(), ...this.drawing(), ...this.hand.underWay()],
        papers: () => this.papers(),
        lifted: () => this.hand.lifted(),
        selection: () => this.hand.selection(),
        printIs: (print) => this.print.set(print),
      },
      this.overlay,
    );
    this.resizing.observe(element);
    this.gestures = new Gestures(element, this.target());
    this.gestures.fingerUse = this.fingerUse();
    // Before what moves the page by the same keys.
    this.keys.listen(element);
    this.steering = new Steering(element, {
      pan: (dx, dy) => this.viewing.pan(dx, dy),
      zoomBy: (factor, around) => this.viewing.zoomBy(factor, around),
      turn: (by) => this.viewing.turn(by),
      toStart: () => this.viewing.toStart(),
      toEnd: () => this.viewing.toEnd(),
      fitWidth: () => this.viewing.fitWidth(),
      fitPage: () => this.viewing.fitPage(),
      height: () => this.size().height,
      keepsArrows: () => this.hand.selection() !== null || this.keys.takesArrows,
    });
    element.addEventListener('dblclick', (event) => {
      if (this.tool() === 'select' && this.mayWrite()) this.hand.open(this.sampleOf(event));
    });
    element.addEventListener('pointermove', (event) => {
      if (event.pointerType !== 'touch') this.hand.over(this.sampleOf(event));
    });
    for (const type of ['pointerleave', 'pointercancel'] as const)
      element.addEventListener(type, () => this.hand.off());
    element.addEventListener('pointerup', (event) => {
      if (event.pointerType === 'touch') this.hand.off();
    });
    this.look = new CursorShape(element, this.cursor().nativeElement);
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
    this.hand.close();
    this.scene?.close();
  }

  private setBoard(board: Board): void {
    const only = this.only();
    const pages = pagesInOrder(board);
    this.viewing.lay(only ? pages.filter(({ id }) => id === only) : pages);
    this.hand.settle(board);
    for (const { n, item, page } of this.live.all())
      if (item && board.pages.get(page)?.items.has(item)) this.live.settle(n);
    this.refresh();
  }

  focus(): void {
    this.host().nativeElement.focus({ preventScroll: true });
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
      writes: () => this.hand.shows || (this.writable().length > 0 && this.tool() !== 'hand'),
      penDown: (sample) => {
        this.inHand = this.hand.inHand;
        return this.inHand.down(sample);
      },
      penMove: (samples) => this.inHand.move(samples),
      penUp: () => this.inHand.up(),
      penLost: () => this.inHand.lost(),
      pan: (dx, dy) => this.viewing.pan(dx, dy),
      pinch: (middle, dx, dy, factor) => this.viewing.pinch(middle, dx, dy, factor),
      fling: (vx, vy) => this.steering?.fling(vx, vy),
      touched: () => this.steering?.stop(),
      penInUse: (inUse) => this.penInUse.emit(inUse),
    };
  }

  /** Pages in the window on which this person may write. */
  private writable(): Placed[] {
    const abilities = this.mayWriteOn();
    return this.viewing.seen().filter(({ page }) => abilities(page.id));
  }

  /** Where an event is, in CSS px from the stage's corner. */
  private sampleOf(event: MouseEvent): Point {
    const corner = this.host().nativeElement.getBoundingClientRect();
    return { x: event.clientX - corner.x, y: event.clientY - corner.y };
  }
}
