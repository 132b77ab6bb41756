import type { Size } from './camera';

/**
 * Makes a canvas as large as this, with a pixel for each of the screen's. What is on it is gone then.
 *
 * @param size in CSS px
 * @returns whether it had another size
 */
export function resizeCanvas(canvas: HTMLCanvasElement, { width, height }: Size): boolean {
  const columns = Math.round(width * devicePixelRatio);
  const rows = Math.round(height * devicePixelRatio);
  if (canvas.width === columns && canvas.height === rows) return false;
  canvas.width = columns;
  canvas.height = rows;
  canvas.style.width = `${width}px`;
  canvas.style.height = `${height}px`;
  return true;
}
