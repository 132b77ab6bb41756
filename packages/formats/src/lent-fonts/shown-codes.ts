import type { PDFPageProxy } from 'pdfjs-dist';
import { getDocument, RESOURCES, VerbosityLevel } from '../pdf-in/engine.js';

/** A code as strings of a page have it. */
export interface ShownCode {
  /** Its bytes as hexadecimal digits. */
  readonly hex: string;
  /** What it stands for: mostly one letter. */
  readonly words: string;
  /** In thousandths of the font's size. */
  readonly width: number;
}

/** What is shown in a font. */
export interface ShownInFont {
  readonly vertical: boolean;
  /** Ranges of codes by their number of bytes, first and last one in turn, as hexadecimal digits. */
  readonly codeSpace: readonly (readonly [first: string, last: string])[];
  readonly codes: readonly ShownCode[];
}

/** What is asked of a font as pdf.js describes it, with all that it knows (`fontExtraProperties`). */
interface ReadFont {
  readonly name?: string;
  readonly missingFile?: boolean;
  readonly composite?: boolean;
  readonly vertical?: boolean;
  /** Ranges of codes of one to four bytes, first and last one in turn. */
  readonly cMap?: { readonly codespaceRanges?: readonly (readonly number[])[] };
}

interface ReadGlyph {
  readonly originalCharCode: number;
  readonly unicode: string;
  readonly width: number;
}

/** Codes of operators that are asked for here, as pdf.js has them; it makes all ways to show a text one. */
const SET_FONT = 37;
const SHOW_TEXT = 44;

/**
 * Punctuation as it stands in lines that run downwards (Unicode's blocks “Vertical Forms” and “CJK Compatibility
 * Forms”): nobody who looks for words types it so, and a font has it as another form of the plain sign.
 */
const UPRIGHT_FORMS = /[\ufe10-\ufe1f\ufe30-\ufe4f]/g;

interface Shown extends ShownInFont {
  readonly codes: ShownCode[];
  readonly known: Set<string>;
}

/**
 * What the pages of a PDF show in composite fonts that aren't in the file, by the names of the fonts. A page that
 * can't be read shows nothing. Takes `bytes` over; throws where the file can't be opened.
 */
export async function shownInMissingFonts(
  bytes: Uint8Array,
): Promise<ReadonlyMap<string, ShownInFont>> {
  const task = getDocument({
    data: bytes,
    verbosity: VerbosityLevel.ERRORS,
    isEvalSupported: false,
    disableFontFace: true,
    useSystemFonts: false,
    fontExtraProperties: true,
    ...RESOURCES,
  });
  const shown = new Map<string, Shown>();
  try {
    const doc = await task.promise;
    for (let number = 1; number <= doc.numPages; number++) {
      const page = await doc.getPage(number);
      await readPage(page, shown).catch(() => undefined);
      page.cleanup();
    }
    return shown;
  } finally {
    await task.destroy();
  }
}

async function readPage(page: PDFPageProxy, shown: Map<string, Shown>): Promise<void> {
  const { fnArray, argsArray } = (await page.getOperatorList()) as {
    fnArray: number[];
    argsArray: unknown[][];
  };
  let font: Shown | null = null;
  fnArray.forEach((operator, i) => {
    if (operator === SET_FONT) font = fontOf(page, argsArray[i]![0] as string, shown);
    else if (operator === SHOW_TEXT && font)
      for (const glyph of argsArray[i]![0] as (ReadGlyph | number)[])
        if (typeof glyph !== 'number') note(glyph, font);
  });
}

function fontOf(page: PDFPageProxy, id: string, shown: Map<string, Shown>): Shown | null {
  if (!page.commonObjs.has(id)) return null;
  const { name, missingFile, composite, vertical, cMap } = page.commonObjs.get(id) as ReadFont;
  if (!name || !missingFile || !composite || !cMap?.codespaceRanges) return null;
  const known = shown.get(name);
  if (known) return known;
  const codeSpace = cMap.codespaceRanges.flatMap((ends, i) => {
    const hex = (code: number): string => code.toString(16).padStart(2 * (i + 1), '0');
    return Array.from(
      { length: ends.length >> 1 },
      (_, k) => [hex(ends[2 * k]!), hex(ends[2 * k + 1]!)] as const,
    );
  });
  const font: Shown = { vertical: vertical === true, codeSpace, codes: [], known: new Set() };
  shown.set(name, font);
  return font;
}

function note({ originalCharCode: code, unicode, width }: ReadGlyph, font: Shown): void {
  const range = font.codeSpace.find(([first, last]) => isWithin(code, first, last));
  if (!range) return;
  const hex = code.toString(16).padStart(range[0].length, '0');
  if (font.known.has(hex)) return;
  font.known.add(hex);
  const words = unicode.replace(UPRIGHT_FORMS, (sign) => sign.normalize('NFKC'));
  font.codes.push({ hex, words, width });
}

/** Whether each byte of a code is between those of the first and the last (ISO 32000-1, 9.7.6.2). */
function isWithin(code: number, first: string, last: string): boolean {
  const hex = code.toString(16).padStart(first.length, '0');
  if (hex.length > first.length) return false;
  for (let i = 0; i < hex.length; i += 2) {
    const byte = hex.slice(i, i + 2);
    if (byte < first.slice(i, i + 2) || byte > last.slice(i, i + 2)) return false;
  }
  return true;
}
