import type { FontStyle } from '@cuaderno/formats/pdf-out';
import { isEastAsian } from '@cuaderno/core';
import type { TextFont } from '@cuaderno/core';
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { eastAsianFiles } from './east-asian-files.js';

/** Packages of our fonts, and the alphabets that each has in files of its own. */
const FAMILIES: Record<TextFont, { readonly name: string; readonly alphabets: readonly string[] }> =
  {
    plain: { name: 'atkinson-hyperlegible-next', alphabets: ['latin', 'latin-ext'] },
    title: {
      name: 'literata',
      alphabets: [
        'latin',
        'latin-ext',
        'greek',
        'greek-ext',
        'cyrillic',
        'cyrillic-ext',
        'vietnamese',
      ],
    },
    dyslexic: { name: 'opendyslexic', alphabets: ['latin'] },
  };

/** Where letters are looked for that a font lacks. */
const OTHERS: Record<TextFont, readonly TextFont[]> = {
  plain: ['plain', 'title'],
  title: ['title', 'plain'],
  dyslexic: ['dyslexic', 'plain', 'title'],
};

/** Fonts of scripts that none of the others has. They are written upright only. */
const SCRIPTS = ['hebrew', 'arabic', 'devanagari', 'thai'] as const;

/** Files of a style, its own first, then those of other fonts that have more letters. */
export async function fontFiles(
  { font, bold, slant, eastAsian = [] }: FontStyle,
  letters: ReadonlySet<number>,
): Promise<Uint8Array[]> {
  const style = `${bold ? 700 : 400}-${slant ? 'italic' : 'normal'}`;
  const paths = OTHERS[font].flatMap((family) => {
    const { name, alphabets } = FAMILIES[family];
    return alphabets.map(
      (alphabet) => `@fontsource/${name}/files/${name}-${alphabet}-${style}.woff`,
    );
  });
  for (const script of SCRIPTS)
    paths.push(
      `@fontsource/noto-sans-${script}/files/noto-sans-${script}-${script}-${bold ? 700 : 400}-normal.woff`,
    );
  const own = await Promise.all(
    paths.map(
      async (path) => new Uint8Array(await readFile(fileURLToPath(import.meta.resolve(path)))),
    ),
  );
  if (eastAsian.length === 0) return own;
  const theirs = new Set([...letters].filter((code) => isEastAsian(String.fromCodePoint(code))));
  return [...own, ...(await eastAsianFiles(eastAsian, theirs, bold ? 700 : 400))];
}
