import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import type { FontLoader } from '../pdf-out/text-fonts.js';

/** Two alphabets of the title font, for tests. */
export const testFonts: FontLoader = ({ bold, slant }) =>
  Promise.all(
    ['latin', 'greek'].map(async (alphabet) => {
      const style = `${bold ? 700 : 400}-${slant ? 'italic' : 'normal'}`;
      const path = `@fontsource/literata/files/literata-${alphabet}-${style}.woff`;
      return new Uint8Array(await readFile(fileURLToPath(import.meta.resolve(path))));
    }),
  );
