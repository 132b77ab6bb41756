import { itemsOn } from '@cuaderno/core/board';
import type { Page } from '@cuaderno/core/board';
import type { ReplayEvent } from '@cuaderno/core/replay';

/** Pixels that a page takes up at most: as sharp as on a laptop, and made faster than it is watched. */
export const WIDEST = 1280;
export const HIGHEST = 1080;
/** Of the strip with the time under the page, in px. */
export const STRIP = 40;

export interface FilmSize {
  readonly width: number;
  readonly height: number;
}

/**
 * How large a film is: as the page on which most was done has it, with the strip under it. Both sides are even, as
 * encoders want it.
 */
export function filmSize(pages: readonly Page[], events: readonly ReplayEvent[]): FilmSize {
  const counts = new Map<string, number>();
  for (const { page } of events) if (page) counts.set(page, (counts.get(page) ?? 0) + 1);
  const most = [...pages].sort(
    (a, b) =>
      (counts.get(b.id) ?? 0) - (counts.get(a.id) ?? 0) || itemsOn(b).length - itemsOn(a).length,
  )[0];
  const { width, height } = most ?? { width: 4, height: 3 };
  const scale = Math.min(WIDEST / width, HIGHEST / height);
  const even = (n: number): number => Math.max(2, 2 * Math.round(n / 2));
  return { width: even(width * scale), height: even(height * scale) + STRIP };
}

/** Where a page lies on a film, in px, and px a point. */
export function placeOf(
  page: Pick<Page, 'width' | 'height'>,
  { width, height }: FilmSize,
): { x: number; y: number; width: number; height: number; scale: number } {
  const scale = Math.min(width / page.width, (height - STRIP) / page.height);
  const [w, h] = [Math.round(page.width * scale), Math.round(page.height * scale)];
  return {
    ...{ x: Math.floor((width - w) / 2), y: Math.floor((height - STRIP - h) / 2) },
    ...{ width: w, height: h, scale },
  };
}
