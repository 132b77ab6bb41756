import type { Item } from '@cuaderno/core/board';
import type { Frame } from '@cuaderno/core/geometry';
import type { Context2D } from './render-items';
import { screenFont } from './screen-font';

/** How much is seen of what is hidden: it can still be read. */
export const PALE = 0.62;
/** Amber, as for whatever waits. */
const COLOUR = '#8a5200';
/** The frame around it, in points. */
const DASH = [6, 4];
const WIDTH = 1.5;

/** Whether it is there for its tutor alone, who sees so by its paleness and by a broken frame. */
export function isHiddenItem(item: Item): item is Item & { readonly frame: Frame } {
  return item.kind !== 'ink' && item.hidden === true;
}

/** @param context its units are points */
export function frameHiddenItem({ frame }: { readonly frame: Frame }, context: Context2D): void {
  const { x, y, width, height, turn } = frame;
  context.save();
  context.translate(x + width / 2, y + height / 2);
  context.rotate((turn * Math.PI) / 180);
  context.setLineDash(DASH);
  context.lineWidth = WIDTH;
  context.strokeStyle = COLOUR;
  context.strokeRect(-width / 2, -height / 2, width, height);
  context.restore();
}

/** Around a page that students are not shown, and above it: only its tutor has it to draw. */
export function frameHiddenPage(
  context: CanvasRenderingContext2D,
  width: number,
  height: number,
): void {
  context.save();
  context.strokeStyle = COLOUR;
  context.lineWidth = WIDTH;
  context.setLineDash(DASH);
  context.strokeRect(-3, -3, width + 6, height + 6);
  context.fillStyle = COLOUR;
  context.font = screenFont(600, 10);
  context.fillText('Hidden: no student sees this page', 0, -6);
  context.restore();
}
