import type { Measure, TextFont } from '@cuaderno/core';
import { openSync } from 'fontkit';
import type { Font } from 'fontkit';
import { fileURLToPath } from 'node:url';

const FILES: Record<Exclude<TextFont, 'dyslexic'>, string> = {
  plain: 'atkinson-hyperlegible-next',
  title: 'literata',
};

/** Measures words as browsers do, from the fonts' own widths; the demo writes Latin letters only. */
export function measureIn(font: keyof typeof FILES, size: number): Measure {
  const open = new Map<string, Font>();
  return (text, { bold, slant }) => {
    const style = `${bold ? 700 : 400}-${slant ? 'italic' : 'normal'}`;
    let file = open.get(style);
    if (!file) {
      const name = FILES[font];
      const path = import.meta.resolve(`@fontsource/${name}/files/${name}-latin-${style}.woff`);
      open.set(style, (file = openSync(fileURLToPath(path)) as Font));
    }
    return (file.layout(text).advanceWidth * size) / file.unitsPerEm;
  };
}
