import type { PlacedItem } from '@cuaderno/core/board';
import type { Id } from '@cuaderno/core/id';
import { frameHiddenItem, isHiddenItem, PALE } from './hidden-item';
import { itemRenderItems, paint } from './render-items';
import type { Pictures } from './pictures';

/** All material of one sheet as a picture. It is made anew when any of it has changed. */
export class MaterialPainter {
  readonly canvas = document.createElement('canvas');
  private items: readonly PlacedItem[] = [];
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
    return this.items.length === 0;
  }

  /**
   * Brings the picture up to the sheet.
   * @param all what lies on it, from the lowest to the highest
   * @param lifted items that are drawn elsewhere just now
   * @param enough says when to stop and go on another time
   * @returns whether all is drawn
   */
  show(all: readonly PlacedItem[], lifted: ReadonlySet<Id>, enough?: () => boolean): boolean {
    const items = all.filter(({ id }) => !lifted.has(id));
    const same =
      items.length === this.items.length && items.every((item, i) => item === this.items[i]);
    if (!same || (!this.whole && this.drawn === items.length)) this.begin(items);
    const context = this.canvas.getContext('2d', this.settings)!;
    const { x, y, scale } = this.view;
    context.setTransform(scale, 0, 0, scale, -x * scale, -y * scale);
    for (const item of items.slice(this.drawn)) {
      if (enough?.()) return false;
      const hidden = isHiddenItem(item);
      if (hidden) context.globalAlpha = PALE;
      for (const look of itemRenderItems(item))
        if (!paint(context, look, this.pictures)) this.whole = false;
      context.globalAlpha = 1;
      if (hidden) frameHiddenItem(item, context);
      this.drawn++;
    }
    return true;
  }

  private begin(items: readonly PlacedItem[]): void {
    const { canvas } = this;
    this.items = items;
    this.drawn = 0;
    this.whole = true;
    if (items.length > 0 && canvas.width === 0) {
      canvas.width = this.columns;
      canvas.height = this.rows;
    } else {
      const context = canvas.getContext('2d', this.settings)!;
      context.setTransform(1, 0, 0, 1, 0, 0);
      context.clearRect(0, 0, canvas.width, canvas.height);
    }
  }
}
