import { drawnOn, materialOn } from '@cuaderno/core/board';
import { Extent } from '@cuaderno/core/display';
import { itemBounds } from '@cuaderno/core/edits';
import { bounds } from '@cuaderno/core/geometry';
import { drawItem } from '@cuaderno/core/kinds';
import type { Item, Page } from '@cuaderno/core/board';
import type { Point, Rect } from '@cuaderno/core/geometry';
import { allHere } from '../drawing/all-here';
import { itemRenderItems, paint } from '../drawing/render-items';
import { paintPaper } from '../drawing/paper-painter';
import type { PaperSource } from '../drawing/paper-source';

/** Pixels of a picture at most: what every browser's canvas holds. */
const MAX_PIXELS = 16_000_000;
/** Pixels a point: 192 to the inch, sharp on paper and on any screen. */
const SCALE = 192 / 72;

/** What belongs on a picture of a page. */
export interface PageImageOptions {
  /** Whether what is written is on it. */
  readonly ink: boolean;
  readonly signal?: AbortSignal;
}

/** Pixels a point for something of this size, in points. */
export function scaleFor({ width, height }: { width: number; height: number }): number {
  return Math.min(SCALE, Math.sqrt(MAX_PIXELS / (width * height)));
}

/** A page as a PNG, as it is on the stage. Rejects with an `AbortError` if given up. */
export async function pagePng(
  page: Page,
  papers: PaperSource,
  options: PageImageOptions,
): Promise<Blob> {
  const canvas = await pagePrint(page, papers, options.signal);
  paintPaper(canvas, page, { x: 0, y: 0, scale: canvas.width / page.width });
  const items = options.ink ? drawnOn(page) : materialOn(page);
  await paintItems(canvas, items, { x: 0, y: 0 }, canvas.width / page.width, papers);
  return png(canvas);
}

/** What an imported page has printed on it, on white; white alone for papers of our own. */
export async function pagePrint(
  page: Page,
  papers: PaperSource,
  signal = new AbortController().signal,
): Promise<HTMLCanvasElement> {
  const scale = scaleFor(page);
  const canvas = blank(page, scale);
  const context = canvas.getContext('2d')!;
  context.fillStyle = '#ffffff';
  context.fillRect(0, 0, canvas.width, canvas.height);
  if (page.paper.kind === 'pdf')
    await papers.draw(page.paper, canvas, { x: 0, y: 0, scale }, signal);
  return canvas;
}

/** Some items alone, on no ground, as a PNG. */
export async function itemsPng(items: readonly Item[], papers: PaperSource): Promise<Blob> {
  const box = boxOf(items);
  const scale = scaleFor(box);
  const canvas = blank(box, scale);
  await paintItems(canvas, items, box, scale, papers);
  return png(canvas);
}

/** Room around what is saved as a picture, in points. */
const EDGE = 1;

/** What an item takes up as it is drawn, and its frame. */
function drawnBounds(item: Item): Rect {
  const own = itemBounds(item);
  if (item.kind === 'ink') return own;
  const extent = new Extent();
  drawItem(item, extent);
  const drawn = extent.take();
  return drawn ? bounds([...boxCorners(own), ...boxCorners(drawn)])! : own;
}

function boxCorners({ x, y, width, height }: Rect): Point[] {
  return [
    { x, y },
    { x: x + width, y: y + height },
  ];
}

/** What items take up, pens included, in points. */
export function boxOf(items: readonly Item[]): Rect {
  const boxes = items.map((item) => {
    const { x, y, width, height } = drawnBounds(item);
    return { x: x - EDGE, y: y - EDGE, right: x + width + EDGE, bottom: y + height + EDGE };
  });
  const x = Math.min(...boxes.map((box) => box.x));
  const y = Math.min(...boxes.map((box) => box.y));
  return {
    x,
    y,
    width: Math.max(1, ...boxes.map(({ right }) => right - x)),
    height: Math.max(1, ...boxes.map(({ bottom }) => bottom - y)),
  };
}

function blank(size: { width: number; height: number }, scale: number): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(size.width * scale));
  canvas.height = Math.max(1, Math.round(size.height * scale));
  return canvas;
}

/** Draws items when all that they are made of has come. */
async function paintItems(
  canvas: HTMLCanvasElement,
  items: readonly Item[],
  corner: { x: number; y: number },
  scale: number,
  { pictures }: PaperSource,
): Promise<void> {
  await allHere(items, pictures);
  const context = canvas.getContext('2d')!;
  context.setTransform(scale, 0, 0, scale, -corner.x * scale, -corner.y * scale);
  for (const item of items)
    for (const look of itemRenderItems(item)) {
      const multiplies = look.display.kind === 'path' && look.display.blend === 'multiply';
      context.globalCompositeOperation = multiplies ? 'multiply' : 'source-over';
      paint(context, look, pictures);
    }
}

function png(canvas: HTMLCanvasElement): Promise<Blob> {
  return new Promise((done, fail) =>
    canvas.toBlob((blob) => (blob ? done(blob) : fail(new Error('no picture'))), 'image/png'),
  );
}
