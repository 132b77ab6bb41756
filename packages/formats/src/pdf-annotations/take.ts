import { ParseSpeeds, PDFDict, PDFDocument, PDFName, PDFNumber } from '@cantoo/pdf-lib';
import type { PDFArray, PDFPage } from '@cantoo/pdf-lib';
import { filesOf, pageToUserSpace, rotation, visibleBox } from '@cuaderno/core';
import type { Matrix, Measure, PdfRect } from '@cuaderno/core';
import { dropUnreachable } from '../pdf-source/reachable.js';
import { bytesOf, nameOf, numberOf, textOf } from '../pdf-source/values.js';
import { sealOf } from './annotation.js';
import { describe } from './describe.js';
import { fromElsewhere } from './elsewhere.js';
import { OWN, unpackOwn } from './own.js';
import type { Own } from './own.js';
import { isKind, parse } from './parse.js';
import type { Parsed } from './parse.js';

/** Annotations of a file that are taken at most; what is beyond stays part of its pages. */
const MOST = 20_000;

/** What was an annotation, as it is on a page of ours. */
export type TakenItem = Own & {
  /** Its name in the file, by which what was written on a cover sheet says so. */
  readonly name: string;
};

export interface Taken {
  /** The file without them. */
  readonly file: Uint8Array;
  /** What they are on our pages, by the pages' numbers from 1, in the order of drawing. */
  readonly pages: ReadonlyMap<number, readonly TakenItem[]>;
  /** How many annotations were taken, and how many of a kind that could be stay part of their pages. */
  readonly count: number;
  readonly stayed: number;
}

export interface TakeOptions {
  /** Of our plain font, in a size in points. */
  readonly measure: (size: number) => Measure;
}

/**
 * Takes annotations out of a PDF, so that they can be written on as ink, texts and figures of ours. What we wrote
 * comes back as it was, unless another program has changed it since. `null` where there is nothing to take, or the
 * file can't be taken apart: then it is best shown as it is.
 */
export async function takeAnnotations(
  bytes: Uint8Array,
  options: TakeOptions,
): Promise<Taken | null> {
  let doc: PDFDocument;
  let sheets: PDFPage[];
  try {
    const parseSpeed = ParseSpeeds.Fastest;
    doc = await PDFDocument.load(bytes, { password: '', updateMetadata: false, parseSpeed });
    sheets = doc.getPages();
  } catch {
    return null;
  }
  const pages = new Map<number, TakenItem[]>();
  const sum = { count: 0, stayed: 0 };
  sheets.forEach((page, i) => {
    try {
      const items = takeFrom(page, options, sum);
      if (items.length > 0) pages.set(i + 1, items);
    } catch {
      // A page whose list of annotations can't be read keeps it.
    }
  });
  if (sum.count === 0) return null;
  dropUnreachable(doc.context);
  return { file: await doc.save({ objectsPerTick: Infinity }), pages, ...sum };
}

function takeFrom(
  page: PDFPage,
  { measure }: TakeOptions,
  sum: { count: number; stayed: number },
): TakenItem[] {
  const list = page.node.Annots();
  if (!list || list.size() === 0) return [];
  const map = placeOf(page);
  const items: TakenItem[] = [];
  const gone = new Set<PDFDict>();
  for (let i = 0; i < list.size(); i++) {
    const dict = list.lookup(i);
    if (!(dict instanceof PDFDict) || !isKind(nameOf(dict, 'Subtype'))) continue;
    let found: Own[] = [];
    try {
      if (sum.count < MOST) found = itemsOf(dict, map, measure);
    } catch {
      // It says what can't be: it stays as it is.
    }
    if (found.length === 0) {
      sum.stayed++;
      continue;
    }
    sum.count++;
    gone.add(dict);
    const name = textOf(dict, 'NM');
    for (const own of found) items.push({ ...own, name });
  }
  if (gone.size > 0) keep(list, gone);
  return items;
}

/** What an annotation is to us: what it was, moved if that is all that happened to it, or what it says. */
function itemsOf(dict: PDFDict, map: Matrix, measure: (size: number) => Measure): Own[] {
  const parsed = parse(dict);
  if (!parsed) return [];
  const bytes = bytesOf(dict, OWN.item);
  const own = bytes && unpackOwn(bytes);
  if (own && !hasFiles(own)) {
    if (numberOf(dict, OWN.seal) === sealOf(parsed.annotation, map)) return [own];
    const moved = movedOwn(own, parsed, map);
    if (moved) return [moved];
  }
  return own && hasFiles(own) ? [] : fromElsewhere(parsed, map, measure);
}

/** Files are named by what they contain, and whoever brings a PDF may name what isn't theirs. */
function hasFiles(own: Own): boolean {
  return own.kind === 'thing' && filesOf(own.thing).length > 0;
}

/** A stamp of ours says nothing but where it lies: it is what it was, there. */
function movedOwn(own: Own, { annotation }: Parsed, map: Matrix): Own | null {
  if (own.kind !== 'thing' || annotation.kind !== 'Stamp') return null;
  const stamp = { id: '', by: '', at: 0, lesson: null, removed: null } as const;
  const was = describe({ ...own.thing, ...stamp }, map).rect;
  const [scale, unit] = [widthOf(annotation.rect) / widthOf(was), 1 / Math.hypot(map[0], map[1])];
  if (!(scale > 0.01 && scale < 100)) return null;
  const { frame } = own.thing;
  const [x, y] = backTo(map, middleOf(annotation.rect));
  const [wasX, wasY] = backTo(map, middleOf(was));
  if (!Number.isFinite(x + y + unit)) return null;
  const [width, height] = [frame.width * scale, frame.height * scale];
  const dx = (frame.x + frame.width / 2 - wasX) * scale;
  const dy = (frame.y + frame.height / 2 - wasY) * scale;
  const at = { x: x + dx - width / 2, y: y + dy - height / 2, width, height };
  return { kind: 'thing', thing: { ...own.thing, frame: { ...frame, ...at } } };
}

function widthOf([x0, , x1]: PdfRect): number {
  return x1 - x0;
}

function middleOf([x0, y0, x1, y1]: PdfRect): [number, number] {
  return [(x0 + x1) / 2, (y0 + y1) / 2];
}

function backTo([a, b, c, d, e, f]: Matrix, [x, y]: [number, number]): [number, number] {
  const det = a * d - b * c;
  return [(d * (x - e) - c * (y - f)) / det, (a * (y - f) - b * (x - e)) / det];
}

/** Leaves in a page's list what wasn't taken; windows of what was go with it. */
function keep(list: PDFArray, gone: ReadonlySet<PDFDict>): void {
  for (let i = list.size() - 1; i >= 0; i--) {
    const dict = list.lookup(i);
    if (!(dict instanceof PDFDict)) continue;
    const parent = nameOf(dict, 'Subtype') === 'Popup' ? dict.lookup(PDFName.of('Parent')) : null;
    if (gone.has(dict) || (parent instanceof PDFDict && gone.has(parent))) list.remove(i);
  }
}

/** From points on our page to user space: the page lies as it does where it is shown. */
function placeOf(page: PDFPage): Matrix {
  const { node } = page;
  const rectOf = (value: PDFArray | undefined): PdfRect | null =>
    value?.size() === 4
      ? (Array.from({ length: 4 }, (_, i) => {
          const n = value.lookup(i);
          return n instanceof PDFNumber ? n.asNumber() : 0;
        }) as unknown as PdfRect)
      : null;
  const unit = node.lookup(PDFName.of('UserUnit'));
  return pageToUserSpace({
    box: visibleBox(rectOf(node.MediaBox()), rectOf(node.CropBox())),
    rotate: rotation(node.Rotate()?.asNumber() ?? 0),
    unit: unit instanceof PDFNumber && unit.asNumber() > 0 ? unit.asNumber() : 1,
  });
}
