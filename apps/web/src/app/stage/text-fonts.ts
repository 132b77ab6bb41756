import { FONT_NAMES, SCRIPT_FONT_NAMES } from '@cuaderno/core';
import type { Measure, TextFont } from '@cuaderno/core';

const OTHERS = SCRIPT_FONT_NAMES.map((name) => `'${name}'`).join(', ');

/** Families, the ones that ship with the application first; for letters they lack, the machine's. */
export const FAMILIES: Record<TextFont, string> = {
  plain: `'${FONT_NAMES.plain}', '${FONT_NAMES.title}', ${OTHERS}, system-ui, sans-serif`,
  title: `'${FONT_NAMES.title}', '${FONT_NAMES.plain}', ${OTHERS}, Georgia, serif`,
  dyslexic: `'${FONT_NAMES.dyslexic}', '${FONT_NAMES.plain}', '${FONT_NAMES.title}', ${OTHERS}, sans-serif`,
};

/** The fonts of the page, or of the worker that this runs in. */
function fonts(): FontFaceSet {
  return typeof document === 'undefined'
    ? (self as unknown as { readonly fonts: FontFaceSet }).fonts
    : document.fonts;
}

interface Look {
  readonly font: TextFont;
  readonly bold: boolean;
  readonly slant: boolean;
}

/** A font as the canvas takes it. @param size in its units */
export function cssFont({ font, bold, slant }: Look, size: number): string {
  return `${slant ? 'italic ' : ''}${bold ? 700 : 400} ${size}px ${FAMILIES[font]}`;
}

/** Fonts that are being fetched, and those that could not be had. */
const coming = new Set<string>();
const missing = new Set<string>();

/** Whether the font with these letters is here; if not it is fetched, and `then` called. */
export function hasFont(look: Look, text: string, then: () => void): boolean {
  const font = cssFont(look, 16);
  const key = `${font} ${text}`;
  // Where it can't be had, the machine's own is used.
  if (fonts().check(font, text) || missing.has(key)) return true;
  if (!coming.has(key)) {
    coming.add(key);
    void fonts()
      .load(font, text)
      .catch(() => missing.add(key))
      .then(() => {
        coming.delete(key);
        then();
      });
  }
  return false;
}

/** All styles of a font, for these letters: to be awaited before lines are broken. */
export async function loadFont(font: TextFont, text: string): Promise<void> {
  const styles = [false, true].flatMap((bold) => [false, true].map((slant) => ({ bold, slant })));
  await Promise.all(
    styles.map((style) => fonts().load(cssFont({ font, ...style }, 16), text)),
  ).catch(() => undefined);
}

let context: CanvasRenderingContext2D | undefined;

/** What words are measured with: made when it is needed, as there is none in a worker. */
function measuring(): CanvasRenderingContext2D {
  if (!context) {
    context = document.createElement('canvas').getContext('2d')!;
    context.textRendering = 'geometricPrecision';
  }
  return context;
}
/** Measured large, so that no rounding of small letters counts. */
const LARGE = 200;

/** Measures words in a font at a size, in points. */
export function measureIn(font: TextFont, size: number): Measure {
  return (text, look) => {
    const context = measuring();
    context.font = cssFont({ font, ...look }, LARGE);
    return (context.measureText(text).width * size) / LARGE;
  };
}
