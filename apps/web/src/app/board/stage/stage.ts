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
import type { Board } from '@cuaderno/core/board';
import type { Place } from '@cuaderno/core/features';
import type { Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { Drawing } from '@cuaderno/core/replay';
import type { LiveInkEvent } from '../../live/live-ink';
import { Gestures } from './gestures';
import type { GestureTarget } from './gestures';
import { Hand } from './hand';
import { KeyCursor } from './key-cursor';
import type { Placed } from './layout';
import { LiveStrokes } from './live-strokes';
import { PaperSource } from '../drawing/paper-source';
import { Shortcuts } from '../shortcuts/shortcuts';
import { PRINT_WORDS } from '../drawing/print-words';
import type { PrintWords } from '../drawing/print-words';
import type { PointerTool } from './pointer-tool';
import { CursorShape } from './cursor-shape';
import { Scene } from './scene';
import type { Selection } from './selecting';
import { ShownLayer } from './shown-layer';
import { spokenAt } from './spoken-at';
import { NO_MARKS } from './stage-marks';
import type { StageMarks } from './stage-marks';
import { StageProbe } from './stage-probe';
import type { StageView } from './stage-view';
import { WATCHING } from './stage-work';
import type { StageWork } from './stage-work';
import { Steering } from './steering';
import { Viewing } from './viewing';

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
  readonly papers = input<PaperSource>(new PaperSource());
  /** Who works here, and with what. */
  readonly work = input<StageWork>(WATCHING);
  /** How people are shown. */
  readonly marks = input<StageMarks>(NO_MARKS);
  /** Lines that are being drawn in a lesson that is seen again, as far as they have come. */
  readonly drawing = input<readonly Drawing[]>([]);
  /** The page in the middle of the window. */
  readonly shown = output<Id>();

  protected readonly printWords = PRINT_WORDS;
  protected readonly print = signal<PrintWords>('here');

  private readonly viewing = new Viewing(
    () => this.size(),
    () => this.refresh(),
    (page) => this.shown.emit(page),
  );
  /** What it shows of the board, and how that is moved. */
  readonly view: StageView = this.viewing;
  /** Counts what moves the page in the window. */
  readonly moved = signal(0);

  /** Whether this person may write on the page in view. */
  readonly mayWrite = computed(() => this.work().mayWriteOn()(this.viewing.page() ?? ''));
  private readonly host = viewChild.required<ElementRef<HTMLElement>>('host');
  private readonly cursor = viewChild.required<ElementRef<HTMLElement>>('cursor');
  private readonly live = new LiveStrokes();
  private readonly overlay = new ShownLayer({
    shown: () => this.marks().shown(),
    lights: () => this.work().mayLight(),
    authorOf: (id) => this.marks().authorOf()(id),
    signed: () => this.marks().signed(),
    underWay: () => [...this.live.all(), ...this.drawing()],
    frame: () => this.marks().frame(),
    pages: () => this.viewing.seen().map(({ page }) => page),
    at: (page, p) => this.viewing.locate(page, p),
    zoom: () => this.viewing.camera.zoom,
    size: () => this.size(),
  });
  private readonly hand = new Hand(
    {
      camera: () => this.viewing.camera,
      lightable: () => (this.work().mayLight() ? this.viewing.seen() : []),
      writable: () => this.writable(),
      pointable: () => this.viewing.seen().filter(({ page }) => this.work().mayPointOn()(page.id)),
      page: (id) => this.viewing.placed(id)?.page,
      lamp: () => this.marks().shown().lamp,
      work: () => this.work(),
    },
    {
      pointed: (at) => {
        this.point(OWN, at);
        this.work().pointed(at);
      },
      liveChanged: () => this.drawLive(),
      carriedChanged: () => this.scene?.drawCarried(),
    },
  );
  protected readonly keys = new KeyCursor({
    ...this.target(),
    tool: () => this.work().tool(),
    size: () => this.size(),
    keepsArrows: () => this.hand.selection() !== null,
    partOf: (at) => this.viewing.partOf(at),
    under: (at) => spokenAt(this.viewing, at),
  });
  private readonly shortcuts = inject(Shortcuts);
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
      this.work().only();
      untracked(() => this.setBoard(board));
    });
    effect(() => {
      const work = this.work();
      work.cropping();
      work.hiding();
      untracked(() => this.scene?.drawCarried());
    });
    effect(() => {
      this.drawing();
      untracked(() => this.drawLive());
    });
    effect(() => {
      const marks = this.marks();
      marks.shown();
      marks.signed();
      marks.authorOf();
      marks.frame();
      untracked(() => this.scene?.drawShown());
    });
    effect(() => {
      // Nothing that was begun with a pen goes on without it.
      if (!this.mayWrite() && !this.hand.shows) untracked(() => this.gestures?.interrupt());
    });
    effect(() => {
      const use = this.work().fingerUse();
      if (this.gestures) this.gestures.fingerUse = use;
    });
    effect(() => {
      const tool = this.work().tool();
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

  /** Chooses items, or none; they are shown as chosen while the tool for it is in hand. */
  choose(selection: Selection | null): void {
    this.hand.choose(selection);
    this.work().chose(selection);
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
    this.gestures.fingerUse = this.work().fingerUse();
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
      asks: (event, command) => this.shortcuts.asks(event, command),
    });
    element.addEventListener('dblclick', (event) => {
      if (this.work().tool() === 'select' && this.mayWrite()) this.hand.open(this.sampleOf(event));
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
    this.look.show(this.work().tool(), this.mayWrite());
    (element as unknown as { cuaStage: StageProbe }).cuaStage = new StageProbe(
      this.board,
      this.view,
      () => this.scene?.isSharp ?? false,
      () => this.overlay.pointing,
    );
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
    const only = this.work().only();
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
      writes: () =>
        this.hand.shows || (this.writable().length > 0 && this.work().tool() !== 'hand'),
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
      penInUse: (inUse) => this.work().penInUse(inUse),
    };
  }

  /** Pages in the window on which this person may write. */
  private writable(): Placed[] {
    const mayWriteOn = this.work().mayWriteOn();
    return this.viewing.seen().filter(({ page }) => mayWriteOn(page.id));
  }

  /** Where an event is, in CSS px from the stage's corner. */
  private sampleOf(event: MouseEvent): Point {
    const corner = this.host().nativeElement.getBoundingClientRect();
    return { x: event.clientX - corner.x, y: event.clientY - corner.y };
  }
}
