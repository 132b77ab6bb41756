import type { CoverItem, PileSheet } from '@cuaderno/core/board';
import type { Rect } from '@cuaderno/core/geometry';
import type { Id } from '@cuaderno/core/id';
import { InkPainter } from './ink-painter';
import { itemRenderItems, paint } from './render-items';
import { MaterialPainter } from './material-painter';
import type { Pictures } from './pictures';

/**
 * The pile on a page as pictures: for each sheet, the page itself being the lowest, one of its
 * material and one of its ink. A line that is added to one sheet leaves the others as they are drawn.
 */
export class SheetPainters {
  private sheets: { cover: CoverItem | null; material: MaterialPainter; ink: InkPainter }[] = [];

  /** @param settings how the canvases are to be kept */
  constructor(
    private readonly columns: number,
    private readonly rows: number,
    private readonly view: { x: number; y: number; scale: number },
    private readonly pictures: Pictures,
    private readonly settings?: CanvasRenderingContext2DSettings,
  ) {}

  /**
   * Brings the pictures up to the page.
   * @param lifted items that are drawn elsewhere just now
   * @param enough says when to stop and go on another time
   * @returns whether all is drawn
   */
  show(pile: readonly PileSheet[], lifted: ReadonlySet<Id>, enough?: () => boolean): boolean {
    const known = new Map(this.sheets.map((sheet) => [sheet.cover?.id, sheet]));
    this.sheets = pile.map(({ cover }) => {
      const { columns, rows, view, settings } = this;
      const painters = known.get(cover?.id) ?? {
        material: new MaterialPainter(columns, rows, view, this.pictures, settings),
        ink: new InkPainter(columns, rows, view, this.pictures, settings),
      };
      return { ...painters, cover };
    });
    return pile.every(({ material, ink }, i) => {
      const sheet = this.sheets[i]!;
      return sheet.material.show(material, lifted, enough) && sheet.ink.show(ink, lifted, enough);
    });
  }

  /**
   * Draws what there is; the context's units are points.
   * @param part of the page that the pictures are of, in points
   * @param between draws what moves, above the material of a sheet and under its ink
   */
  draw(
    context: CanvasRenderingContext2D,
    { x, y, width, height }: Rect,
    between: ((sheet: Id | null) => void) | null,
  ): void {
    for (const { cover, material, ink } of this.sheets) {
      if (cover) for (const look of itemRenderItems(cover)) paint(context, look);
      if (!material.isEmpty) context.drawImage(material.canvas, x, y, width, height);
      between?.(cover?.id ?? null);
      if (ink.multiplies) {
        context.globalCompositeOperation = 'multiply';
        context.drawImage(ink.multiply, x, y, width, height);
        context.globalCompositeOperation = 'source-over';
      }
      if (ink.covers) context.drawImage(ink.normal, x, y, width, height);
    }
  }
}
