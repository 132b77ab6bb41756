import { EAST_ASIAN_FONTS, eastAsianIn, FONT_NAMES, SCRIPT_FONT_NAMES } from '@cuaderno/core/text';
import type { EastAsian, Measure, TextFont } from '@cuaderno/core/text';
import { forgetFailed, knowFont } from './east-asian-fonts';

const OTHERS = SCRIPT_FONT_NAMES.map((name) => `'${name}'`).join(', ');

/** Families that ship with the application, and the machine's own that are most like them. */
const OURS: Record<TextFont, { readonly ours: string; readonly like: string }> = {
  plain: { ours: `'${FONT_NAMES.plain}', '${FONT_NAMES.title}'`, like: 'system-ui, sans-serif' },
  title: { ours: `'${FONT_NAMES.title}', '${FONT_NAMES.plain}'`, like: 'Georgia, serif' },
  dyslexic: {
    ours: `'${FONT_NAMES.dyslexic}', '${FONT_NAMES.plain}', '${FONT_NAMES.title}'`,
    like: 'sans-serif',
  },
};

/** Families, the ones that ship with the application first; for letters they lack, the machine's. */
export function families(font: TextFont, eastAsian: readonly EastAsian[] = []): string {
  const { ours, like } = OURS[font];
  const theirs = eastAsian.map((name) => `'${EAST_ASIAN_FONTS[name]}', `).join('');
  return `${ours}, ${OTHERS}, ${theirs}${like}`;
}

/** The fonts of the page, or of the worker that this runs in. */
function fonts(): FontFaceSet {
  return typeof document === 'undefined'
    ? (self as unknown as { readonly fonts: FontFaceSet }).fonts
    : document.fonts;
}

interface FontLook {
  readonly font: TextFont;
  readonly bold: boolean;
  readonly slant: boolean;
  readonly eastAsian?: readonly EastAsian[];
}

/** A font as the canvas takes it. @param size in its units */
export function cssFont({ font, bold, slant, eastAsian }: FontLook, size: number): string {
  return `${slant ? 'italic ' : ''}${bold ? 700 : 400} ${size}px ${families(font, eastAsian)}`;
}

/** How long letters may be on their way before that is said, in ms. */
const LATE = 700;
/** How long to wait before letters that no other font has are asked for again, in ms. */
const AGAIN = 5000;

/** Fonts that are being fetched, those of them that are said to be late, and those that could not be had. */
const coming = new Set<string>();
const late = new Set<string>();
const missing = new Set<string>();

/** Whether letters that no other font has are on their way for a while: pages that have such say so. */
export function areLettersLate(): boolean {
  return late.size > 0;
}

/** Whether the font with these letters is here; if not it is fetched, and `then` called. */
export function hasFont(look: FontLook, text: string, then: () => void): boolean {
  const font = cssFont(look, 16);
  const key = `${font} ${text}`;
  const beside = eastAsianIn(text).length > 0 ? (look.eastAsian ?? []) : [];
  // Where it can't be had, the machine's own is used.
  if (missing.has(key)) return true;
  if (beside.every((name) => isKnown.has(name)) && fonts().check(font, text)) return true;
  if (!coming.has(key)) {
    coming.add(key);
    const saying =
      beside.length > 0
        ? setTimeout(() => {
            late.add(key);
            then();
          }, LATE)
        : undefined;
    void load(font, text, beside)
      .catch(() => {
        missing.add(key);
        if (beside.length > 0) setTimeout(() => tryAgain(key, then), AGAIN);
      })
      .then(() => {
        clearTimeout(saying);
        late.delete(key);
        coming.delete(key);
        then();
      });
  }
  return false;
}

/** The line may have been away. */
function tryAgain(key: string, then: () => void): void {
  forgetFailed(fonts());
  missing.delete(key);
  then();
}

/** Fonts for East Asia that this page or worker knows by now. */
const isKnown = new Set<EastAsian>();

async function load(font: string, text: string, eastAsian: readonly EastAsian[]): Promise<void> {
  for (const name of eastAsian) {
    await knowFont(name, fonts());
    isKnown.add(name);
  }
  await fonts().load(font, text);
}

/** All styles of a font, for these letters: to be awaited before lines are broken. */
export async function loadFont(font: TextFont, text: string): Promise<void> {
  const eastAsian = eastAsianIn(text);
  const styles = [false, true].flatMap((bold) => [false, true].map((slant) => ({ bold, slant })));
  await Promise.all(
    styles.map((style) => load(cssFont({ font, ...style, eastAsian }, 16), text, eastAsian)),
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

/** Measures words of a text in a font at a size, in points. */
export function measureIn(
  font: TextFont,
  size: number,
  eastAsian: readonly EastAsian[] = [],
): Measure {
  return (text, look) => {
    const context = measuring();
    context.font = cssFont({ font, ...look, eastAsian }, LARGE);
    return (context.measureText(text).width * size) / LARGE;
  };
}
