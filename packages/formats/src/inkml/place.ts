import type { InkPoint, Stroke } from '@cuaderno/core';
import type { InkMl } from './read.js';

/** Part of a page that ink takes up at most where nobody says how large it is. */
const PART = 0.8;

/** Lays ink on a page, whose size is in points: where it says it lies, if that is on the page; else in its middle. */
export function placeInk(
  { strokes, sized }: InkMl,
  page: { width: number; height: number },
): Stroke[] {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { points } of strokes)
    for (const { x, y } of points) {
      left = Math.min(left, x);
      right = Math.max(right, x);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
    }
  if (sized && left >= 0 && top >= 0 && right <= page.width && bottom <= page.height)
    return [...strokes];
  const [width, height] = [Math.max(1e-6, right - left), Math.max(1e-6, bottom - top)];
  const fits = Math.min((page.width * PART) / width, (page.height * PART) / height);
  const scale = sized ? Math.min(1, fits) : fits;
  const dx = page.width / 2 - ((left + right) / 2) * scale;
  const dy = page.height / 2 - ((top + bottom) / 2) * scale;
  const moved = (p: InkPoint): InkPoint => ({ ...p, x: p.x * scale + dx, y: p.y * scale + dy });
  return strokes.map(({ style, points }) => ({
    style: sized && scale < 1 ? { ...style, width: Math.max(0.3, style.width * scale) } : style,
    points: points.map(moved),
  }));
}
