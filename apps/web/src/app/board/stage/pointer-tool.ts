import type { Item } from '@cuaderno/core/board';
import type { Matrix, Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import { toBoard } from './camera';
import type { Camera } from './camera';
import type { Sample } from './gestures';
import type { Placed } from './layout';

/** What a pointer does while one tool is in hand. */
export interface PointerTool {
  /** Returns false where nothing can be done there, beside a page say. */
  down(sample: Sample): boolean;
  move(samples: readonly Sample[]): void;
  up(): void;
  /** Taken away in the middle: a second finger came, or the system interfered. */
  lost(): void;
}

/** Items that are not drawn where they lie, but where they are on their way. */
export interface DragPreview {
  readonly page: Id;
  /** As they are to be drawn just now. */
  readonly items: readonly Item[];
  /** Takes ink to where it is on its way; writing it anew for every frame would cost too much. */
  readonly map?: Matrix;
  /** Those of the page that are not to be drawn; the same set while the same are meant. */
  readonly ids: ReadonlySet<Id>;
}

/** The page under a place in the window, and the place on it in points. */
export function pageUnder(
  camera: Camera,
  seen: readonly Placed[],
  sample: { x: number; y: number },
): { placed: Placed; p: Point } | null {
  const at = toBoard(camera, sample);
  const placed = seen.find(
    ({ page, x, y }) => at.x >= x && at.y >= y && at.x <= x + page.width && at.y <= y + page.height,
  );
  return placed ? { placed, p: { x: at.x - placed.x, y: at.y - placed.y } } : null;
}
