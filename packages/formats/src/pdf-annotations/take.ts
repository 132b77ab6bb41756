import { ParseSpeeds, PDFDocument, PDFName, PDFNumber } from '@cantoo/pdf-lib';
import type { PDFArray, PDFPage, PDFDict } from '@cantoo/pdf-lib';
import { filesOf, pageToUserSpace, rotation, visibleBox } from '@cuaderno/core';
import type { Matrix, Measure, PdfPlacement, PdfRect } from '@cuaderno/core';
import { dropUnreachable } from '../pdf-source/reachable.js';
import { markProtected, wasProtected } from '../pdf-source/protection.js';
import { placeOf, windowsOf } from '../pdf-source/draw-in.js';
import { bytesOf, dictsIn, nameOf, numberOf, removeFrom, textOf } from '../pdf-source/values.js';
import { sealOf } from './annotation.js';
import { attachedTo } from './attached.js';
import { COMMENT_SIZE, commentsOn, NOTES, Slips } from './comments.js';
import { timeOf } from './dates.js';
import { describe } from './describe.js';
import { fromElsewhere } from './elsewhere.js';
import { OWN, unpackOwn } from './own.js';
import type { Own } from './own.js';
import { isKind, isOutOfSight, parse } from './parse.js';
import type { Parsed } from './parse.js';

/** Annotations of a file that are taken at most; what is beyond stays part of its pages. */
const MOST = 20_000;
/** And comments. */
const MOST_COMMENTS = 2000;

/** What was an annotation, as it is on a page of ours. */
export type TakenItem = Own & {
  /** Its name in the file, by which what was written on a cover sheet says so. */
  readonly name: string;
  /** Who wrote it, as the file says; empty where it doesn't. */
  readonly author: string;
  /** When, in ms since 1970; `null` where the file doesn't say. */
  readonly at: number | null;
};

export interface Taken {
  /** The file without them; `null` where none was taken, and only something is to be told. */
  readonly file: Uint8Array | null;
  /** What they are on our pages, by the pages' numbers from 1, in the order of drawing. */
  readonly pages: ReadonlyMap<number, readonly TakenItem[]>;
  /** How many annotations were taken as what they are. */
  readonly count: number;
  /** How many comments were taken, each with its answers; they lie on slips and are hidden. */
  readonly comments: number;
  /** How many that can be seen stay part of their pages. */
  readonly stayed: number;
  /** How many files are attached to it, or to its pages; they stay in the file as it came. */
  readonly attached: number;
}

export interface TakeOptions {
  /** Of our plain font, in a size in points. */
  readonly measure: (size: number) => Measure;
}

/**
 * Takes annotations out of a PDF, so that they can be written on as ink, texts and shapes of ours. What we wrote
 * comes back as it was, unless another program has changed it since. `null` where there is nothing to take and to tell,
 * or the file can't be taken apart: then it is best shown as it is.
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
  const sum = { count: 0, comments: 0, stayed: 0, attached: 0 };
  sheets.forEach((page, i) => {
    try {
      const items = takeFrom(page, options, sum);
      if (items.length > 0) pages.set(i + 1, items);
    } catch {
      // A page whose list of annotations can't be read keeps it.
    }
  });
  sum.attached += attachedTo(doc);
  if (sum.count + sum.comments === 0)
    return sum.attached > 0 ? { file: null, pages, ...sum } : null;
  dropUnreachable(doc.context);
  if (wasProtected(doc)) markProtected(doc);
  return { file: await doc.save({ objectsPerTick: Infinity }), pages, ...sum };
}

/** What stays part of its page where it is seen. */
const STAYING = ['Redact', 'Watermark', 'Sound', 'Movie', 'Screen', 'RichMedia', '3D'];

interface Sum {
  count: number;
  comments: number;
  stayed: number;
  attached: number;
}

function takeFrom(page: PDFPage, { measure }: TakeOptions, sum: Sum): TakenItem[] {
  const list = page.node.Annots();
  if (!list || list.size() === 0) return [];
  const place = placementOf(page);
  const map = pageToUserSpace(place);
  const items: TakenItem[] = [];
  const gone = new Set<PDFDict>();
  const all = dictsIn(list);
  const talks = commentsOn(all, isOurs);
  const room = MOST_COMMENTS - sum.comments;
  // What more is said than there is room for stays, with what it is about.
  const beyond = new Set(talks.slice(room).map(({ root }) => root));
  for (const dict of all) {
    const kind = nameOf(dict, 'Subtype');
    if (kind === 'FileAttachment') sum.attached++;
    if (isOutOfSight(dict)) continue;
    if (!isKind(kind)) {
      if (STAYING.includes(kind ?? '')) sum.stayed++;
      continue;
    }
    let found: Own[] = [];
    try {
      if (sum.count < MOST && !beyond.has(dict)) found = itemsOf(dict, map, measure);
    } catch {
      // It says what can't be: it stays as it is.
    }
    if (found.length === 0) {
      sum.stayed++;
      continue;
    }
    sum.count++;
    gone.add(dict);
    const said = { name: textOf(dict, 'NM'), ...signOf(dict) };
    for (const own of found) items.push({ ...own, ...said });
  }
  const slips = new Slips(sizeOf(place), measure(COMMENT_SIZE));
  for (const comment of talks.slice(0, room)) {
    const { root, parts } = comment;
    const rect = placeOf(root);
    if (!rect) continue;
    try {
      items.push({ ...slips.lay(comment, cornerOf(rect, map)), name: '', ...signOf(root) });
    } catch {
      // It says what can't be written.
      continue;
    }
    sum.comments++;
    for (const part of parts) gone.add(part);
    // What stays no longer says what the slip says now.
    if (!gone.has(root)) root.delete(PDFName.of('Contents'));
  }
  for (const dict of all)
    if (NOTES.includes(nameOf(dict, 'Subtype') ?? '') && !gone.has(dict) && !isOutOfSight(dict))
      sum.stayed++;
  for (const window of windowsOf(list, gone)) gone.add(window);
  if (gone.size > 0) removeFrom(list, gone);
  return items;
}

/** Longest name of a person: see `PersonName`. */
const MAX_NAME = 60;

function signOf(dict: PDFDict): { author: string; at: number | null } {
  const author = textOf(dict, 'T').replace(/\s+/g, ' ').trim().slice(0, MAX_NAME);
  return { author, at: timeOf(textOf(dict, 'CreationDate') || textOf(dict, 'M')) };
}

function isOurs(dict: PDFDict): boolean {
  return bytesOf(dict, OWN.item) !== null;
}

/** The corner of a rectangle that is the upper right one on our page. */
function cornerOf([x0, y0, x1, y1]: PdfRect, map: Matrix): { x: number; y: number } {
  const corners = [
    [x0, y0],
    [x1, y1],
  ].map((corner) => backTo(map, corner as [number, number]));
  return {
    x: Math.max(...corners.map(([x]) => x)),
    y: Math.min(...corners.map(([, y]) => y)),
  };
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

/** Files are named by what they contain, and anyone who brings a PDF may name what isn't theirs. */
function hasFiles(own: Own): boolean {
  return own.kind === 'placed' && filesOf(own.spec).length > 0;
}

/** A stamp of ours says nothing but where it lies: it is what it was, there. */
function movedOwn(own: Own, { annotation }: Parsed, map: Matrix): Own | null {
  if (own.kind !== 'placed' || annotation.kind !== 'Stamp') return null;
  const stamp = { id: '', by: '', at: 0, lesson: null, removed: null } as const;
  const was = describe({ ...own.spec, ...stamp }, map).rect;
  const [scale, unit] = [widthOf(annotation.rect) / widthOf(was), 1 / Math.hypot(map[0], map[1])];
  if (!(scale > 0.01 && scale < 100)) return null;
  const { frame } = own.spec;
  const [x, y] = backTo(map, middleOf(annotation.rect));
  const [wasX, wasY] = backTo(map, middleOf(was));
  if (!Number.isFinite(x + y + unit)) return null;
  const [width, height] = [frame.width * scale, frame.height * scale];
  const dx = (frame.x + frame.width / 2 - wasX) * scale;
  const dy = (frame.y + frame.height / 2 - wasY) * scale;
  const at = { x: x + dx - width / 2, y: y + dy - height / 2, width, height };
  return { kind: 'placed', spec: { ...own.spec, frame: { ...frame, ...at } } };
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

/** How a page lies where it is shown. */
function placementOf(page: PDFPage): PdfPlacement {
  const { node } = page;
  const rectOf = (value: PDFArray | undefined): PdfRect | null =>
    value?.size() === 4
      ? (Array.from({ length: 4 }, (_, i) => {
          const n = value.lookup(i);
          return n instanceof PDFNumber ? n.asNumber() : 0;
        }) as unknown as PdfRect)
      : null;
  const unit = node.lookup(PDFName.of('UserUnit'));
  return {
    box: visibleBox(rectOf(node.MediaBox()), rectOf(node.CropBox())),
    rotate: rotation(node.Rotate()?.asNumber() ?? 0),
    unit: unit instanceof PDFNumber && unit.asNumber() > 0 ? unit.asNumber() : 1,
  };
}

/** Of our page, in points. */
function sizeOf({ box: [x0, y0, x1, y1], rotate, unit }: PdfPlacement): {
  width: number;
  height: number;
} {
  const [width, height] = [(x1 - x0) * unit, (y1 - y0) * unit];
  return rotate % 180 === 0 ? { width, height } : { width: height, height: width };
}
