import { MIN_FRAME } from '@cuaderno/core/geometry';
import type { PageSize } from '@cuaderno/core/board';
import type { Frame, Point } from '@cuaderno/core/geometry';

/** How much of the page's width and height an item covers at most when it comes. */
const COVER = 0.6;
/** The same of several in rows. */
const COVER_ALL = 0.86;
/** Space between things that come together, in points. */
const BETWEEN = 12;

/**
 * Frames for items of these sizes in points: one alone as it is, several in rows of one height;
 * none larger than the page has room for, nor off it.
 */
export function inRows(
  items: readonly { width: number; height: number }[],
  page: PageSize,
  at: Point,
): Frame[] {
  const columns = Math.ceil(Math.sqrt(items.length));
  const rows = Math.ceil(items.length / columns);
  const room = {
    width: (page.width * (columns > 1 ? COVER_ALL : COVER) - BETWEEN * (columns - 1)) / columns,
    height: (page.height * (rows > 1 ? COVER_ALL : COVER) - BETWEEN * (rows - 1)) / rows,
  };
  const sizes = items.map(({ width, height }) => {
    const scale = Math.min(1, room.width / width, room.height / height);
    return {
      width: Math.max(MIN_FRAME, width * scale),
      height: Math.max(MIN_FRAME, height * scale),
    };
  });
  const cell = {
    width: Math.max(...sizes.map(({ width }) => width)),
    height: Math.max(...sizes.map(({ height }) => height)),
  };
  const whole = {
    width: cell.width * columns + BETWEEN * (columns - 1),
    height: cell.height * rows + BETWEEN * (rows - 1),
  };
  const within = (middle: number, size: number, most: number): number =>
    Math.max(0, Math.min(most - size, middle - size / 2));
  const left = within(at.x, whole.width, page.width);
  const top = within(at.y, whole.height, page.height);
  return sizes.map(({ width, height }, i) => ({
    x: left + (i % columns) * (cell.width + BETWEEN) + (cell.width - width) / 2,
    y: top + Math.floor(i / columns) * (cell.height + BETWEEN) + (cell.height - height) / 2,
    width,
    height,
    turn: 0,
  }));
}
