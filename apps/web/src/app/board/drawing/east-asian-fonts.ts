import { EAST_ASIAN_FONTS, numberedFiles, readUnicodeRange } from '@cuaderno/core/text';
import type { EastAsian } from '@cuaderno/core/text';

/** Folders of the fonts: each letter is in one of some hundred files, which are fetched one by one as they are used. */
const FOLDERS: Record<EastAsian, string> = {
  chinese: '/fonts/noto-sans-sc',
  japanese: '/fonts/noto-sans-jp',
  korean: '/fonts/noto-sans-kr',
};

/** A file of a font, and the letters in it as CSS writes ranges. */
export interface FontSlice {
  readonly family: string;
  readonly address: string;
  readonly range: string;
}

const asked = new Map<EastAsian, Promise<readonly FontSlice[]>>();

/** The files of a font; rejects where it can't be known just now, and asks again the next time. */
function fontSlices(font: EastAsian): Promise<readonly FontSlice[]> {
  let slices = asked.get(font);
  if (!slices) {
    slices = fetchSlices(font);
    asked.set(font, slices);
    slices.catch(() => asked.delete(font));
  }
  return slices;
}

async function fetchSlices(font: EastAsian): Promise<FontSlice[]> {
  const folder = FOLDERS[font];
  const response = await fetch(`${folder}/unicode.json`);
  if (!response.ok) throw new Error(String(response.status));
  const ranges = (await response.json()) as Record<string, string>;
  return numberedFiles(ranges).map(({ number, range }) => {
    const address = `${folder}/files/${folder.slice('/fonts/'.length)}-${number}-wght-normal.woff2`;
    return { family: EAST_ASIAN_FONTS[font], address, range };
  });
}

/** Those of the files that have letters of these words. */
export async function slicesFor(
  fonts: readonly EastAsian[],
  words: string,
): Promise<readonly FontSlice[]> {
  const codes = [...new Set(words)].map((letter) => letter.codePointAt(0)!);
  const all = (await Promise.all(fonts.map((font) => fontSlices(font)))).flat();
  return all.filter(({ range }) => codes.some(readUnicodeRange(range)));
}

/** A file as this page or worker knows it. */
const faces = new Map<FontSlice, FontFace>();

function add(slice: FontSlice, fonts: FontFaceSet): void {
  const { family, address, range } = slice;
  const face = new FontFace(family, `url('${address}') format('woff2')`, {
    weight: '100 900',
    unicodeRange: range,
  });
  faces.set(slice, face);
  fonts.add(face);
}

/** Files that could not be had are forgotten, to be fetched again: a browser never does by itself. */
export function forgetFailed(fonts: FontFaceSet): void {
  for (const [slice, face] of faces) {
    if (face.status !== 'error') continue;
    fonts.delete(face);
    add(slice, fonts);
  }
}

/** Fonts that are known to this page or worker, or will be. */
const known = new Map<EastAsian, Promise<void>>();

/**
 * Makes a font known, so that its files are fetched as its letters are used. What couldn't be had is tried anew when
 * it is asked for again.
 */
export function knowFont(font: EastAsian, fonts: FontFaceSet): Promise<void> {
  let knowing = known.get(font);
  if (!knowing) {
    knowing = fontSlices(font).then((slices) => {
      for (const slice of slices) add(slice, fonts);
    });
    known.set(font, knowing);
    knowing.catch(() => known.delete(font));
  }
  return knowing;
}
