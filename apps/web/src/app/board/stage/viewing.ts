import { signal } from '@angular/core';
import type { Page } from '@cuaderno/core/board';
import type { View } from '@cuaderno/core/features';
import type { Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import { between, clamp, panToShow, showing, zoomAt } from './camera';
import type { Camera, Size } from './camera';
import { GAP, layOut, pageAt, pagesBetween, pagesNear, placeOf } from './layout';
import type { Placed, PageRun } from './layout';
import { OwnZoom } from './own-zoom';
import { pageUnder } from './pointer-tool';

/** Pixels of pages that are drawn before they come into the window, at most. */
const NEAR_PIXELS = 8_000_000;

/** How small a page may be zoomed: a part of the size at which all of it is seen. */
const SMALLEST = 1 / 4;
/** The smallest zoom where there is no page, in CSS px a point. */
const NO_PAGE = 0.08;
/** The smallest zoom of what another window shows, in CSS px a point. */
const LEAST = 0.001;

/** So much of the window messages may take below the page before it is fitted anew, in CSS px: two or three of them. */
const MESSAGES = 110;

/** Part of the way that a window which follows another goes with each frame. */
const GLIDE = 0.35;
/** Windows away from where one is beyond which one is there at once. */
const LEAP = 3;
/** Anyone who wants no motion is there at once. */
const STILL = matchMedia('(prefers-reduced-motion: reduce)');

/** What the window shows of a board: where it is, how large, and which pages are in it. */
export class Viewing {
  /** CSS pixels a point. */
  readonly zoom = signal(1);
  /** The page in view: the one that was gone to, until the board is moved by hand; else the one in the middle. */
  readonly page = signal<Id | null>(null);
  /** The size of the window for which the board was laid into it last. */
  private fitted: Size = { width: 0, height: 0 };
  private run: PageRun = layOut([]);
  private here: Camera = { x: 0, y: 0, zoom: 1 };
  /** What stays in the window when its size changes; `null` where somebody chose a zoom. */
  private fit: 'width' | 'page' | null = 'width';
  /**
   * The page that was gone to. On an upright tablet three pages are seen at once, and the one in the middle isn't the
   * one whose picture was touched: what is done then is done to that one.
   */
  private chosen: Id | null = null;
  /** The page to go to as soon as it is laid out. */
  private waiting: Id | null = null;
  /** Whose view this window follows: then it can't be moved by itself, but enlarged within that. */
  private led: View | null = null;
  private readonly own = new OwnZoom();
  private glide = 0;

  /**
   * @param size of the window, in CSS px
   * @param moved called after anything moved or changed
   * @param shown called when another page is in view
   */
  constructor(
    private readonly size: () => Size,
    private readonly moved: () => void,
    private readonly shown: (page: Id) => void,
  ) {}

  get camera(): Camera {
    return this.here;
  }

  /** Lays out the pages of a board; what is being looked at stays where it is. */
  lay(pages: readonly Page[]): void {
    const same =
      pages.length === this.run.pages.length &&
      pages.every((page, i) => this.run.pages[i]!.page.id === page.id);
    if (same) {
      // Only ink has changed: pages lie where they lay.
      const placed = this.run.pages.map((one, i) =>
        one.page === pages[i] ? one : { ...one, page: pages[i]! },
      );
      this.run = { ...this.run, pages: placed };
      return;
    }
    const anchor = this.placed(this.page() ?? '');
    const wasEmpty = this.run.pages.length === 0;
    this.run = layOut(pages);
    const now = anchor && this.placed(anchor.page.id);
    if (now) {
      const { x, y, zoom } = this.here;
      this.here = { x: x + now.x - anchor.x, y: y + now.y - anchor.y, zoom };
    }
    if (wasEmpty || this.fit === 'width') this.applyFit();
    if (this.led) this.follow(this.led);
    if (this.waiting) this.goTo(this.waiting);
  }

  placed(page: Id): Placed | undefined {
    return placeOf(this.run, page);
  }

  /** Pages in the window. */
  seen(): Placed[] {
    const { y, zoom } = this.here;
    return pagesBetween(this.run, y, y + this.size().height / zoom);
  }

  /** Whether some of a page is in the window. */
  sees(page: Id): boolean {
    return this.seen().some((placed) => placed.page.id === page);
  }

  /** Pages that come into it next, the nearest first. */
  near(): Placed[] {
    const { y, zoom } = this.here;
    const area = NEAR_PIXELS / (zoom * devicePixelRatio) ** 2;
    return pagesNear(this.run, y, y + this.size().height / zoom, area);
  }

  /** What the window shows, told from the page in view. */
  get part(): View | null {
    const middle = this.placed(this.page() ?? '');
    if (!middle) return null;
    const { width, height } = this.size();
    const { x, y, zoom } = this.here;
    return {
      page: middle.page.id,
      x: x - middle.x,
      y: y - middle.y,
      width: width / zoom,
      height: height / zoom,
    };
  }

  /** Shows what another window shows from now on, on any shape of screen; `null` lets go of it. */
  follow(view: View | null): void {
    if (!view) this.own.reset();
    this.led = view;
    if (view) this.show(view);
    else this.close();
  }

  /** Shows what another window shows, once. */
  show(view: View): void {
    this.fit = null;
    this.chosen = null;
    this.glideTo(view);
  }

  /** Stops whatever moves by itself. */
  close(): void {
    cancelAnimationFrame(this.glide);
  }

  /** Shows a page from its top, at the present zoom. */
  goTo(page: Id): void {
    const placed = this.placed(page);
    // A page that was added this moment is laid out with the next change of the board.
    if (!placed) {
      this.waiting = page;
      return;
    }
    this.waiting = null;
    const { width } = this.size();
    const zoom = this.fit ? this.zoomFor(placed.page, this.fit) : this.here.zoom;
    const shownWidth = width / zoom;
    const inside = this.here.x >= placed.x - GAP && this.here.x <= placed.x + placed.page.width;
    const x =
      shownWidth >= placed.page.width || !inside
        ? placed.x + (placed.page.width - shownWidth) / 2
        : this.here.x;
    if (!this.led) this.chosen = page;
    this.set({ x, y: placed.y - GAP, zoom });
  }

  /** Goes so many pages on or back. */
  turn(by: number): void {
    const next = this.run.pages[(this.placed(this.page() ?? '')?.index ?? 0) + by];
    if (next) this.goTo(next.page.id);
  }

  toStart(): void {
    this.chosen = null;
    this.set({ ...this.here, y: 0 });
  }

  toEnd(): void {
    this.chosen = null;
    this.set({ ...this.here, y: Infinity });
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

  /** @param factor above 1 zooms in; around a place of the window, or its middle */
  zoomBy(factor: number, around?: Point): void {
    this.zoomTo(this.here.zoom * factor, around);
  }

  zoomTo(zoom: number, around?: Point): void {
    const { width, height } = this.size();
    const middle = around ?? { x: width / 2, y: height / 2 };
    if (this.led) return this.enlarge(zoom / this.here.zoom, middle);
    this.fit = null;
    this.chosen = null;
    this.set(zoomAt(this.here, middle, zoom, this.smallest));
  }

  /** @param dx how far the board is moved, in CSS px */
  pan(dx: number, dy: number): void {
    if (this.led) return this.enlarge(1, { x: 0, y: 0 }, dx, dy);
    this.chosen = null;
    this.shift(dx, dy);
  }

  private shift(dx: number, dy: number): void {
    const { x, y, zoom } = this.here;
    if (dx !== 0 && this.fit === 'width' && Math.abs(dx) > Math.abs(dy)) this.fit = null;
    this.set({ x: x - dx / zoom, y: y - dy / zoom, zoom });
  }

  /** Two fingers: moves the board and zooms it around what is between them. */
  pinch(middle: Point, dx: number, dy: number, factor: number): void {
    if (this.led) return this.enlarge(factor, middle, dx, dy);
    const { x, y, zoom } = this.here;
    this.fit = null;
    this.chosen = null;
    const moved = { x: x - dx / zoom, y: y - dy / zoom, zoom };
    this.set(zoomAt(moved, middle, zoom * factor, this.smallest));
  }

  /** The window has another size. */
  resized(): void {
    const { width, height } = this.size();
    const [wider, higher] = [width - this.fitted.width, height - this.fitted.height];
    if (this.led) this.move(this.cameraFor(this.led) ?? this.here, LEAST);
    // A message has come or gone below the page: the page stays under the pen.
    else if (wider === 0 && Math.abs(higher) <= MESSAGES) return this.set(this.here);
    else if (this.fit) this.applyFit();
    else this.set(this.here);
    this.fitted = { width, height };
  }

  /** The middle of what the window shows of the page in view, in points on that page. */
  get middle(): { page: Id; at: Point } | null {
    const placed = this.placed(this.page() ?? '');
    if (!placed) return null;
    const { width, height } = this.size();
    const { x, y, zoom } = this.here;
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

  /** Where a place on a page is in the window, in CSS px from its corner. */
  locate(page: Id, p: Point): Point | null {
    const placed = this.placed(page);
    if (!placed) return null;
    const { x, y, zoom } = this.here;
    return { x: (placed.x + p.x - x) * zoom, y: (placed.y + p.y - y) * zoom };
  }

  /** The page at a place in the window, and where on it in points. */
  placeAt(at: Point): { page: Id; at: Point } | null {
    const under = pageUnder(this.here, this.seen(), at);
    return under && { page: under.placed.page.id, at: under.p };
  }

  /** Where a place in the window is on its page, in parts of its width and height; `null` beside all pages. */
  partOf(at: Point): Point | null {
    const under = pageUnder(this.here, this.seen(), at);
    if (!under) return null;
    const { page } = under.placed;
    return { x: under.p.x / page.width, y: under.p.y / page.height };
  }

  /** Moves the board no more than it must for a place on a page to be in the window. */
  reveal(page: Id, p: Point): void {
    const at = this.locate(page, p);
    if (!at) return;
    const { x, y } = panToShow(at, this.size());
    if (!this.led) this.chosen = page;
    this.shift(x, y);
  }

  /** Says which page is in view now. */
  settle(): void {
    const { y, zoom } = this.here;
    const seen = this.size().height / zoom;
    const chosen = this.placed(this.chosen ?? '');
    const isSeen = chosen && chosen.y < y + seen && chosen.y + chosen.page.height > y;
    const page = isSeen ? chosen : pageAt(this.run, y + Math.min(seen / 2, this.run.height));
    if (!page || page.page.id === this.page()) return;
    this.page.set(page.page.id);
    this.shown(page.page.id);
  }

  private applyFit(): void {
    if (this.fit === 'page' && this.page()) return this.goTo(this.page()!);
    // The page in view, however wide others are.
    const placed = this.placed(this.page() ?? '') ?? this.run.pages[0];
    if (!placed) return this.set({ x: 0, y: 0, zoom: 1 });
    const zoom = this.zoomFor(placed.page, 'width');
    const x = placed.x + (placed.page.width - this.size().width / zoom) / 2;
    this.set({ x, y: this.here.y, zoom });
  }

  /** CSS pixels a point at which a page fits the window. */
  private zoomFor({ width, height }: Page, fit: 'width' | 'page'): number {
    const window = this.size();
    const wide = window.width / (width + 2 * GAP);
    if (fit === 'page') return Math.min(wide, window.height / (height + 2 * GAP));
    // Screens would blow a narrow page up.
    return Math.min(wide, Math.max(2.2, window.height / 500));
  }

  /** The smallest zoom: smaller, a page would be lost on the desk. */
  private get smallest(): number {
    const placed = this.placed(this.page() ?? '');
    return placed ? this.zoomFor(placed.page, 'page') * SMALLEST : NO_PAGE;
  }

  private cameraFor(view: View): Camera | null {
    const { page, x, y, width, height } = view;
    const placed = this.placed(page);
    if (!placed) return null;
    const part = { x: placed.x + x, y: placed.y + y, width, height };
    const base = clamp(showing(part, this.size()), this.run, this.size(), LEAST);
    return view === this.led ? this.own.within(base, this.size()) : base;
  }

  /** What the lead shows, larger for this window, or another part of it. */
  private enlarge(factor: number, middle: Point, dx = 0, dy = 0): void {
    const { led } = this;
    this.led = null;
    const base = led && this.cameraFor(led);
    this.led = led;
    if (!led || !base) return;
    this.own.zoom(base, this.size(), factor, middle);
    this.own.pan(base, this.size(), dx, dy);
    cancelAnimationFrame(this.glide);
    this.move(this.cameraFor(led)!, LEAST);
  }

  /** Zooming, moving and turning pages feel like one motion: a piece of the way with each frame. */
  private glideTo(view: View): void {
    cancelAnimationFrame(this.glide);
    const step = (): void => {
      const to = this.cameraFor(view);
      if (!to) return;
      const near =
        Math.hypot(to.x - this.here.x, to.y - this.here.y) * to.zoom < 0.5 &&
        Math.abs(to.zoom / this.here.zoom - 1) < 0.001;
      const far = Math.abs(to.y - this.here.y) * to.zoom > LEAP * this.size().height;
      const next = near || far || STILL.matches ? to : between(this.here, to, GLIDE);
      // As another window shows it, however small that is here.
      this.move(next, LEAST);
      if (!near && !STILL.matches) this.glide = requestAnimationFrame(step);
    };
    step();
  }

  /** Where this person moves it; anyone who is led stays where they are led. */
  private set(camera: Camera): void {
    if (this.led) return;
    cancelAnimationFrame(this.glide);
    this.move(camera);
  }

  private move(camera: Camera, least = this.smallest): void {
    this.here = clamp(camera, this.run, this.size(), least);
    this.zoom.set(this.here.zoom);
    this.moved();
  }
}
