import type { PDFDocument, PDFFont } from '@cantoo/pdf-lib';
import { itemsOn } from '@cuaderno/core';
import type { DisplayText, Page, TextFont } from '@cuaderno/core';

/** A style of a font of ours. */
export interface FontStyle {
  readonly font: TextFont;
  readonly bold: boolean;
  readonly slant: boolean;
}

/** Files of a style (WOFF, or what fontkit reads), the first that has a letter is taken for it. */
export type FontLoader = (style: FontStyle) => Promise<readonly Uint8Array[]>;

/** Words in one font, coded for it. */
export interface Piece {
  /** Name in a page's resources. */
  readonly name: string;
  readonly font: PDFFont;
  /** As a hexadecimal string of PDF, angle brackets included. */
  readonly code: string;
  /** Width at size 1. */
  readonly width: number;
}

interface Embedded {
  readonly name: string;
  readonly font: PDFFont;
  readonly letters: ReadonlySet<number>;
}

/** The fonts of all texts on some pages, with no more letters in the file than are used. */
export class TextFonts {
  private readonly styles = new Map<string, readonly Embedded[]>();

  /** Embeds what the pages need; a record without a text loads nothing for it. */
  static async embed(
    doc: PDFDocument,
    pages: readonly Page[],
    load: FontLoader,
  ): Promise<TextFonts> {
    const fonts = new TextFonts();
    const styles = stylesOn(pages);
    if (styles.length === 0) return fonts;
    doc.registerFontkit((await import('fontkit')) as never);
    let count = 0;
    for (const style of styles) {
      const chain: Embedded[] = [];
      for (const bytes of await load(style)) {
        const font = await doc.embedFont(bytes, { subset: true });
        chain.push({ name: `CuaFont${count++}`, font, letters: new Set(font.getCharacterSet()) });
      }
      fonts.styles.set(keyOf(style), chain);
    }
    return fonts;
  }

  /** The words in pieces, each in a font that has its letters. */
  pieces(text: DisplayText): Piece[] {
    const chain = this.styles.get(keyOf(text)) ?? [];
    const parts: { at: Embedded; words: string }[] = [];
    for (const letter of text.text) {
      const code = letter.codePointAt(0)!;
      // A letter that no font of ours has is drawn as the first font draws what it lacks.
      const at = chain.find(({ letters }) => letters.has(code)) ?? chain[0];
      if (!at) continue;
      const last = parts.at(-1);
      if (last?.at === at) last.words += letter;
      else parts.push({ at, words: letter });
    }
    return parts.map(({ at: { name, font }, words }) => ({
      name,
      font,
      code: font.encodeText(words).toString(),
      width: font.widthOfTextAtSize(words, 1),
    }));
  }
}

function keyOf({ font, bold, slant }: FontStyle): string {
  return `${font} ${bold} ${slant}`;
}

function stylesOn(pages: readonly Page[]): FontStyle[] {
  const styles = new Map<string, FontStyle>();
  for (const page of pages)
    for (const item of itemsOn(page)) {
      if (item.kind !== 'text') continue;
      for (const { runs } of item.lines)
        for (const { bold = false, slant = false } of runs) {
          const style = { font: item.font, bold, slant };
          styles.set(keyOf(style), style);
        }
    }
  return [...styles.values()];
}
