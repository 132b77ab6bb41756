import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import type { FontLoader } from '../pdf-content/text-fonts.js';

/** Two alphabets of the title font, and two scripts that run from right to left, for tests. */
export const testFonts: FontLoader = ({ bold, slant }) => {
  const weight = bold ? 700 : 400;
  const literata = ['latin', 'greek'].map(
    (alphabet) => `literata/files/literata-${alphabet}-${weight}-${slant ? 'italic' : 'normal'}`,
  );
  const noto = ['hebrew', 'arabic'].map(
    (script) => `noto-sans-${script}/files/noto-sans-${script}-${script}-${weight}-normal`,
  );
  return Promise.all(
    [...literata, ...noto].map(
      async (path) =>
        new Uint8Array(
          await readFile(fileURLToPath(import.meta.resolve(`@fontsource/${path}.woff`))),
        ),
    ),
  );
};
