import { PDFHexString } from '@cantoo/pdf-lib';
import type { PdfRect } from '@cuaderno/core';
import { decimal } from '../pdf-content/decimal.js';
import type { Annotation, AnnotationColour } from './annotation.js';

/** What an annotation says besides what it is (ISO 32000-1, 12.5.2 and 12.5.6.2). */
export interface Signed {
  /** Its name in the file, which no other annotation of the page has. */
  readonly id: string;
  readonly author: string;
  /** When it was made, in ms since 1970. */
  readonly at: number;
  /** Reference to its appearance, as `12 0 R`. */
  readonly appearance: string;
  /** Entries of our own. */
  readonly own: string;
}

/** The annotation's dictionary as it is written. */
export function codeOf(annotation: Annotation, signed: Signed): string {
  const { kind, rect, contents, colour, interior, width, dashed, inset, endings, words } =
    annotation;
  const date = dateOf(signed.at);
  let code =
    `<</Type/Annot/Subtype/${kind}/Rect${rectCode(rect)}/F 4/NM${textCode(signed.id)}` +
    `/T${textCode(signed.author)}/CreationDate(${date})/M(${date})/AP<</N ${signed.appearance}>>`;
  if (contents !== '') code += `/Contents${textCode(contents)}`;
  if (colour) code += `/C${rgbCode(colour)}`;
  if (interior) code += `/IC${rgbCode(interior)}`;
  if (kind !== 'Highlight' && kind !== 'Stamp')
    code += `/BS<</W ${decimal(width)}${dashed ? `/S/D/D[${decimal(3 * width + 1)} ${decimal(2.5 * width + 1.5)}]` : '/S/S'}>>`;
  if (inset > 0) code += `/RD[${`${decimal(inset)} `.repeat(4).trim()}]`;
  if (endings) code += `/LE[/${endings[0]}/${endings[1]}]`;
  if (words)
    code += `/DA(${words.colour.map(decimal).join(' ')} rg /Helv ${decimal(words.size)} Tf)/Q ${words.align}`;
  if (kind === 'Stamp') code += '/Name/CuaStamp';
  return `${code}${runsCode(annotation)}${signed.own}>>`;
}

function runsCode({ kind, runs }: Annotation): string {
  switch (kind) {
    case 'Ink':
      return `/InkList[${runs.map((run) => `[${run.join(' ')}]`).join('')}]`;
    case 'Highlight':
      return `/QuadPoints[${runs[0]!.join(' ')}]`;
    case 'Line':
      return `/L[${runs[0]!.join(' ')}]`;
    case 'PolyLine':
    case 'Polygon':
      return `/Vertices[${runs[0]!.join(' ')}]`;
    default:
      return '';
  }
}

export function rectCode(rect: PdfRect): string {
  return `[${rect.map(decimal).join(' ')}]`;
}

/** A text string (ISO 32000-1, 7.9.2.2): as it is where it is plain, else in UTF-16. */
export function textCode(text: string): string {
  return /^[\x20-\x27\x2a-\x5b\x5d-\x7e]*$/.test(text)
    ? `(${text})`
    : PDFHexString.fromText(text).toString();
}

function rgbCode(rgb: AnnotationColour): string {
  return `[${rgb.map(decimal).join(' ')}]`;
}

/** A date as PDF writes it (7.9.4), in universal time. */
export function dateOf(ms: number): string {
  return `D:${new Date(ms).toISOString().replace(/\D/g, '').slice(0, 14)}Z`;
}
