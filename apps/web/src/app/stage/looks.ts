import {
  DisplayListBuilder,
  drawStroke,
  drawThing,
  InkColumns,
  readStroke,
  trace,
} from '@cuaderno/core';
import type {
  Blend,
  DisplayImage,
  DisplayItem,
  DisplayOutline,
  DisplayPath,
  DisplaySink,
  DisplayText,
  Item,
  PathBuffer,
  ThingSpec,
} from '@cuaderno/core';
import type { Pictures } from './pictures';

/** What is drawn on: of a canvas on the page, or of one in a worker. */
export type Context2D = CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;
import { cssFont, hasFont } from './text-fonts';

/** A path of a display list, as the canvas takes it. */
export interface PathLook<D = Omit<DisplayPath, 'path'>> {
  readonly display: D;
  readonly path: Path2D;
}

/** What of a display list is drawn: a path, or a picture. */
export type Look =
  PathLook | PathLook<DisplayOutline> | { readonly display: DisplayImage | DisplayText };

/** What has been made of an item before: items never change, so it never needs to be made again. */
const inkLooks = new WeakMap<Uint8Array, PathLook[]>();
const thingLooks = new WeakMap<Item, Look[]>();

export function lookOf(display: DisplayPath): PathLook;
export function lookOf(display: DisplayItem): Look;
export function lookOf(display: DisplayItem): Look {
  if (display.kind === 'image' || display.kind === 'text') return { display };
  const path = new Path2D();
  trace(display.path, path);
  return display.kind === 'path' ? { display, path } : { display, path };
}

const columns = new InkColumns();

/** What a line looks like. */
export function inkLooksOf(ink: Uint8Array): PathLook[] {
  const looks = new LineLooks();
  drawStroke(readStroke(ink, columns), columns, looks);
  return looks.done();
}

/**
 * A line that swells is many short pieces of a few widths. They are of one colour and cover, so those of one
 * width are drawn as one, in whatever order. They go straight into paths of the canvas: a page may be turned to
 * on which a thousand lines were never drawn before.
 */
class LineLooks implements DisplaySink {
  private readonly looks = new Map<number, PathLook>();

  path(piece: PathBuffer, colour: string, blend: Blend, width: number | null): void {
    let look = this.looks.get(width ?? 0);
    if (!look) {
      const display = {
        kind: 'path',
        colour,
        blend,
        paint: width === null ? 'fill' : { width },
      } as const;
      this.looks.set(width ?? 0, (look = { display, path: new Path2D() }));
    }
    piece.trace(look.path);
  }

  done(): PathLook[] {
    return [...this.looks.values()];
  }

  image = onlyPaths;
  text = onlyPaths;
  outline = onlyPaths;
}

function onlyPaths(): never {
  throw new Error('Ink is paths and nothing else.');
}

export function thingLooksOf(thing: ThingSpec): Look[] {
  const list = new DisplayListBuilder();
  drawThing(thing, list);
  return list.done().map((display) => lookOf(display));
}

export function itemLooks(item: Item): Look[] {
  if (item.kind === 'ink') {
    let looks = inkLooks.get(item.ink);
    if (!looks) inkLooks.set(item.ink, (looks = inkLooksOf(item.ink)));
    return looks;
  }
  let looks = thingLooks.get(item);
  if (!looks) thingLooks.set(item, (looks = thingLooksOf(item)));
  return looks;
}

/** Where a picture has not come yet there is a pale sheet of its size. */
const COMING = '#e9edf4';

/**
 * Draws one look; the context's units are points. Returns false where a picture is still to come.
 * @param pictures where pictures come from; without it there are only paths
 */
export function paint(context: Context2D, look: Look, pictures?: Pictures): boolean {
  if (!('path' in look))
    return look.display.kind === 'image'
      ? paintImage(context, look.display, pictures)
      : paintText(context, look.display, pictures);
  if (isOutline(look)) return paintOutline(context, look);
  const { colour, paint: how } = look.display;
  if (how === 'fill') {
    context.fillStyle = colour;
    context.fill(look.path);
  } else {
    context.strokeStyle = colour;
    context.lineWidth = how.width;
    context.lineCap = 'round';
    context.lineJoin = 'round';
    context.stroke(look.path);
  }
  return true;
}

function isOutline(look: PathLook | PathLook<DisplayOutline>): look is PathLook<DisplayOutline> {
  return look.display.kind === 'outline';
}

function paintOutline(context: Context2D, { display, path }: PathLook<DisplayOutline>): boolean {
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
