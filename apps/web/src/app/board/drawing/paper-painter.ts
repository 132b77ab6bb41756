import { DisplayListBuilder } from '@cuaderno/core/display';
import { drawPaper } from '@cuaderno/core/drawing';
import type { Page } from '@cuaderno/core/board';
import { renderItemOf, paint } from './render-items';
import type { Context2D } from './render-items';

/**
 * Paints a page's tint, and the lines of a paper of our own, onto what is on the canvas.
 * @param view the point of the page at the canvas's corner, and pixels a point
 */
export function paintPaper(
  canvas: HTMLCanvasElement | OffscreenCanvas,
  page: Pick<Page, 'paper' | 'width' | 'height'>,
  { x, y, scale }: { x: number; y: number; scale: number },
): void {
  const list = new DisplayListBuilder();
  drawPaper(page.paper, page, list);
  const context = canvas.getContext('2d') as Context2D;
  context.save();
  context.setTransform(scale, 0, 0, scale, -x * scale, -y * scale);
  for (const display of list.done()) {
    if (display.kind !== 'path') continue;
    context.globalCompositeOperation = display.blend === 'multiply' ? 'multiply' : 'source-over';
    paint(context, renderItemOf(display));
  }
  context.restore();
}
