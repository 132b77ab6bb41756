import { numberedFiles, readUnicodeRange } from '@cuaderno/core';
import type { EastAsian } from '@cuaderno/core';
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';

/** Packages of the fonts: each letter is in one of some hundred files, with all weights between thin and black. */
const PACKAGES: Record<EastAsian, string> = {
  chinese: 'noto-sans-sc',
  japanese: 'noto-sans-jp',
  korean: 'noto-sans-kr',
};

interface Slice {
  readonly path: string;
  readonly has: (code: number) => boolean;
}

const known = new Map<EastAsian, Promise<readonly Slice[]>>();

function fileOf(path: string): string {
  return fileURLToPath(import.meta.resolve(`@fontsource-variable/${path}`));
}

async function slices(font: EastAsian): Promise<readonly Slice[]> {
  const name = PACKAGES[font];
  const ranges = JSON.parse(await readFile(fileOf(`${name}/unicode.json`), 'utf8')) as Record<
    string,
    string
  >;
  return numberedFiles(ranges).map(({ number, range }) => {
    const path = fileOf(`${name}/files/${name}-${number}-wght-normal.woff2`);
    return { path, has: readUnicodeRange(range) };
  });
}

/**
 * TrueType files with these letters and no others, of one weight; those that none of the fonts has are left out.
 * @param letters code points
 * @param fonts the first that has a letter is taken for it
 */
export async function eastAsianFiles(
  fonts: readonly EastAsian[],
  letters: ReadonlySet<number>,
  weight: number,
): Promise<Uint8Array[]> {
  const files: Uint8Array[] = [];
  const missing = new Set(letters);
  for (const font of fonts) {
    if (!known.has(font)) known.set(font, slices(font));
    for (const { path, has } of await known.get(font)!) {
      const here = [...missing].filter(has);
      if (here.length === 0) continue;
      for (const letter of here) missing.delete(letter);
      // It brings code for WebAssembly along, which most files that are made don't need.
      const { default: subsetFont } = await import('subset-font');
      const words = here.map((letter) => String.fromCodePoint(letter)).join('');
      const options = { targetFormat: 'truetype', variationAxes: { wght: weight } } as const;
      files.push(new Uint8Array(await subsetFont(await readFile(path), words, options)));
    }
  }
  return files;
}
