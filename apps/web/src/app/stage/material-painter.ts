import type { Id, ThingItem } from '@cuaderno/core';
import { itemLooks, paint } from './looks';
import type { Pictures } from './pictures';

/** How much of what is held back is seen. */
const HELD = 0.4;

/** All material of one sheet as a picture. It is made anew when any of it has changed. */
export class MaterialPainter {
  readonly canvas = document.createElement('canvas');
  private things: readonly ThingItem[] = [];
  /** How many of `things` are drawn. */
  private drawn = 0;
  /** Whether all pictures on it have come. */
  private whole = true;

  constructor(
    private readonly columns: number,
    private readonly rows: number,
    private readonly view: { x: number; y: number; scale: number },
    private readonly pictures: Pictures,
    private readonly settings?: CanvasRenderingContext2DSettings,
  ) {
    // A canvas as large as the page is made for pages that have material, and for no other.
    this.canvas.width = 0;
  }

  get isEmpty(): boolean {
    return this.things.length === 0;
  }

  /**
   * Brings the picture up to the sheet.
   * @param all what lies on it, from the lowest to the highest
   * @param lifted items that are drawn elsewhere just now
   * @param enough says when to stop and go on another time
   * @returns whether all is drawn
   */
  show(all: readonly ThingItem[], lifted: ReadonlySet<Id>, enough?: () => boolean): boolean {
    const things = all.filter(({ id }) => !lifted.has(id));
    const same =
      things.length === this.things.length && things.every((thing, i) => thing === this.things[i]);
    if (!same || (!this.whole && this.drawn === things.length)) this.begin(things);
    const context = this.canvas.getContext('2d', this.settings)!;
    const { x, y, scale } = this.view;
    context.setTransform(scale, 0, 0, scale, -x * scale, -y * scale);
    for (const thing of things.slice(this.drawn)) {
      if (enough?.()) return false;
      // Only a tutor has what is held back, and sees by its paleness that nobody else does.
      context.globalAlpha = thing.held ? HELD : 1;
      for (const look of itemLooks(thing))
        if (!paint(context, look, this.pictures)) this.whole = false;
      this.drawn++;
    }
    return true;
  }

  private begin(things: readonly ThingItem[]): void {
    const { canvas } = this;
    this.things = things;
    this.drawn = 0;
    this.whole = true;
    if (things.length > 0 && canvas.width === 0) {
      canvas.width = this.columns;
      canvas.height = this.rows;
    } else {
      const context = canvas.getContext('2d', this.settings)!;
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.clearRect(0, 0, canvas.width, canvas.height);
    }
  }
}
