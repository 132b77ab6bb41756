import { PDFArray, PDFDict, PDFName, PDFNumber, PDFStream } from '@cantoo/pdf-lib';
import type { PDFObject } from '@cantoo/pdf-lib';
import type { PdfRect } from '@cuaderno/core';
import { OUT_OF_SIGHT } from '../pdf-source/draw-in.js';
import { dictOf, nameOf, numberOf, numbersIn, textOf } from '../pdf-source/values.js';
import { KINDS, round } from './annotation.js';
import type { Annotation, AnnotationKind, AnnotationColour, Words } from './annotation.js';

/** An annotation as a file has it, with what only matters where it was made elsewhere. */
export interface Parsed {
  readonly annotation: Annotation;
  /** From 0 to 1: what lies under it is seen through it. */
  readonly opacity: number;
  /** By how much its look is turned in user space, anticlockwise, in degrees. */
  readonly turn: number;
}

/** Numbers in one annotation at most: more than any hand writes. */
const MOST_NUMBERS = 2_000_000;

/**
 * Reads an annotation's dictionary. `null` for a kind that isn't ours to read, or one that isn't seen; throws
 * where it says what can't be.
 */
export function parse(dict: PDFDict): Parsed | null {
  const kind = nameOf(dict, 'Subtype');
  if (!isKind(kind) || isOutOfSight(dict)) return null;
  const words = kind === 'FreeText' ? wordsOf(dict) : null;
  const annotation: Annotation = {
    kind,
    rect: rectOf(numbersOf(dict, 'Rect')),
    contents: textOf(dict, 'Contents'),
    colour: colourOf(dict, 'C'),
    interior: colourOf(dict, 'IC'),
    width: isOnWords(kind) || kind === 'Stamp' ? 0 : widthOf(dict),
    dashed: isDashed(dict),
    inset: Math.max(0, ...numbersOf(dict, 'RD')),
    runs: runsOf(dict, kind),
    endings: endingsOf(dict),
    words,
  };
  const opacity = numberOf(dict, 'CA') ?? 1;
  return { annotation, opacity: Math.min(1, Math.max(0, opacity)), turn: turnOf(dict) };
}

/** A look says by its matrix how it is turned (12.5.5). */
function turnOf(dict: PDFDict): number {
  const looks = dictOf(dict, 'AP');
  const look = looks?.lookup(PDFName.of('N'));
  const matrix =
    look instanceof PDFStream ? numbersIn(look.dict.lookup(PDFName.of('Matrix')), 6) : null;
  return matrix ? (Math.atan2(matrix[1]!, matrix[0]!) * 180) / Math.PI : 0;
}

/** Marks on runs of words, of which each has four corners. */
function isOnWords(kind: AnnotationKind): boolean {
  return ['Highlight', 'Underline', 'StrikeOut', 'Squiggly'].includes(kind);
}

export function isOutOfSight(dict: PDFDict): boolean {
  return ((numberOf(dict, 'F') ?? 0) & OUT_OF_SIGHT) !== 0;
}

export function isKind(name: string | null): name is AnnotationKind {
  return KINDS.includes(name as AnnotationKind);
}

function numbersOf(dict: PDFDict, key: string): number[] {
  return listOf(dict.lookup(PDFName.of(key)));
}

function listOf(value: PDFObject | undefined): number[] {
  if (!(value instanceof PDFArray)) return [];
  if (value.size() > MOST_NUMBERS) throw new RangeError('No hand writes that much.');
  const list: number[] = [];
  for (let i = 0; i < value.size(); i++) {
    const n = value.lookup(i);
    if (!(n instanceof PDFNumber) || !Number.isFinite(n.asNumber()))
      throw new TypeError('A number is missing.');
    list.push(round(n.asNumber()));
  }
  return list;
}

function rectOf(numbers: readonly number[]): PdfRect {
  if (numbers.length !== 4) throw new TypeError('It lies nowhere.');
  const [a, b, c, d] = numbers as [number, number, number, number];
  return [Math.min(a, c), Math.min(b, d), Math.max(a, c), Math.max(b, d)];
}

/** None, grey, red green and blue, or the four of printers (12.5.2, table 164). */
function colourOf(dict: PDFDict, key: string): AnnotationColour | null {
  const value = dict.lookup(PDFName.of(key));
  if (!(value instanceof PDFArray)) return null;
  const parts = Array.from({ length: value.size() }, (_, i) => {
    const n = value.lookup(i);
    return n instanceof PDFNumber ? n.asNumber() : 0;
  });
  return rgbFrom(parts);
}

function rgbFrom(parts: readonly number[]): AnnotationColour | null {
  const [a = 0, b = 0, c = 0, d = 0] = parts;
  if (parts.length === 1) return [a, a, a];
  if (parts.length === 3) return [a, b, c];
  if (parts.length === 4) return [(1 - a) * (1 - d), (1 - b) * (1 - d), (1 - c) * (1 - d)];
  return null;
}

function widthOf(dict: PDFDict): number {
  const style = dict.lookup(PDFName.of('BS'));
  if (style instanceof PDFDict) return Math.max(0, round(numberOf(style, 'W') ?? 1));
  const border = dict.lookup(PDFName.of('Border'));
  const third = border instanceof PDFArray && border.size() > 2 ? border.lookup(2) : null;
  return third instanceof PDFNumber ? Math.max(0, round(third.asNumber())) : 1;
}

function isDashed(dict: PDFDict): boolean {
  const style = dict.lookup(PDFName.of('BS'));
  return style instanceof PDFDict && nameOf(style, 'S') === 'D';
}

function runsOf(dict: PDFDict, kind: AnnotationKind): number[][] {
  switch (kind) {
    case 'Ink': {
      const list = dict.lookup(PDFName.of('InkList'));
      if (!(list instanceof PDFArray) || list.size() > 10_000)
        throw new TypeError('It has no lines.');
      const runs = Array.from({ length: list.size() }, (_, i) => listOf(list.lookup(i)));
      if (runs.length === 0 || runs.some((run) => run.length < 2 || run.length % 2 !== 0))
        throw new TypeError('A line has no points.');
      return runs;
    }
    case 'Highlight':
    case 'Underline':
    case 'StrikeOut':
    case 'Squiggly':
      return [needed(numbersOf(dict, 'QuadPoints'), 8)];
    case 'Line':
      return [needed(numbersOf(dict, 'L'), 4)];
    case 'PolyLine':
    case 'Polygon':
      return [needed(numbersOf(dict, 'Vertices'), 2)];
    default:
      return [];
  }
}

function needed(run: number[], step: number): number[] {
  if (run.length === 0 || run.length % step !== 0) throw new TypeError('A number is missing.');
  return run;
}

function endingsOf(dict: PDFDict): [string, string] | null {
  const value = dict.lookup(PDFName.of('LE'));
  if (!(value instanceof PDFArray) || value.size() !== 2) return null;
  const [from, to] = [value.lookup(0), value.lookup(1)];
  return from instanceof PDFName && to instanceof PDFName
    ? [from.decodeText(), to.decodeText()]
    : null;
}

/** Operators of a default appearance (12.7.3.3), or what is read where there is none. */
function wordsOf(dict: PDFDict): Words {
  const tokens = textOf(dict, 'DA').split(/\s+/).filter(Boolean);
  let [size, colour]: [number, AnnotationColour] = [12, [0, 0, 0]];
  const operands: number[] = [];
  for (const token of tokens) {
    const n = Number(token);
    if (!Number.isNaN(n)) {
      operands.push(n);
      continue;
    }
    if (token === 'Tf') size = operands.at(-1) ?? size;
    if (token === 'g' || token === 'rg' || token === 'k')
      colour = rgbFrom(operands.slice({ g: -1, rg: -3, k: -4 }[token])) ?? colour;
    operands.length = 0;
  }
  const align = numberOf(dict, 'Q');
  return {
    // Nought lets the viewer choose (12.7.3.3).
    size: size > 0 && size < 1000 ? round(size) : 12,
    colour,
    align: align === 1 || align === 2 ? align : 0,
  };
}
