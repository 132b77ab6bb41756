import { PDFArray, PDFDict, PDFName, PDFNumber, PDFStream, PDFString } from '@cantoo/pdf-lib';
import type { PDFDocument, PDFRef } from '@cantoo/pdf-lib';
import { EAST_ASIAN_FONTS, eastAsianIn } from '@cuaderno/core';
import type { EastAsian } from '@cuaderno/core';
import type { Font as Kit } from 'fontkit';
import { packedStream } from '../pdf-content/packed-stream.js';
import type { FontLoader } from '../pdf-content/text-fonts.js';
import { arrayOf, dictOf, nameOf, textOf } from '../pdf-source/values.js';
import { encodingMap, wordsMap } from './code-map.js';
import { fontProgram } from './font-program.js';
import type { ShownInFont } from './shown-codes.js';

export interface Lending {
  readonly fonts: FontLoader;
  /** Compresses as zlib does (RFC 1950). */
  readonly deflate: (bytes: Uint8Array) => Uint8Array;
}

/** A composite font that isn't in its file, and its one descendant (ISO 32000-1, 9.7). */
interface MissingFont {
  readonly font: PDFDict;
  readonly descendant: PDFDict;
  readonly bold: boolean;
  /** Whose signs it has, by the collection it names; `null` where it names none of these. */
  readonly language: EastAsian | null;
}

/** Collections of signs that readers know (ISO 32000-1, 9.7.5.2), and the later one for Korean. */
const LANGUAGES = new Map<string, EastAsian>([
  ['GB1', 'chinese'],
  ['CNS1', 'chinese'],
  ['Japan1', 'japanese'],
  ['Korea1', 'korean'],
  ['KR', 'korean'],
]);

/**
 * Puts fonts of ours into a PDF for those it only names, mostly Chinese, Japanese and Korean ones: readers that don't
 * have them leave such pages empty. What is written stays as it is, and as wide. A font that can't be lent stays as
 * it came, and costs nothing else.
 */
export async function lendFonts(doc: PDFDocument, lending: Lending): Promise<void> {
  const missing = missingFrom(doc);
  if (missing.length === 0) return;
  // pdf.js tells fonts by their names only, and some share a name or a descendant.
  const restore = missing.map((one, i) => renamed(doc, one, PDFName.of(`CuaLent${i}`)));
  const bytes = await doc.save({ objectsPerTick: Infinity, useObjectStreams: false });
  for (const undo of restore) undo();
  // Few files need it, and it takes long to load.
  const { shownInMissingFonts } = await import('./shown-codes.js');
  const shown = await shownInMissingFonts(bytes).catch(() => null);
  for (const [i, font] of missing.entries()) {
    const here = shown?.get(`CuaLent${i}`);
    if (here) await lend(doc, font, here, lending).catch(() => undefined);
  }
}

function missingFrom(doc: PDFDocument): MissingFont[] {
  return doc.context.enumerateIndirectObjects().flatMap(([, font]) => {
    if (!(font instanceof PDFDict) || nameOf(font, 'Subtype') !== 'Type0') return [];
    const descendants = arrayOf(font, 'DescendantFonts');
    const descendant = descendants?.lookup(0);
    if (!(descendant instanceof PDFDict)) return [];
    const descriptor = dictOf(descendant, 'FontDescriptor');
    if (descriptor && ['FontFile', 'FontFile2', 'FontFile3'].some((key) => has(descriptor, key)))
      return [];
    const collection = dictOf(descendant, 'CIDSystemInfo');
    const language = LANGUAGES.get((collection && textOf(collection, 'Ordering')) ?? '') ?? null;
    // What codes of other collections stand for is known by the file itself or not at all.
    if (!language && !has(font, 'ToUnicode')) return [];
    const bold = /bold|black|heavy/i.test(nameOf(font, 'BaseFont') ?? '');
    return [{ font, descendant, bold, language }];
  });
}

function has(dict: PDFDict, key: string): boolean {
  return dict.lookup(PDFName.of(key)) instanceof PDFStream;
}

/** Gives a font and a descendant of its own another name, until what comes back is called. */
function renamed(doc: PDFDocument, { font, descendant }: MissingFont, name: PDFName): () => void {
  const before = ['BaseFont', 'DescendantFonts'].map(
    (key) => [PDFName.of(key), font.get(PDFName.of(key))] as const,
  );
  const own = descendant.clone(doc.context);
  const descriptor = dictOf(descendant, 'FontDescriptor')?.clone(doc.context);
  descriptor?.set(PDFName.of('FontName'), name);
  own.set(PDFName.of('BaseFont'), name);
  if (descriptor) own.set(PDFName.of('FontDescriptor'), descriptor);
  font.set(PDFName.of('BaseFont'), name);
  font.set(PDFName.of('DescendantFonts'), doc.context.obj([own]));
  return () => {
    for (const [key, value] of before)
      if (value) font.set(key, value);
      else font.delete(key);
  };
}

async function lend(
  doc: PDFDocument,
  { font, descendant, bold, language }: MissingFont,
  shown: ShownInFont,
  { fonts, deflate }: Lending,
): Promise<void> {
  const words = shown.codes.map((code) => code.words).join('');
  const letters = new Set([...words].map((letter) => letter.codePointAt(0)!));
  const eastAsian = [...new Set([...(language ? [language] : []), ...eastAsianIn(words)])];
  const { create } = await import('fontkit');
  const files = await fonts({ font: 'plain', bold, slant: false, eastAsian }, letters);
  const kits = files.map((file) => create(file as never) as Kit);
  const first = eastAsian[0];
  const family = first ? EAST_ASIAN_FONTS[first].replace(/ Variable$| /g, '') : 'OfOurs';
  const { cff, drawn } = await fontProgram(family, shown, kits);
  // Nothing of ours is better than nothing of the reader's, who may have the font.
  if (drawn === 0) return;
  const stream = (bytes: Uint8Array, dict = doc.context.obj({})): PDFRef => {
    const packed = deflate(bytes);
    dict.set(PDFName.of('Length'), PDFNumber.of(packed.length));
    dict.set(PDFName.of('Filter'), PDFName.of('FlateDecode'));
    return doc.context.register(packedStream(dict, packed));
  };
  // A part of a font has six letters before its name (ISO 32000-1, 9.6.4).
  const name = `CUALEN+${family}`;
  const identity = {
    Registry: PDFString.of('Adobe'),
    Ordering: PDFString.of('Identity'),
    Supplement: 0,
  };
  const vertical = descendant.lookup(PDFName.of('DW2'));
  const lent = doc.context.obj({
    ...{ Type: 'Font', Subtype: 'CIDFontType0', BaseFont: name, CIDSystemInfo: identity },
    ...{ DW: 1000, W: [1, shown.codes.map(({ width }) => width)] },
    ...(vertical instanceof PDFArray ? { DW2: vertical } : {}),
    FontDescriptor: {
      ...{ Type: 'FontDescriptor', FontName: name, Flags: 4, FontBBox: [-200, -300, 1200, 1000] },
      ...{ ItalicAngle: 0, Ascent: 880, Descent: -120, CapHeight: 733, StemV: bold ? 140 : 80 },
      FontFile3: stream(cff, doc.context.obj({ Subtype: 'CIDFontType0C' })),
    },
  });
  const text = new TextEncoder();
  font.set(PDFName.of('BaseFont'), PDFName.of(name));
  font.set(PDFName.of('DescendantFonts'), doc.context.obj([doc.context.register(lent)]));
  const mapName = `CuaLent-${family}`;
  const entries = doc.context.obj({
    Type: 'CMap',
    CMapName: mapName,
    CIDSystemInfo: identity,
    WMode: shown.vertical ? 1 : 0,
  });
  font.set(PDFName.of('Encoding'), stream(text.encode(encodingMap(mapName, shown)), entries));
  // Codes are what they were, so what the file itself says of their words is still true.
  if (!has(font, 'ToUnicode'))
    font.set(PDFName.of('ToUnicode'), stream(text.encode(wordsMap(`${mapName}-Words`, shown))));
}
