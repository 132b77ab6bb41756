import type { FontStyle } from '@cuaderno/formats/pdf-out';
import type { TextFont } from '@cuaderno/core';
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';

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
export async function fontFiles({ font, bold, slant }: FontStyle): Promise<Uint8Array[]> {
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
  return Promise.all(
    paths.map(
      async (path) => new Uint8Array(await readFile(fileURLToPath(import.meta.resolve(path)))),
    ),
  );
}
