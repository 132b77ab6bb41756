import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, effect, input, viewChild } from '@angular/core';
import type { PageSize, Paper } from '@cuaderno/core/board';
import { paintPaper } from '../drawing/paper-painter';

/** Longest side of the picture, in CSS px. */
const SIDE = 84;
/** How much of a page is shown: its corner, so that lines can be told apart, in points. */
const CORNER = 300;

/** What a paper looks like: the upper left corner of a page of it. */
@Component({
  selector: 'cua-paper-picture',
  template: '<canvas #canvas></canvas>',
  styles: `
    canvas {
      display: block;
      background: #fff;
      border: 1px solid var(--line);
      border-radius: 2px;
    }
  `,
  host: { 'aria-hidden': 'true' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PaperPicture {
  readonly paper = input.required<Paper>();
  readonly size = input.required<PageSize>();
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');

  constructor() {
    effect(() => {
      const { nativeElement: canvas } = this.canvas();
      const { width, height } = this.size();
      const shown = Math.min(CORNER, Math.max(width, height));
      const css = SIDE / Math.max(width, height);
      canvas.style.width = `${Math.round(width * css)}px`;
      canvas.style.height = `${Math.round(height * css)}px`;
      canvas.width = Math.round(width * css * devicePixelRatio);
      canvas.height = Math.round(height * css * devicePixelRatio);
      const scale = (SIDE * devicePixelRatio) / shown;
      const context = canvas.getContext('2d')!;
      context.fillStyle = '#fff';
      context.fillRect(0, 0, canvas.width, canvas.height);
      paintPaper(canvas, { paper: this.paper(), width, height }, { x: 0, y: 0, scale });
    });
  }
}
