import { pileAt } from '@cuaderno/core/board';
import { strokeOf } from '@cuaderno/core/edits';
import { newId } from '@cuaderno/core/id';
import { cutStroke, encodeStroke } from '@cuaderno/core/ink';
import type { Board, Item } from '@cuaderno/core/board';
import type { Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import type { Stroke } from '@cuaderno/core/ink';
import { toBoard } from './camera';
import type { Camera } from './camera';
import type { Sample } from './gestures';
import type { Placed } from './layout';
import type { PointerTool } from './pointer-tool';
import { ERASER } from './writing';

/** A line of which a part was rubbed out, and the pieces that are left; all of one sweep have one `gesture`. */
export interface Cut {
  readonly page: Id;
  readonly item: Id;
  readonly pieces: readonly { readonly id: Id; readonly ink: Uint8Array }[];
  readonly gesture: object;
}

export interface RubSurface {
  camera(): Camera;
  seen(): readonly Placed[];
  mayErase(): (item: Item) => boolean;
}

/** Rubs out those parts of lines that the eraser goes over; shapes and words it leaves alone. */
export class Rubbing implements PointerTool {
  private sweep: { readonly gesture: object; last: Point } | null = null;
  /** Lines that are cut already, and pieces that were left: the board is a frame behind. */
  private readonly gone = new Set<Id>();
  private fresh: { readonly page: Id; readonly id: Id; readonly stroke: Stroke }[] = [];

  constructor(
    private readonly surface: RubSurface,
    private readonly cut: (cut: Cut) => void,
  ) {}

  /** The board has changed: what has arrived on it isn't known here alone any more. */
  settle(board: Board): void {
    this.fresh = this.fresh.filter(({ page, id }) => !board.pages.get(page)?.items.has(id));
  }

  down(sample: Sample): boolean {
    this.sweep = { gesture: {}, last: toBoard(this.surface.camera(), sample) };
    this.gone.clear();
    this.move([sample]);
    return true;
  }

  move(samples: readonly Sample[]): void {
    const { sweep } = this;
    if (!sweep || samples.length === 0) return;
    const camera = this.surface.camera();
    const path = [sweep.last, ...samples.map((sample) => toBoard(camera, sample))];
    sweep.last = path[path.length - 1]!;
    const radius = ERASER / camera.zoom;
    const mayErase = this.surface.mayErase();
    for (const { page, x, y } of this.surface.seen()) {
      const here = path.map((p) => ({ x: p.x - x, y: p.y - y }));
      const written = pileAt(page, here[here.length - 1]!).flatMap(({ ink }) => ink);
      const lines = written.flatMap((item) =>
        item.kind === 'ink' && !this.gone.has(item.id) && mayErase(item)
          ? [{ id: item.id, stroke: strokeOf(item.ink) }]
          : [],
      );
      const own = this.fresh.filter((one) => one.page === page.id && !this.gone.has(one.id));
      for (const { id, stroke } of [...lines, ...own]) {
        const left = leftOf(stroke, here, radius);
        if (left) this.tell(page.id, id, left, sweep.gesture);
      }
    }
  }

  up(): void {
    this.sweep = null;
  }

  lost(): void {
    this.sweep = null;
  }

  private tell(page: Id, item: Id, left: readonly Stroke[], gesture: object): void {
    this.gone.add(item);
    const pieces = left.map((stroke) => ({ id: newId(), ink: encodeStroke(stroke), stroke }));
    this.fresh = this.fresh.filter(({ id }) => id !== item);
    for (const { id, stroke } of pieces) this.fresh.push({ page, id, stroke });
    this.cut({ page, item, pieces: pieces.map(({ id, ink }) => ({ id, ink })), gesture });
  }
}

/** What is left of a line after the eraser went along a path; `null` where it didn't touch it. */
function leftOf(stroke: Stroke, path: readonly Point[], radius: number): Stroke[] | null {
  let pieces: Stroke[] = [stroke];
  let touched = false;
  for (let i = 1; i < path.length; i++) {
    const next: Stroke[] = [];
    for (const piece of pieces) {
      const left = cutStroke(piece, path[i - 1]!, path[i]!, radius);
      if (left) touched = true;
      next.push(...(left ?? [piece]));
    }
    pieces = next;
  }
  return touched ? pieces : null;
}
