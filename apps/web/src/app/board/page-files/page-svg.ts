import { drawnOn, materialOn } from '@cuaderno/core/board';
import { picturesOf, textsOf } from '@cuaderno/core/kinds';
import { FONT_NAMES, readUnicodeRange, SCRIPT_FONT_NAMES } from '@cuaderno/core/text';
import type { Item, Page } from '@cuaderno/core/board';
import type { DisplayText } from '@cuaderno/core/display';
import type { FileHash } from '@cuaderno/core/id';
import { itemsSvg, pageSvg } from '@cuaderno/formats/svg-out';
import { slicesFor } from '../drawing/east-asian-fonts';
import type { FontSlice } from '../drawing/east-asian-fonts';
import type { PaperSource } from '../drawing/paper-source';
import { boxOf, pagePrint } from './page-image';
import type { PageImageOptions } from './page-image';

/**
 * A page as SVG with all that it needs in it: pictures, what is printed on it, and its fonts.
 * @param plain whether it is for the clipboard, which takes neither styles nor fonts
 */
export async function pageAsSvg(
  page: Page,
  papers: PaperSource,
  { ink, signal }: PageImageOptions,
  plain = false,
): Promise<string> {
  const items = ink ? drawnOn(page) : materialOn(page);
  const print =
    page.paper.kind === 'pdf'
      ? (await pagePrint(page, papers, signal)).toDataURL('image/jpeg', 0.92)
      : null;
  return pageSvg(page, ink, { ...(await partsOf(items, plain, signal)), print, plain });
}

/** Some items alone as SVG, for the clipboard. */
export async function itemsAsSvg(items: readonly Item[]): Promise<string> {
  return itemsSvg(items, boxOf(items), { ...(await partsOf(items, true)), plain: true });
}

async function partsOf(
  items: readonly Item[],
  plain: boolean,
  signal?: AbortSignal,
): Promise<{ pictures: Map<FileHash, string>; fontFaces: string }> {
  const pictures = new Map<FileHash, string>();
  for (const item of items) {
    for (const picture of item.kind === 'ink' ? [] : picturesOf(item))
      if (!pictures.has(picture))
        pictures.set(picture, await asData(`/api/files/${picture}`, signal));
  }
  const texts = items.flatMap((item) => (item.kind === 'ink' ? [] : textsOf(item)));
  return { pictures, fontFaces: texts.length > 0 && !plain ? await fontFaces(texts, signal) : '' };
}

/** Rules for the fonts of these texts, the ones of this page with the fonts themselves in them. */
async function fontFaces(texts: readonly DisplayText[], signal?: AbortSignal): Promise<string> {
  const wanted = new Set(
    texts.flatMap(({ font, bold, slant }) => {
      const weight = bold ? 700 : 400;
      return [
        `${FONT_NAMES[font]} ${weight} ${slant ? 'italic' : 'normal'}`,
        // These are written upright only; of them, those come along whose letters there are.
        ...SCRIPT_FONT_NAMES.map((name) => `${name} ${weight} normal`),
      ];
    }),
  );
  const rules: string[] = [];
  for (const rule of faceRules()) {
    const of = (name: string): string => rule.style.getPropertyValue(name).replace(/["']/g, '');
    const key = `${of('font-family')} ${of('font-weight') || 400} ${of('font-style') || 'normal'}`;
    const range = of('unicode-range');
    if (!wanted.has(key) || !isWritten(texts, range)) continue;
    const address = /url\(["']?([^"')]+)["']?\)/.exec(rule.style.getPropertyValue('src'))?.[1];
    if (!address) continue;
    const data = await asData(
      new URL(address, rule.parentStyleSheet?.href ?? location.href),
      signal,
    );
    rules.push(
      `@font-face{font-family:'${of('font-family')}';font-weight:${of('font-weight')};` +
        `font-style:${of('font-style')};src:url(${data})${range ? `;unicode-range:${range}` : ''}}`,
    );
  }
  for (const { family, address, range } of await eastAsianSlices(texts))
    rules.push(
      `@font-face{font-family:'${family}';font-weight:100 900;` +
        `src:url(${await asData(address, signal)});unicode-range:${range}}`,
    );
  return rules.join('');
}

/** Files with the letters of Chinese, Japanese and Korean that the texts have. */
async function eastAsianSlices(texts: readonly DisplayText[]): Promise<readonly FontSlice[]> {
  const slices = new Map<string, FontSlice>();
  for (const { text, eastAsian = [] } of texts)
    for (const slice of await slicesFor(eastAsian, text)) slices.set(slice.address, slice);
  return [...slices.values()];
}

function faceRules(): CSSFontFaceRule[] {
  return [...document.styleSheets].flatMap((sheet) =>
    [...sheet.cssRules].filter((rule) => rule instanceof CSSFontFaceRule),
  );
}

/** Whether any letter of the texts is in a range as CSS writes it: `U+0000-00FF, U+0131`. */
function isWritten(texts: readonly DisplayText[], range: string): boolean {
  if (range === '') return true;
  const has = readUnicodeRange(range);
  return texts.some(({ text }) => [...text].some((letter) => has(letter.codePointAt(0)!)));
}

async function asData(address: string | URL, signal?: AbortSignal): Promise<string> {
  const response = await fetch(address, { signal: signal ?? null });
  if (!response.ok) throw new Error(String(response.status));
  const reader = new FileReader();
  const blob = await response.blob();
  return new Promise((done, fail) => {
    reader.onload = () => done(reader.result as string);
    reader.onerror = () => fail(reader.error ?? new Error('not read'));
    reader.readAsDataURL(blob);
  });
}
