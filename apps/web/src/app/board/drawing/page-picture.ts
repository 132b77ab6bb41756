import { itemsOn, pileOf } from '@cuaderno/core/board';
import { wordsOf } from '@cuaderno/core/kinds';
import { eastAsianIn } from '@cuaderno/core/text';
import type { Page } from '@cuaderno/core/board';
import type { Rect } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import { paintPaper } from './paper-painter';
import type { PaperSource } from './paper-source';
import { UNPRINTED } from './print-words';
import type { PrintWords } from './print-words';
import { SheetPainters } from './sheet-painter';
import { areLettersLate } from './text-fonts';

/** Pixels in one canvas at most; larger ones are refused by tablets. */
const MAX_PIXELS = 12_000_000;
/** How long a zoom must rest before pages are drawn sharp again, in ms. */
const REST = 110;
/** How long ink is drawn without a pause while the page is seen, and that pause, in ms. */
const SLICE = 5;
const PAUSE = 6;
/** How long to wait before a print that could not be fetched is tried again, in ms. */
const RETRY = 2000;
/** How long a print may be on its way before that is said, in ms. */
const LATE = 400;

/** Nothing shows through paper, and what nothing shows through is copied, not mixed. */
const OPAQUE: CanvasRenderingContext2DSettings = { alpha: false };

interface Shot {
  /** The part of the page that is drawn, in points. */
  readonly part: Rect;
  /** Pixels a point. */
  readonly scale: number;
  readonly paper: HTMLCanvasElement;
  readonly sheets: SheetPainters;
}

/**
 * A page as pictures at the present zoom: its paper, and its ink. While it is zoomed the last
 * pictures are stretched; when it rests they are made sharp. Where a page is larger than a canvas
 * may be, only what the window shows is drawn, with some room around it.
 */
export class PagePicture {
  private shot: Shot | null = null;
  /** All of `shot` in one canvas: a page that only moves costs one picture a frame, whatever is on it. */
  private flat: HTMLCanvasElement | null = null;
  private making: { abort: AbortController; part: Rect; scale: number } | null = null;
  private lifted: ReadonlySet<Id> = new Set();
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** Whether all items are drawn. */
  private whole = true;
  private inWindow = false;
  /** Whether the print has been drawn once, or couldn't be fetched last time. */
  private printed: boolean | null = null;
  private late: ReturnType<typeof setTimeout> | undefined;
  private isLate = false;
  /** The part of it that is in the window, in points. */
  seen: Rect = { x: 0, y: 0, width: 0, height: 0 };
  /** Whether the paper is on screen at the scale that was asked for. */
  sharp = false;

  constructor(
    private page: Page,
    private readonly papers: PaperSource,
    private readonly onChange: () => void,
  ) {}

  /** How its print stands, and the letters of its texts. */
  get print(): PrintWords {
    if (this.page.paper.kind !== 'pdf' || this.printed)
      return areLettersLate() && isEastAsianOn(this.page) ? 'letters' : 'here';
    if (this.printed === false) return 'failed';
    return this.isLate ? 'coming' : 'here';
  }

  /** The page has changed, or other items of it are drawn elsewhere just now. */
  update(page: Page, lifted: ReadonlySet<Id>): void {
    if (page === this.page && lifted === this.lifted) return;
    const { paper, width, height } = this.page;
    const printed = page.paper === paper && page.width === width && page.height === height;
    this.page = page;
    this.lifted = lifted;
    if (printed) this.catchUp();
    else this.close();
  }

  /** A picture has come. */
  refresh(): void {
    this.catchUp();
    this.onChange();
  }

  /** What changed is drawn at once in the window, and with the rest where it is being prepared. */
  private catchUp(): void {
    this.flat = null;
    this.whole = this.inWindow && this.showItems();
  }

  /** Whether all items are drawn: of a page that is prepared, some may not be yet. */
  private showItems(shot = this.shot, enough?: () => boolean): boolean {
    return !shot || shot.sheets.show(pileOf(this.page), this.lifted, enough);
  }

  /**
   * Draws the page before it comes into the window, a piece at a time.
   * @param scale device pixels a point
   * @param enough says when to stop
   * @returns whether nothing is left to do
   */
  prepare(scale: number, enough: () => boolean): boolean {
    const { width, height } = this.page;
    // Of a page too large for a canvas, what is needed isn't known before it is seen.
    if (width * height * scale * scale > MAX_PIXELS) return true;
    this.inWindow = false;
    if (this.making) return true;
    if (this.shot?.scale !== scale) {
      clearTimeout(this.timer);
      this.make({ x: 0, y: 0, width, height }, scale, enough);
      return false;
    }
    this.whole = this.showItems(this.shot, enough);
    return this.whole;
  }

  /**
   * Lays all that is drawn of the page into one canvas, while nobody waits for anything.
   * @returns whether there was anything to do
   */
  flatten(): boolean {
    if (this.flat || !this.shot || !this.whole || !this.sharp || this.making) return false;
    const { part, paper } = this.shot;
    const flat = document.createElement('canvas');
    flat.width = paper.width;
    flat.height = paper.height;
    const context = flat.getContext('2d', OPAQUE)!;
    const { scale } = this.shot;
    context.setTransform(scale, 0, 0, scale, -part.x * scale, -part.y * scale);
    drawShot(context, this.shot);
    this.flat = flat;
    return true;
  }

  /**
   * Says what will be looked at.
   * @param seen part of the page in the window, in points
   * @param scale device pixels a point
   */
  want(seen: Rect, scale: number): void {
    // Whatever was planned was planned for another zoom.
    clearTimeout(this.timer);
    this.inWindow = true;
    this.seen = seen;
    if (!this.whole) this.whole = this.showItems();
    const made = this.making ?? this.shot;
    const fits = made !== null && made.scale === scale && covers(made.part, seen);
    if (fits && (this.making || this.sharp)) return;
    this.sharp = false;
    const part = this.partFor(seen, scale);
    if (!made) this.make(part, scale);
    else this.timer = setTimeout(() => this.make(part, scale), fits ? RETRY : REST);
  }

  /** Whether what there is covers the whole page. */
  get isWhole(): boolean {
    return (
      this.shot !== null &&
      covers(this.shot.part, { x: 0, y: 0, width: this.page.width, height: this.page.height })
    );
  }

  /**
   * Draws what there is; the context's units are points on this page.
   * @param between draws what moves, above the material of a sheet and under its ink, if anything does
   */
  draw(context: CanvasRenderingContext2D, between: ((sheet: Id | null) => void) | null): void {
    const { shot, flat } = this;
    if (!shot) return;
    const { x, y, width, height } = shot.part;
    if (flat && !between) context.drawImage(flat, x, y, width, height);
    else drawShot(context, shot, between);
  }

  close(): void {
    clearTimeout(this.timer);
    this.making?.abort.abort();
    this.making = null;
    this.shot = null;
    this.flat = null;
    clearTimeout(this.late);
    this.late = undefined;
    this.isLate = false;
    this.printed = null;
  }

  private partFor(seen: Rect, scale: number): Rect {
    const { width, height } = this.page;
    if (width * height * scale * scale <= MAX_PIXELS) return { x: 0, y: 0, width, height };
    const room = 0.35;
    const x = Math.max(0, seen.x - seen.width * room);
    const y = Math.max(0, seen.y - seen.height * room);
    const right = Math.min(width, seen.x + seen.width * (1 + room));
    const bottom = Math.min(height, seen.y + seen.height * (1 + room));
    return { x, y, width: right - x, height: bottom - y };
  }

  private make(wanted: Rect, scale: number, enough?: () => boolean): void {
    this.making?.abort.abort();
    const abort = new AbortController();
    // Whole pixels, or the picture would be stretched by a fraction of one and blurred.
    const x = Math.floor(wanted.x * scale) / scale;
    const y = Math.floor(wanted.y * scale) / scale;
    const columns = Math.max(1, Math.ceil((wanted.x + wanted.width - x) * scale));
    const rows = Math.max(1, Math.ceil((wanted.y + wanted.height - y) * scale));
    const part = { x, y, width: columns / scale, height: rows / scale };
    this.making = { abort, part, scale };
    const paper = document.createElement('canvas');
    paper.width = columns;
    paper.height = rows;
    const { paper: source } = this.page;
    const ground = paper.getContext('2d', OPAQUE)!;
    ground.fillStyle = source.kind === 'pdf' ? UNPRINTED : '#ffffff';
    ground.fillRect(0, 0, columns, rows);
    const view = { x, y, scale };
    const shot: Shot = {
      part,
      scale,
      paper,
      sheets: new SheetPainters(columns, rows, view, this.papers.pictures),
    };
    // Where the page is seen already, only less sharp, its ink is drawn anew bit by bit: it goes on moving.
    const before = this.inWindow && this.shot !== null;
    if (!before) this.whole = this.showItems(shot, enough);
    const show = (sharp: boolean): void => {
      this.whole = this.showItems(shot, this.inWindow ? undefined : enough);
      this.shot = shot;
      this.flat = null;
      this.making = null;
      this.sharp = sharp;
      this.onChange();
    };
    const finish = (): void => {
      if (abort.signal.aborted) return;
      const until = performance.now() + SLICE;
      const done = !before || this.showItems(shot, () => performance.now() > until);
      if (done) show(true);
      else setTimeout(finish, PAUSE);
    };
    if (source.kind !== 'pdf') {
      paintPaper(paper, this.page, { x, y, scale });
      return finish();
    }
    if (this.printed === null)
      this.late ??= setTimeout(() => {
        this.isLate = true;
        this.onChange();
      }, LATE);
    // Something at once: the page with its ink, while the print is drawn.
    if (!this.shot) {
      this.shot = shot;
      this.onChange();
    }
    this.papers
      .draw(source, paper, { x, y, scale }, abort.signal)
      .then(() => {
        if (abort.signal.aborted) return;
        clearTimeout(this.late);
        this.printed = true;
        paintPaper(paper, this.page, { x, y, scale });
        finish();
      })
      .catch(() => {
        if (abort.signal.aborted) return;
        this.making = null;
        this.printed ??= false;
        this.onChange();
        // The line may be away; try again when it may be back.
        this.timer = setTimeout(() => this.make(wanted, scale), RETRY);
      });
  }
}

function isEastAsianOn(page: Page): boolean {
  return itemsOn(page).some((item) => item.kind !== 'ink' && eastAsianIn(wordsOf(item)).length > 0);
}

function drawShot(
  context: CanvasRenderingContext2D,
  { part, paper, sheets }: Shot,
  between: ((sheet: Id | null) => void) | null = null,
): void {
  const { x, y, width, height } = part;
  context.drawImage(paper, x, y, width, height);
  sheets.draw(context, part, between);
}

function covers(outer: Rect, inner: Rect): boolean {
  const slack = 0.5;
  return (
    outer.x <= inner.x + slack &&
    outer.y <= inner.y + slack &&
    outer.x + outer.width >= inner.x + inner.width - slack &&
    outer.y + outer.height >= inner.y + inner.height - slack
  );
}
