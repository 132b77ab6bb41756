import { corners } from '@cuaderno/core/geometry';
import type { Point } from '@cuaderno/core/geometry';
import type { SelectionView } from './selecting';

/** Sizes in CSS px. */
const HANDLE = 6;
const COLOURS = { line: '#1f5fbf', handle: '#ffffff', guide: '#b02f27', fixed: '#8a5200' } as const;

/**
 * Draws what is chosen: its frame and handles, the lines it has snapped to, the box or lasso under
 * way. The context's units are CSS px.
 * @param at where a place of the page is in the window
 * @param size of the page, in points
 */
export function drawSelection(
  context: CanvasRenderingContext2D,
  view: SelectionView,
  at: (p: Point) => Point,
  size: { width: number; height: number },
): void {
  context.save();
  context.lineWidth = 1.5;
  context.strokeStyle = view.fixed ? COLOURS.fixed : COLOURS.line;
  if (view.frame) {
    if (view.fixed) context.setLineDash([5, 4]);
    run(context, corners(view.frame).map(at), true);
    context.setLineDash([]);
  }
  for (const guide of view.guides) {
    context.strokeStyle = COLOURS.guide;
    const ends =
      'x' in guide
        ? [
            { x: guide.x, y: 0 },
            { x: guide.x, y: size.height },
          ]
        : [
            { x: 0, y: guide.y },
            { x: size.width, y: guide.y },
          ];
    run(context, ends.map(at), false);
  }
  context.strokeStyle = COLOURS.line;
  context.fillStyle = COLOURS.handle;
  for (const handle of view.handles) {
    const { x, y } = at(handle.at);
    context.beginPath();
    if (handle.kind === 'size') context.rect(x - HANDLE, y - HANDLE, 2 * HANDLE, 2 * HANDLE);
    else context.arc(x, y, HANDLE + 1, 0, 2 * Math.PI);
    context.fill();
    context.stroke();
    if (handle.kind === 'turn') arrow(context, x, y);
  }
  context.setLineDash([4, 3]);
  context.fillStyle = 'rgb(31 95 191 / 10%)';
  if (view.box) {
    const { x, y, width, height } = view.box;
    const from = at({ x, y });
    const to = at({ x: x + width, y: y + height });
    context.fillRect(from.x, from.y, to.x - from.x, to.y - from.y);
    context.strokeRect(from.x, from.y, to.x - from.x, to.y - from.y);
  }
  if (view.lasso.length > 1) {
    run(context, view.lasso.map(at), true);
    context.fill();
  }
  context.restore();
}

function run(context: CanvasRenderingContext2D, points: readonly Point[], closed: boolean): void {
  context.beginPath();
  points.forEach(({ x, y }, i) => (i === 0 ? context.moveTo(x, y) : context.lineTo(x, y)));
  if (closed) context.closePath();
  context.stroke();
}

/** The sign on the handle to turn by. */
function arrow(context: CanvasRenderingContext2D, x: number, y: number): void {
  context.beginPath();
  context.arc(x, y, 3, -2.6, 1.2);
  context.stroke();
}
