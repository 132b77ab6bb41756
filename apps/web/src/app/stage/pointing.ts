import { itemAt } from '@cuaderno/core';
import type { Id, Item, Point } from '@cuaderno/core';
import type { Camera } from './camera';
import type { Sample } from './gestures';
import type { Placed } from './layout';
import { pageUnder } from './pointer-tool';
import type { PointerTool } from './pointer-tool';

/** How near a touch must come to a text, in CSS px. */
const NEAR = 6;

/** Whether it is written in letters, and can be opened to write on. */
export function isWritten(item: Item): item is Item & { kind: 'text' | 'formula' } {
  return item.kind === 'text' || item.kind === 'formula';
}

/** Says where a text or a formula is to be written: at a place, or in one that is there already. */
export class Pointing implements PointerTool {
  private at: Sample | null = null;

  constructor(
    private readonly surface: {
      camera(): Camera;
      seen(): readonly Placed[];
      /** Whether this person may write on in what is there. */
      may(item: Item): boolean;
    },
    private readonly tell: (page: Id, at: Point, item: Item | null) => void,
  ) {}

  down(sample: Sample): boolean {
    this.at = pageUnder(this.surface.camera(), this.surface.seen(), sample) ? sample : null;
    return this.at !== null;
  }

  move(): void {
    // Where it went down is meant, wherever the hand slides.
  }

  up(): void {
    const { at } = this;
    this.at = null;
    if (at) this.point(at, true);
  }

  lost(): void {
    this.at = null;
  }

  /** Opens the text or formula at a place of the window, if one is there. */
  open(sample: { x: number; y: number }): void {
    this.point(sample, false);
  }

  private point(sample: { x: number; y: number }, anew: boolean): void {
    const camera = this.surface.camera();
    const under = pageUnder(camera, this.surface.seen(), sample);
    if (!under) return;
    const { page } = under.placed;
    const item = itemAt(page, under.p, NEAR / camera.zoom);
    const written = item && isWritten(item) && !item.fixed && this.surface.may(item) ? item : null;
    if (written || anew) this.tell(page.id, under.p, written);
  }
}
