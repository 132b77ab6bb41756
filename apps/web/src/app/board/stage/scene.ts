import { pileOf } from '@cuaderno/core/board';
import { strokeOf } from '@cuaderno/core/edits';
import { frameMatrix } from '@cuaderno/core/geometry';
import type { Page } from '@cuaderno/core/board';
import type { Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { InkPoint, InkStyle } from '@cuaderno/core/ink';
import type { Camera, Size } from './camera';
import { OverlayCanvas } from './overlay-canvas';
import { PageCanvas } from './page-canvas';
import { frameHiddenPage } from '../drawing/hidden-item';
import { itemRenderItems, paint } from '../drawing/render-items';
import type { Placed } from './layout';
import { PagePicture } from '../drawing/page-picture';
import { formatPrint } from '../drawing/print-words';
import type { PrintWords } from '../drawing/print-words';
import type { PaperSource } from '../drawing/paper-source';
import { Preparing } from './preparing';
import type { DragPreview } from './pointer-tool';
import type { SelectionView } from './selecting';
import { drawSelection } from './selection-overlay';
import type { ShownLayer } from './shown-layer';
import { WetInk } from './wet-ink';

const SHADOW = '#281e0a';
/** How wide the shadow of a sheet is, in rings of a point, and how far down it lies, in points. */
const SHADOW_RINGS = 6;
const SHADOW_DROP = 1.5;

const NONE: ReadonlySet<Id> = new Set();

/** What the scene draws, at the moment. */
export interface SceneView {
  camera(): Camera;
  size(): Size;
  /** Pages in the window. */
  seen(): readonly Placed[];
  /** Pages that come into it next, the nearest first. */
  near(): readonly Placed[];
  /** Strokes that are not on the board yet, one's own and others'. */
  underWay(): readonly { page: Id; style: InkStyle; points: readonly InkPoint[] }[];
  papers(): PaperSource;
  /** Items that are on their way, drawn above everything. */
  lifted(): DragPreview | null;
  selection(): SelectionView | null;
  /** Told how the prints of the pages in the window stand, when that changes. */
  printIs(print: PrintWords): void;
}

/**
 * What is seen on the stage: a canvas of the desk and the pages with the ink that is on them, and above it
 * one of what is being written just now, so that a moving pen redraws its own line and nothing else.
 */
export class Scene {
  private readonly pageCanvas: PageCanvas;
  private readonly highlights: OverlayCanvas;
  private readonly pens: OverlayCanvas;
  private readonly over: OverlayCanvas;
  private readonly shown: OverlayCanvas;
  private moving = 0;
  private readonly pictures = new Map<Id, PagePicture>();
  /** How prints stood when that was told last. */
  private print: PrintWords = 'here';
  private readonly wetInk = new WetInk();
  /** Lines of which it is known where they are. */
  private readonly located = new WeakSet<Uint8Array>();
  private readonly preparing = new Preparing((enough) => this.prepare(enough));
  private readonly unwatch: readonly (() => void)[];

  constructor(
    container: HTMLDivElement,
    private readonly view: SceneView,
    private readonly shownLayer: ShownLayer,
  ) {
    this.pageCanvas = new PageCanvas(container, (context) => this.drawPages(context));
    const above = (
      draw: (context: CanvasRenderingContext2D) => void,
      blend?: 'multiply',
    ): OverlayCanvas => new OverlayCanvas(container, draw, blend);
    // A highlighter under way mixes with the page below it, as it will when it is dry.
    this.highlights = above((context) => this.drawUnderWay(context, 'multiply'), 'multiply');
    this.pens = above((context) => this.drawUnderWay(context, 'normal'));
    this.over = above((context) => this.drawOver(context));
    this.shown = above((context) => shownLayer.draw(context));
    const { pictures, films } = view.papers();
    this.unwatch = [
      pictures.watch(() => {
        for (const picture of this.pictures.values()) picture.refresh();
      }),
      films.watch(() => this.pageCanvas.drawSoon()),
    ];
  }

  resize(): void {
    for (const canvas of this.canvases) canvas.resize(this.view.size());
  }

  /** After anything moved or changed: gets pictures of what is in view, and draws. */
  refresh(): void {
    const seen = this.view.seen();
    for (const placed of seen) this.want(placed);
    const kept = new Set([...seen, ...this.view.near()].map(({ page }) => page.id));
    for (const [id, picture] of this.pictures)
      if (!kept.has(id)) {
        picture.close();
        this.pictures.delete(id);
      }
    this.pageCanvas.drawSoon();
    this.drawLive();
    this.drawAbove();
    this.drawShown();
    this.preparing.start();
  }

  /** What is chosen or carried has changed: draws that, and the page without what was lifted from it. */
  drawCarried(): void {
    const lifted = this.view.lifted();
    for (const { page } of this.view.seen())
      this.pictures.get(page.id)?.update(page, this.idsOn(page.id, lifted));
    this.pageCanvas.drawSoon();
    this.drawAbove();
  }

  /** Draws what is under way once more. */
  drawLive(): void {
    const underWay = this.view.underWay();
    const marking = underWay.some(({ style }) => style.tool === 'highlighter');
    this.highlights.drawSoon(marking);
    this.pens.drawSoon(underWay.length > 0);
  }

  /** Draws once more what is shown over the pages, and goes on while a trail fades. */
  drawShown(): void {
    this.shown.drawSoon(this.shownLayer.isNeeded);
    if (this.moving !== 0 || !this.shownLayer.isMoving) return;
    this.moving = requestAnimationFrame(() => {
      this.moving = 0;
      this.drawShown();
    });
  }

  /** Draws what lies above the page once more: what is chosen, and what is on its way. */
  private drawAbove(): void {
    this.over.drawSoon(this.view.lifted() !== null || this.view.selection() !== null);
  }

  /** Whether all that is in view is drawn at the present zoom. */
  get isSharp(): boolean {
    const seen = this.view.seen();
    return seen.length > 0 && seen.every(({ page }) => this.pictures.get(page.id)?.sharp);
  }

  close(): void {
    this.preparing.stop();
    cancelAnimationFrame(this.moving);
    for (const stop of this.unwatch) stop();
    for (const picture of this.pictures.values()) picture.close();
    for (const canvas of this.canvases) canvas.close();
  }

  /** From the lowest to the highest. */
  private get canvases(): readonly (PageCanvas | OverlayCanvas)[] {
    return [this.pageCanvas, this.highlights, this.pens, this.over, this.shown];
  }

  private want({ page, x: px, y: py }: Placed): void {
    const { x, y, zoom } = this.view.camera();
    const { width, height } = this.view.size();
    const picture = this.pictureOf(page);
    const left = Math.max(0, x - px);
    const top = Math.max(0, y - py);
    const right = Math.min(page.width, x + width / zoom - px);
    const bottom = Math.min(page.height, y + height / zoom - py);
    if (right > left && bottom > top)
      picture.want(
        { x: left, y: top, width: right - left, height: bottom - top },
        zoom * devicePixelRatio,
      );
  }

  /**
   * Gets ready for the page to be moved, once all that is in the window is drawn and nobody writes:
   * what is there as one picture a page, pages that come into it next, and where the lines are that an eraser
   * or a lasso may touch.
   * @returns whether nothing is left to do for now
   */
  private prepare(enough: () => boolean): boolean {
    if (!this.isSharp || this.view.underWay().length > 0) return true;
    for (const { page } of this.view.seen()) if (this.pictureOf(page).flatten()) return false;
    const scale = this.view.camera().zoom * devicePixelRatio;
    for (const { page } of this.view.near()) {
      const picture = this.pictureOf(page);
      if (!picture.prepare(scale, enough) || picture.flatten()) return false;
    }
    for (const { page } of this.view.seen())
      for (const item of page.items.values()) {
        if (item.kind !== 'ink' || item.removed || this.located.has(item.ink)) continue;
        // Asked for new ones alone: however many lines there are, the end of them is come to.
        if (enough()) return false;
        strokeOf(item.ink);
        this.located.add(item.ink);
      }
    return true;
  }

  private pictureOf(page: Page): PagePicture {
    let picture = this.pictures.get(page.id);
    if (!picture) {
      picture = new PagePicture(page, this.view.papers(), () => {
        this.pageCanvas.drawSoon();
        this.preparing.start();
      });
      this.pictures.set(page.id, picture);
    }
    picture.update(page, this.idsOn(page.id, this.view.lifted()));
    return picture;
  }

  private drawPages(context: CanvasRenderingContext2D): void {
    for (const placed of this.view.seen()) {
      const { width, height, id } = placed.page;
      this.onPage(context, placed, () => {
        drawShadow(context, width, height);
        if (placed.page.hidden) frameHiddenPage(context, width, height);
        clipTo(context, width, height);
        const picture = this.pictures.get(id);
        if (!picture?.isWhole) {
          context.fillStyle = '#ffffff';
          context.fillRect(0, 0, width, height);
        }
        const films = this.view.papers().films.any
          ? (sheet: Id | null) => this.drawFilms(context, placed, sheet)
          : null;
        picture?.draw(context, films);
        const print = picture?.print ?? 'here';
        if (print !== 'here') formatPrint(context, print, picture!.seen, this.view.camera().zoom);
      });
    }
    this.tellPrint();
  }

  private tellPrint(): void {
    const all = this.view.seen().map(({ page }) => this.pictures.get(page.id)?.print);
    const print =
      (['failed', 'coming', 'letters'] as const).find((one) => all.includes(one)) ?? 'here';
    if (print === this.print) return;
    this.print = print;
    this.view.printIs(print);
  }

  /** Films that are being watched on a page, or on a cover sheet. */
  private drawFilms(context: CanvasRenderingContext2D, { page }: Placed, on: Id | null): void {
    const { films } = this.view.papers();
    const lifted = this.idsOn(page.id, this.view.lifted());
    const sheet = pileOf(page).find(({ cover }) => (cover?.id ?? null) === on);
    for (const item of sheet?.material ?? []) {
      const film = item.kind === 'media' && !lifted.has(item.id) && films.get(item.id);
      if (!film) continue;
      context.save();
      context.transform(...frameMatrix(item.frame));
      context.drawImage(film, 0, 0, 1, 1);
      context.restore();
    }
  }

  private drawUnderWay(context: CanvasRenderingContext2D, blend: 'normal' | 'multiply'): void {
    const seen = new Map(this.view.seen().map((placed) => [placed.page.id, placed]));
    const scale = this.view.camera().zoom * devicePixelRatio;
    for (const { page, style, points } of this.view.underWay()) {
      const placed = seen.get(page);
      if (!placed || points.length === 0) continue;
      if ((style.tool === 'highlighter') !== (blend === 'multiply')) continue;
      this.onPage(context, placed, () => {
        clipTo(context, placed.page.width, placed.page.height);
        this.wetInk.draw(context, { style, points }, scale);
      });
    }
    if (blend === 'normal') this.shownLayer.signPens(context);
  }

  private idsOn(page: Id, lifted: DragPreview | null): ReadonlySet<Id> {
    return lifted?.page === page ? lifted.ids : NONE;
  }

  private drawOver(context: CanvasRenderingContext2D): void {
    const lifted = this.view.lifted();
    const selection = this.view.selection();
    for (const placed of this.view.seen()) {
      const { page } = placed;
      if (lifted?.page === page.id)
        this.onPage(context, placed, () => {
          clipTo(context, page.width, page.height);
          for (const item of lifted.items) {
            context.save();
            if (item.kind === 'ink' && lifted.map) context.transform(...lifted.map);
            for (const look of itemRenderItems(item))
              paint(context, look, this.view.papers().pictures);
            context.restore();
          }
        });
      if (selection?.page === page.id) {
        const { x, y, zoom } = this.view.camera();
        const at = (p: Point): Point => ({
          x: (placed.x + p.x - x) * zoom,
          y: (placed.y + p.y - y) * zoom,
        });
        drawSelection(context, selection, at, page);
      }
    }
  }

  /** Draws with points on this page as units. */
  private onPage(context: CanvasRenderingContext2D, placed: Placed, draw: () => void): void {
    const { x, y, zoom } = this.view.camera();
    context.save();
    // On whole device pixels: half a pixel aside, a picture of text is a blur.
    const whole = (css: number): number => Math.round(css * devicePixelRatio) / devicePixelRatio;
    context.translate(whole((placed.x - x) * zoom), whole((placed.y - y) * zoom));
    context.scale(zoom, zoom);
    draw();
    context.restore();
  }
}

/** What a sheet casts on the desk, ring by ring: to blur the whole sheet costs as much as to draw it. */
function drawShadow(context: CanvasRenderingContext2D, width: number, height: number): void {
  context.strokeStyle = SHADOW;
  context.lineJoin = 'round';
  for (let ring = 1; ring <= SHADOW_RINGS; ring++) {
    // Rings lie over each other, and so the shadow fades outwards, more and more slowly.
    context.globalAlpha = 0.008 * (SHADOW_RINGS + 1 - ring);
    context.lineWidth = 2 * ring;
    context.strokeRect(0, SHADOW_DROP, width, height);
  }
  context.globalAlpha = 1;
}

function clipTo(context: CanvasRenderingContext2D, width: number, height: number): void {
  context.beginPath();
  context.rect(0, 0, width, height);
  context.clip();
}
