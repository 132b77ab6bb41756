import { corners, frameContains, isRunTouched } from '../geometry/index.js';
import type { Frame, Point } from '../geometry/index.js';

/** Half the width of the edge by which something without a line of its own is touched, in points. */
export const TOUCHED_EDGE = 2;

interface Framed {
  readonly frame: Frame;
}

/** What holds of a kind whose items fill their frame. */
export const box = {
  isAt: ({ frame }: Framed, p: Point, slack: number): boolean => frameContains(frame, p, slack),
  isTouched: ({ frame }: Framed, a: Point, b: Point, radius: number): boolean =>
    isRunTouched({ points: corners(frame), closed: true }, a, b, radius + TOUCHED_EDGE),
  points: ({ frame }: Framed): readonly Point[] => corners(frame),
  place: (_item: Framed, frame: Frame): Framed => ({ frame }),
  files: (): readonly string[] => [],
};
