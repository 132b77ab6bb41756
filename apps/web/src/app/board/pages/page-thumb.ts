import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  effect,
  ElementRef,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { drawnOn, pileOf } from '@cuaderno/core/board';
import { filesOf, textsOf } from '@cuaderno/core/kinds';
import type { Page, Paper } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import { whenIdle } from '../../browser/when-idle';
import { paintPaper } from '../drawing/paper-painter';
import type { PaperSource } from '../drawing/paper-source';
import { SheetPainters } from '../drawing/sheet-painter';

/** Width of the picture unless it is said otherwise, in CSS px. */
const WIDTH = 112;
/** Longest that is waited for a moment in which nothing else is to be done, in ms. */
const IDLE_WAIT = 1000;
/** How long ink may rest before the picture is made anew, in ms. */
const REST = 400;
/** How long ink is drawn without a pause, in ms: anyone who wants something meanwhile waits no longer. */
const PIECE = 8;

/** A small picture of a page, of its paper and its ink, made when it comes into view. */
@Component({
  selector: 'cua-page-thumb',
  template: '<canvas #canvas></canvas>',
  styles: `
    :host {
      display: block;
    }
    canvas {
      display: block;
      width: 100%;
      background: #fff;
      border-radius: 2px;
      box-shadow: var(--shadow);
    }
  `,
  host: { 'aria-hidden': 'true' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PageThumb {
  readonly page = input.required<Page>();
  readonly papers = input.required<PaperSource>();
  /** In CSS px. */
  readonly across = input(WIDTH);

  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly inView = signal(false);
  /** The print, what it is of, and what is drawn on it so far. */
  private paper: { of: Paper; canvas: HTMLCanvasElement; sheets: SheetPainters } | null = null;
  private of: Id | null = null;
  private waiting: (() => void) | null = null;
  private abort: AbortController | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor() {
    const element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const watcher = new IntersectionObserver(
      (entries) => this.inView.set(entries.at(-1)!.isIntersecting),
      { rootMargin: '200px' },
    );
    watcher.observe(element);
    effect(() => {
      const { width, height } = this.page();
      const { nativeElement: canvas } = this.canvas();
      // The height is right before anything is drawn: the strip never jumps.
      const pixels = Math.round(this.across() * devicePixelRatio);
      const rows = Math.max(1, Math.round((pixels * height) / width));
      if (canvas.width !== pixels || canvas.height !== rows) {
        canvas.width = pixels;
        canvas.height = rows;
      }
    });
    effect(() => {
      const page = this.page();
      if (!this.inView()) return;
      if (this.of !== page.id) this.blank(page);
      clearTimeout(this.timer);
      this.timer = setTimeout(() => this.drawWhenIdle(), this.paper ? REST : 0);
    });
    effect((onCleanup) => {
      const { pictures } = this.papers();
      // What has come belongs on this page, or on another.
      const unwatch = pictures.watch(() => {
        if (!this.inView() || !this.waits()) return;
        clearTimeout(this.timer);
        this.timer = setTimeout(() => this.drawWhenIdle(), 0);
      });
      onCleanup(unwatch);
    });
    inject(DestroyRef).onDestroy(() => {
      watcher.disconnect();
      clearTimeout(this.timer);
      this.waiting?.();
      this.abort?.abort();
    });
  }

  /** The page itself comes first: its small picture is made when nothing else is to be done. */
  private drawWhenIdle(): void {
    this.waiting?.();
    this.waiting = whenIdle(() => void this.draw(), IDLE_WAIT);
  }

  /** The strip has put another page here: nothing of the former is shown for it. */
  private blank(page: Page): void {
    this.of = page.id;
    this.paper = null;
    this.abort?.abort();
    const { nativeElement: canvas } = this.canvas();
    canvas.getContext('2d')!.clearRect(0, 0, canvas.width, canvas.height);
  }

  /** Whether there is anything on it that may have had to be fetched. */
  private waits(): boolean {
    return drawnOn(this.page()).some(
      (item) => item.kind !== 'ink' && (filesOf(item).length > 0 || textsOf(item).length > 0),
    );
  }

  private async draw(): Promise<void> {
    const page = this.page();
    const { nativeElement: canvas } = this.canvas();
    const scale = canvas.width / page.width;
    const view = { x: 0, y: 0, scale };
    const fits = ({ of, canvas: c }: { of: Paper; canvas: HTMLCanvasElement }): boolean =>
      of === page.paper && c.width === canvas.width && c.height === canvas.height;
    if (!this.paper || !fits(this.paper)) {
      const paper = document.createElement('canvas');
      paper.width = canvas.width;
      paper.height = canvas.height;
      const white = paper.getContext('2d')!;
      white.fillStyle = '#fff';
      white.fillRect(0, 0, paper.width, paper.height);
      if (page.paper.kind === 'pdf') {
        this.abort = new AbortController();
        const drawn = await this.papers()
          .draw(page.paper, paper, view, this.abort.signal)
          .then(
            () => true,
            () => false,
          );
        if (!drawn || page.id !== this.of) return;
      }
      paintPaper(paper, page, view);
      const sheets = new SheetPainters(
        ...([canvas.width, canvas.height, view, this.papers().pictures] as const),
        { willReadFrequently: true },
      );
      this.paper = { of: page.paper, canvas: paper, sheets };
    }
    const { canvas: paper, sheets } = this.paper;
    const until = performance.now() + PIECE;
    const done = sheets.show(pileOf(page), new Set(), () => performance.now() > until);
    if (!done) return this.drawWhenIdle();
    const context = canvas.getContext('2d')!;
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.drawImage(paper, 0, 0);
    context.setTransform(scale, 0, 0, scale, 0, 0);
    const { width, height } = canvas;
    sheets.draw(context, { x: 0, y: 0, width: width / scale, height: height / scale }, null);
    context.setTransform(1, 0, 0, 1, 0, 0);
  }
}
