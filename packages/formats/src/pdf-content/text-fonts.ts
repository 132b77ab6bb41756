import type { PDFDocument, PDFFont } from '@cantoo/pdf-lib';
import type { Font } from 'fontkit';
import { eastAsianIn, itemsOn, textsOf } from '@cuaderno/core';
import type { DisplayText, EastAsian, Page, TextFont } from '@cuaderno/core';
import { spansOf } from './direction.js';
import { showGlyphs } from './glyph-run.js';

/** A style of a font of ours. */
export interface FontStyle {
  readonly font: TextFont;
  readonly bold: boolean;
  readonly slant: boolean;
  /** Fonts for Chinese, Japanese and Korean beside it, the first that has a letter is taken for it. */
  readonly eastAsian?: readonly EastAsian[];
}

/**
 * Files of a style (WOFF, or what fontkit reads), the first that has a letter is taken for it.
 * @param letters that are written in it, as code points: of fonts for East Asia no others come
 */
export type FontLoader = (
  style: FontStyle,
  letters: ReadonlySet<number>,
) => Promise<readonly Uint8Array[]>;

/** Words in one font, coded for it. */
export interface Piece {
  /** Name in a page's resources. */
  readonly name: string;
  readonly font: PDFFont;
  /** Operators that show it, once its font is chosen. */
  readonly code: string;
  /** Width at size 1. */
  readonly width: number;
}

/** How initials are written: as `drawSignatures` has it. */
const INITIALS: FontStyle = { font: 'plain', bold: true, slant: false };

interface Embedded {
  readonly name: string;
  readonly font: PDFFont;
  readonly letters: ReadonlySet<number>;
  /** The font as its own tables have it, which say how letters stand to each other. */
  readonly kit: Font;
}

/** The fonts of all texts on some pages, with no more letters in the file than are used. */
export class TextFonts {
  private readonly styles = new Map<string, readonly Embedded[]>();

  /**
   * Embeds what the pages need; a record without a text loads nothing for it.
   * @param initials that are written beside the pages' own texts
   */
  static async embed(
    doc: PDFDocument,
    pages: readonly Page[],
    load: FontLoader,
    initials: readonly string[] = [],
  ): Promise<TextFonts> {
    const fonts = new TextFonts();
    const styles = stylesOn(pages, initials);
    if (styles.length === 0) return fonts;
    const fontkit = await import('fontkit');
    doc.registerFontkit(fontkit as never);
    let count = 0;
    for (const { style, letters } of styles) {
      const chain: Embedded[] = [];
      const missing = new Set(letters);
      for (const bytes of await load(style, letters)) {
        const kit = fontkit.create(bytes as never) as Font;
        const has = new Set(kit.characterSet);
        const gives = [...missing].filter((letter) => has.has(letter));
        // The first is there for letters that no font has; of the others, those that give some.
        if (chain.length > 0 && gives.length === 0) continue;
        for (const letter of gives) missing.delete(letter);
        const font = await doc.embedFont(bytes, { subset: true });
        chain.push({ name: `CuaFont${count++}`, font, letters: has, kit });
      }
      fonts.styles.set(keyOf(style), chain);
    }
    return fonts;
  }

  /** How wide initials are, in points. */
  measure(words: string, size: number): number {
    const look = { ...writtenIn(INITIALS, words), size, colour: '', width: 0, rtl: false } as const;
    const pieces = this.pieces({ kind: 'text', text: words, ...look, matrix: [1, 0, 0, 1, 0, 0] });
    return pieces.reduce((sum, { width }) => sum + width, 0) * size;
  }

  /** The words in pieces from left to right, each in a font that has its letters. */
  pieces(text: DisplayText): Piece[] {
    const chain = this.styles.get(keyOf(text)) ?? [];
    if (chain.length === 0) return [];
    // A letter that no font of ours has is drawn as the first font draws what it lacks.
    const fontOf = (letter: string): Embedded =>
      chain.find(({ letters }) => letters.has(letter.codePointAt(0)!)) ?? chain[0]!;
    return spansOf(text.text, text.rtl, fontOf).map(({ words, rtl }) => {
      const { name, font, kit } = fontOf([...words][0]!);
      // Letters of scripts that run from right to left are turned round where they are shaped;
      // signs that have no script are turned round here.
      const seen = rtl && !RTL.test(words) ? [...words].reverse().join('') : words;
      const codes = font.encodeText(seen).asString().match(/.{4}/g) ?? [];
      return { name, font, ...showGlyphs(kit.layout(seen), codes, kit.unitsPerEm, text.size) };
    });
  }
}

/** Letters that are written from right to left. */
const RTL = /[\p{Script=Hebrew}\p{Script=Arabic}]/u;

function keyOf({ font, bold, slant, eastAsian = [] }: FontStyle): string {
  return [font, bold, slant, ...eastAsian].join(' ');
}

/** The style with the fonts beside it that these words need. */
function writtenIn(style: FontStyle, words: string): FontStyle {
  const eastAsian = eastAsianIn(words);
  return eastAsian.length > 0 ? { ...style, eastAsian } : style;
}

/** Styles that are used, with the letters that are written in each. */
function stylesOn(
  pages: readonly Page[],
  initials: readonly string[],
): { style: FontStyle; letters: ReadonlySet<number> }[] {
  const styles = new Map<string, { style: FontStyle; letters: Set<number> }>();
  const need = (style: FontStyle, text: string): void => {
    const known = styles.get(keyOf(style)) ?? { style, letters: new Set() };
    for (const letter of text) known.letters.add(letter.codePointAt(0)!);
    styles.set(keyOf(style), known);
  };
  for (const words of initials) need(writtenIn(INITIALS, words), words);
  for (const page of pages)
    for (const item of itemsOn(page))
      for (const { text, font, bold, slant, eastAsian } of item.kind === 'ink' ? [] : textsOf(item))
        need({ font, bold, slant, ...(eastAsian ? { eastAsian } : {}) }, text);
  return [...styles.values()];
}
