import {
  drawnOn,
  drawPaper,
  drawStroke,
  drawItem,
  InkColumns,
  materialOn,
  readStroke,
} from '@cuaderno/core';
import type { FileHash, Item, Page, Rect } from '@cuaderno/core';
import { escaped, number, SvgWriter } from './svg-writer.js';

export interface SvgOptions {
  /** Addresses of pictures, mostly as data. */
  readonly pictures: ReadonlyMap<FileHash, string>;
  /** A picture of what an imported page has printed on it, as data; without it that stays white. */
  readonly print?: string | null;
  /** Rules that bring the fonts along. */
  readonly fontFaces?: string;
  /** Without styles, as clipboards take it: see `SvgWriter`. */
  readonly plain?: boolean;
}

/** A page as SVG, in points: its paper, and what lies on it. @param ink whether what is written, too */
export function pageSvg(page: Page, ink: boolean, options: SvgOptions): string {
  const { width, height, name } = page;
  const writer = new SvgWriter(options.pictures, options.plain);
  drawPaper(page.paper, page, writer);
  drawItems(ink ? drawnOn(page) : materialOn(page), writer);
  const print = options.print
    ? `<image href="${escaped(options.print)}" width="${number(width)}" height="${number(height)}"/>\n`
    : '';
  const white = `<rect width="${number(width)}" height="${number(height)}" fill="#fff"/>\n`;
  return document_({ x: 0, y: 0, width, height }, name, options, white + print + writer.done());
}

/** Some items alone, on no ground. @param box what of the page is in it, in points */
export function itemsSvg(items: readonly Item[], box: Rect, options: SvgOptions): string {
  const writer = new SvgWriter(options.pictures, options.plain);
  drawItems(items, writer);
  return document_(box, '', options, writer.done());
}

function drawItems(items: readonly Item[], writer: SvgWriter): void {
  const points = new InkColumns();
  for (const item of items)
    if (item.kind === 'ink') drawStroke(readStroke(item.ink, points), points, writer);
    else drawItem(item, writer);
}

function document_(
  { x, y, width, height }: Rect,
  title: string,
  { fontFaces = '' }: SvgOptions,
  content: string,
): string {
  const size = `width="${number(width)}pt" height="${number(height)}pt"`;
  const box = [x, y, width, height].map(number).join(' ');
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" ${size} viewBox="${box}">\n` +
    (title ? `<title>${escaped(title)}</title>\n` : '') +
    (fontFaces ? `<style>${fontFaces}</style>\n` : '') +
    `${content}\n</svg>\n`
  );
}
