import type { PageSize, Paper } from '../board/index.js';
import type { Rect } from '../geometry/index.js';

/** A line that something has snapped to: upright at `x`, or level at `y`, in points. */
export type Guide = { readonly x: number } | { readonly y: number };

export interface Snapped {
  readonly dx: number;
  readonly dy: number;
  readonly guides: readonly Guide[];
}

/** What a box may snap to. */
export interface SnapField {
  readonly page: PageSize;
  /** Boxes of the neighbours. */
  readonly others: readonly Rect[];
  /** How far squares or dots of the paper lie apart, in points; `null` where there are none. */
  readonly grid: number | null;
}

/** The grid that a paper prints. */
export function gridOf(paper: Paper): number | null {
  return paper.kind === 'squared' || paper.kind === 'dotted' ? paper.spacing : null;
}

/**
 * How far a moving box is to be moved on so that an edge or its middle meets an edge or middle of a
 * neighbour or the page; else so that its corner meets the paper's grid.
 * @param reach farthest that it may be moved for that, in points
 */
export function snap(box: Rect, { page, others, grid }: SnapField, reach: number): Snapped {
  const edges = (at: number, size: number): number[] => [at, at + size / 2, at + size];
  const xs = [...edges(0, page.width), ...others.flatMap((o) => edges(o.x, o.width))];
  const ys = [...edges(0, page.height), ...others.flatMap((o) => edges(o.y, o.height))];
  const across = nearest(edges(box.x, box.width), xs, reach) ?? onGrid(box.x, grid, reach);
  const down = nearest(edges(box.y, box.height), ys, reach) ?? onGrid(box.y, grid, reach);
  const guides: Guide[] = [];
  if (across?.line !== undefined) guides.push({ x: across.line });
  if (down?.line !== undefined) guides.push({ y: down.line });
  return { dx: across?.by ?? 0, dy: down?.by ?? 0, guides };
}

interface SnapStep {
  readonly by: number;
  /** Where the line is that was met; none for the grid, whose lines are seen anyway. */
  readonly line?: number;
}

function nearest(own: readonly number[], lines: readonly number[], reach: number): SnapStep | null {
  let best: SnapStep | null = null;
  for (const line of lines)
    for (const edge of own) {
      const by = line - edge;
      if (Math.abs(by) <= reach && (!best || Math.abs(by) < Math.abs(best.by))) best = { by, line };
    }
  return best;
}

function onGrid(at: number, grid: number | null, reach: number): SnapStep | null {
  if (!grid) return null;
  const by = Math.round(at / grid) * grid - at;
  return Math.abs(by) <= reach ? { by } : null;
}
