import { itemAt } from '@cuaderno/core/edits';
import type { Item } from '@cuaderno/core/board';
import type { Point } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import { hasEditor } from '../kinds/register';
import type { Camera } from './camera';
import type { Sample } from './gestures';
import type { Placed } from './layout';
import { pageUnder } from './pointer-tool';
import type { PointerTool } from './pointer-tool';

/** How near a touch must come to a text, in CSS px. */
const NEAR = 6;

/** Says where a text or a formula is to be written: at a place, or in one that is there already. */
export class TextPlacing implements PointerTool {
  private at: Sample | null = null;

  constructor(
    private readonly surface: {
      camera(): Camera;
      seen(): readonly Placed[];
      /** Whether this person may write on in what is there. */
      abilities(item: Item): boolean;
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
    const written =
      item && hasEditor(item) && !item.fixed && this.surface.abilities(item) ? item : null;
    if (written || anew) this.tell(page.id, under.p, written);
  }
}
