import { isRtl, plainText } from '@cuaderno/core';
import type { Matrix, PdfRect, TextSpec } from '@cuaderno/core';
import { rgbOf, round } from '../annotation.js';
import type { Annotation } from '../annotation.js';
import { scaleOf } from '../mapping.js';
import { PLAIN } from '../plain.js';

/** Words are free text, a slip with its ground. */
export function text(item: TextSpec, rect: PdfRect, map: Matrix): Annotation {
  const contents = plainText(item.text);
  const ends = { start: 0, middle: 1, end: 2 } as const;
  const align = ends[item.align];
  return {
    ...PLAIN,
    kind: 'FreeText',
    rect,
    contents,
    colour: item.slip ? rgbOf(item.slip) : null,
    words: {
      size: round(item.size * scaleOf(map)),
      colour: rgbOf(item.colour),
      align: isRtl(contents) && align !== 1 ? ((2 - align) as 0 | 2) : align,
    },
  };
}
