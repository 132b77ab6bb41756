import { DisplayListBuilder, drawStroke, trace } from '@cuaderno/core/display';
import { InkColumns, readStroke } from '@cuaderno/core/ink';
import { drawItem } from '@cuaderno/core/kinds';
import type { Item } from '@cuaderno/core/board';
import type {
  Blend,
  DisplayImage,
  DisplayItem,
  DisplayOutline,
  DisplayPath,
  DisplaySink,
  DisplayText,
  PathBuffer,
} from '@cuaderno/core/display';
import type { ItemSpec } from '@cuaderno/core/kinds';
import type { Pictures } from './pictures';

/** What is drawn on: of a canvas on the page, or of one in a worker. */
export type Context2D = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;
import { cssFont, hasFont } from './text-fonts';

/** A path of a display list, as the canvas takes it. */
export interface PathRenderItem<D = Omit<DisplayPath, 'path'>> {
  readonly display: D;
  readonly path: Path2D;
}

/** What of a display list is drawn: a path, or a picture. */
export type RenderItem =
  | PathRenderItem
  | PathRenderItem<DisplayOutline>
  | { readonly display: DisplayImage | DisplayText };

/** What has been made of an item before: items never change, so it never needs to be made again. */
const inkRenderItems = new WeakMap<Uint8Array, PathRenderItem[]>();
const placedRenderItems = new WeakMap<Item, RenderItem[]>();

export function renderItemOf(display: DisplayPath): PathRenderItem;
export function renderItemOf(display: DisplayItem): RenderItem;
export function renderItemOf(display: DisplayItem): RenderItem {
  if (display.kind === 'image' || display.kind === 'text') return { display };
  const path = new Path2D();
  trace(display.path, path);
  return display.kind === 'path' ? { display, path } : { display, path };
}

const columns = new InkColumns();

/** What a line looks like. */
export function inkRenderItemsOf(ink: Uint8Array): PathRenderItem[] {
  const renderItems = new LineRenderItems();
  drawStroke(readStroke(ink, columns), columns, renderItems);
  return renderItems.done();
}

/**
 * A line that swells is many short pieces of a few widths. They are of one colour and cover, so those of one
 * width are drawn as one, in whatever order. They go straight into paths of the canvas: a page may be turned to
 * on which a thousand lines were never drawn before.
 */
class LineRenderItems implements DisplaySink {
  private readonly renderItems = new Map<number, PathRenderItem>();

  path(piece: PathBuffer, colour: string, blend: Blend, width: number | null): void {
    let renderItem = this.renderItems.get(width ?? 0);
    if (!renderItem) {
      const display = {
        kind: 'path',
        colour,
        blend,
        paint: width === null ? 'fill' : { width },
      } as const;
      this.renderItems.set(width ?? 0, (renderItem = { display, path: new Path2D() }));
    }
    piece.trace(renderItem.path);
  }

  done(): PathRenderItem[] {
    return [...this.renderItems.values()];
  }

  image = onlyPaths;
  text = onlyPaths;
  outline = onlyPaths;
}

function onlyPaths(): never {
  throw new Error('Ink is paths and nothing else.');
}

export function placedRenderItemsOf(item: ItemSpec): RenderItem[] {
  const list = new DisplayListBuilder();
  drawItem(item, list);
  return list.done().map((display) => renderItemOf(display));
}

export function itemRenderItems(item: Item): RenderItem[] {
  if (item.kind === 'ink') {
    let renderItems = inkRenderItems.get(item.ink);
    if (!renderItems) inkRenderItems.set(item.ink, (renderItems = inkRenderItemsOf(item.ink)));
    return renderItems;
  }
  let renderItems = placedRenderItems.get(item);
  if (!renderItems) placedRenderItems.set(item, (renderItems = placedRenderItemsOf(item)));
  return renderItems;
}

/** Where a picture has not come yet there is a pale sheet of its size. */
const COMING = '#e9edf4';

/**
 * Draws one look; the context's units are points. Returns false where a picture is still to come.
 * @param pictures where pictures come from; without it there are only paths
 */
export function paint(context: Context2D, renderItem: RenderItem, pictures?: Pictures): boolean {
  if (!('path' in renderItem))
    return renderItem.display.kind === 'image'
      ? paintImage(context, renderItem.display, pictures)
      : paintText(context, renderItem.display, pictures);
  if (isOutline(renderItem)) return paintOutline(context, renderItem);
  const { colour, paint: how } = renderItem.display;
  if (how === 'fill') {
    context.fillStyle = colour;
    context.fill(renderItem.path);
  } else {
    context.strokeStyle = colour;
    context.lineWidth = how.width;
    context.lineCap = 'round';
    context.lineJoin = 'round';
    context.stroke(renderItem.path);
  }
  return true;
}

function isOutline(
  renderItem: PathRenderItem | PathRenderItem<DisplayOutline>,
): renderItem is PathRenderItem<DisplayOutline> {
  return renderItem.display.kind === 'outline';
}

function paintOutline(
  context: Context2D,
  { display, path }: PathRenderItem<DisplayOutline>,
): boolean {
  context.save();
  context.transform(...display.matrix);
  context.fillStyle = display.colour;
  context.fill(path);
  context.restore();
  return true;
}

/** Words as wide as they are said to be, whatever font they come out in. */
function paintText(context: Context2D, display: DisplayText, pictures?: Pictures): boolean {
  const { text, size, colour, width, rtl, matrix } = display;
  const here = hasFont(display, text, () => pictures?.announce());
  context.save();
  context.transform(...matrix);
  context.font = cssFont(display, size);
  context.direction = rtl ? 'rtl' : 'ltr';
  context.textAlign = 'left';
  // Or letters stand on whole pixels of the size they are set in, and aside of where the PDF has them.
  context.textRendering = 'geometricPrecision';
  context.fillStyle = colour;
  const wide = context.measureText(text).width;
  if (wide > 0) context.scale(width / wide, 1);
  context.fillText(text, 0, 0);
  context.restore();
  return here;
}

function paintImage(
  context: Context2D,
  { file, matrix, crop }: DisplayImage,
  pictures?: Pictures,
): boolean {
  const bitmap = pictures?.get(file) ?? null;
  context.save();
  context.transform(...matrix);
  if (bitmap) {
    const { width, height } = bitmap;
    context.imageSmoothingQuality = 'high';
    context.drawImage(
      bitmap,
      crop.x * width,
      crop.y * height,
      crop.width * width,
      crop.height * height,
      0,
      0,
      1,
      1,
    );
  } else {
    context.fillStyle = COMING;
    context.fillRect(0, 0, 1, 1);
  }
  context.restore();
  return bitmap !== null;
}
